import fc from 'fast-check';
import { compileCurve, curveValue, type CompiledCurve } from '../curve';
import { ProjectJoiner, documentPieces, readDocument, writeProject } from '../file';
import { curveContext } from '../edit';
import { testProject } from '../../testing/project';
import { bareKey, packedKeys, withPackedKeys } from './packed-keys';
import type { Curve } from './types';

const numbers = Float64Array.of(0, 1, 12, -3, 30, 0.5);
const packed = (): Curve => {
  const { curves } = testProject({}, [{ channel: 'wagon/rotate.y', keys: [{ frame: 0, value: 1 }] }])
    .clips[0]!;
  return withPackedKeys({ ...curves[0]!, mark: 7 }, numbers);
};

describe('keys that lie packed', () => {
  it('are a field as others: read, copied, written, and sent to a worker', () => {
    const keys = [bareKey(0, 1), bareKey(12, -3), bareKey(30, 0.5)];
    const plain = { ...packed(), keys };
    expect(packed().keys).toEqual(keys);
    expect({ ...packed() }).toEqual(plain);
    expect(JSON.stringify(packed())).toBe(JSON.stringify(plain));
    expect(structuredClone(packed())).toEqual(plain);
    expect(Object.keys(packed())).toEqual(Object.keys(plain));
    const curve = packed();
    expect(curve.keys).toBe(curve.keys);
  });

  it('lie so only as long as they are the same curve’s', () => {
    expect(packedKeys(packed())).toBe(numbers);
    const muted: Curve = { ...packed(), muted: true };
    expect(packedKeys(muted)).toBeNull();
  });

  const outside = fc.record({ mode: fc.constantFrom('hold', 'loop', 'loop-carry', 'swing', 'run-on') });
  const anyCurve = fc.record({
    keys: fc
      .uniqueArray(fc.tuple(fc.integer({ min: -50, max: 50 }), fc.double({ min: -9, max: 9, noNaN: true })), {
        selector: ([frame]) => frame,
        maxLength: 8,
      })
      .map((keys) => keys.sort(([a], [b]) => a - b).map(([frame, value]) => ({ frame, value }))),
    before: fc.oneof(
      { weight: 3, arbitrary: fc.constant({ mode: 'hold' }) },
      { weight: 1, arbitrary: outside },
    ),
    after: fc.oneof(
      { weight: 3, arbitrary: fc.constant({ mode: 'hold' }) },
      { weight: 1, arbitrary: outside },
    ),
  });

  it('are the same project that keys one by one are, to the last bit of each value', () => {
    fc.assert(
      fc.property(anyCurve, fc.array(fc.double({ min: -120, max: 120, noNaN: true })), (curve, frames) => {
        const document = {
          ...testDocument,
          clips: [{ id: 'main', curves: [{ channel: 'wagon/rotate.y', ...curve }] }],
        };
        const read = readDocument(document);
        if (!read.ok) throw new Error(read.problems.map(({ message }) => message).join());
        const joiner = new ProjectJoiner();
        for (const { cut } of documentPieces(document)) joiner.take(cut());
        const [one, joined] = [read.value, joiner.project].map((project) => project.clips[0]!.curves[0]!) as [
          Curve,
          Curve,
        ];
        const compiled = [one, joined].map((each) => compileCurve(each, 3, curveContext(read.value))) as [
          CompiledCurve,
          CompiledCurve,
        ];
        for (const frame of [...frames, ...curve.keys.map((key) => key.frame)])
          expect(curveValue(compiled[1], frame)).toBe(curveValue(compiled[0], frame));
        expect(writeProject(joiner.project)).toBe(writeProject(read.value));
        expect(packedKeys(joined)?.length ?? 0).toBe(2 * curve.keys.length);
        expect(joined).toEqual(one);
      }),
    );
  });
});

const testDocument = {
  format: 'kaizen',
  version: 1,
  id: 'p',
  name: 'P',
  rate: { frames: 24, per: 1 },
  range: { start: 0, end: 48 },
  parts: [{ id: 'wagon', kind: 'group' }],
  activeClip: 'main',
};
