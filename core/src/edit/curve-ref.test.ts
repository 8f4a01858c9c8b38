import type { Project } from '../project';
import { testProject } from '../../testing/project';
import { line } from '../../testing/rigged';
import { curveName, curveRef, type CurveRef } from './curve-ref';
import { changeCurves, curveOf } from './curves';
import { deleteKeys, keyValues, moveKeys, setLeg } from './keys';

const keyed = (...points: readonly (readonly [number, number])[]) => {
  const { channel: _channel, ...curve } = line('any', ...points) as { channel: string };
  return curve;
};

/** A project with a curve of each kind of address, all with keys at 0 and 10. */
function withAll(): Project {
  const weight = keyed([0, 0], [10, 1]);
  return testProject(
    {
      drivers: [
        { id: 'lift', kind: 'map', target: 'wagon/rotate.y', input: 'wagon/translate.x', curve: weight },
      ],
      arrangement: [
        { id: 'haul', clip: 'main', start: 0, from: 0, to: 10, weight, time: keyed([0, 0], [10, 10]) },
      ],
    },
    [
      {
        ...line('wagon/translate.x', [0, 0], [10, 5]),
        treatments: [{ kind: 'delay', frames: 2, weight }],
      },
    ],
  );
}

const ADDRESSES: readonly CurveRef[] = [
  { of: 'channel', channel: 'wagon/translate.x' },
  { of: 'weight', channel: 'wagon/translate.x', treatment: 0 },
  { of: 'map', driver: 'lift' },
  { of: 'placed-weight', placement: 'haul' },
  { of: 'placed-time', placement: 'haul' },
];

describe.each(ADDRESSES.map((ref) => [curveName(ref), ref] as const))('the curve %s', (name, ref) => {
  it('is known by its address, which its name gives back', () => {
    expect(curveRef(name)).toEqual(ref);
    expect(curveOf(withAll(), name)?.keys.map(({ frame }) => frame)).toEqual([0, 10]);
    expect(curveOf(withAll(), `${name}x`)).toBeUndefined();
  });

  it('is edited like any other: keyed, moved, given a leg; nothing else changes', () => {
    const before = withAll();
    const made = keyValues(before, [{ channel: name, frame: 5, value: 0.5 }]);
    const moved = moveKeys(made, [{ channel: name, frame: 5 }], { frames: 1, value: 0.25 }).project;
    const after = setLeg(moved, [{ channel: name, frame: 0 }], { kind: 'hold' });
    const curve = curveOf(after, name)!;
    expect(curve.keys.map(({ frame, value }) => [frame, value])[1]).toEqual([6, 0.75]);
    expect(curve.keys[0]!.leg.kind).toBe('hold');
    for (const other of ADDRESSES)
      if (other !== ref && other.of !== 'channel' && ref.of !== 'channel')
        expect(curveOf(after, curveName(other))?.keys).toEqual(curveOf(before, curveName(other))?.keys);
    expect(changeCurves(after, [name], (same) => same)).toBe(after);
  });
});

it('without keys a map stays, a placement’s weight is 1 again and its time none', () => {
  const before = withAll();
  const emptied = (ref: CurveRef) =>
    deleteKeys(
      before,
      [0, 10].map((frame) => ({ channel: curveName(ref), frame })),
    );
  expect(emptied({ of: 'map', driver: 'lift' })).toBe(before);
  expect(emptied({ of: 'placed-weight', placement: 'haul' }).arrangement[0]?.weight).toBe(1);
  expect(emptied({ of: 'placed-time', placement: 'haul' }).arrangement[0]?.time).toBeNull();
});
