import * as fc from 'fast-check';
import { activeClip, type Project } from '../../../project';
import { compile } from '../../../evaluate';
import { readDocument, stripDefaults } from '../../../file';
import { complaints, glbOf, playGlb, POINTS } from '../../../../testing/gltf';
import { movingModel, type Motion } from '../../../../testing/moving-model';
import { bringModel, isBringProblem } from '../index';

async function brought(bytes: Uint8Array): Promise<{ project: Project; report: readonly string[] }> {
  const result = await bringModel({ name: 'pump.glb', bytes });
  if (isBringProblem(result)) throw new Error(`${result.pointer} ${result.message}`);
  return result;
}

/** How far points of a node are from where three.js has them when it plays a GLB's first animation, over 200 times. */
async function farthest(bytes: Uint8Array, project: Project, node: string, seconds: number): Promise<number> {
  const played = await playGlb(bytes);
  const program = compile(project);
  if (!program.ok) throw new Error(JSON.stringify(program.problems));
  const part = project.parts.findIndex(({ name }) => name === node);
  const { frames, per } = project.rate;
  const matrix = new Float64Array(16);
  let off = 0;
  for (let i = 0; i < 200; i++) {
    const time = (seconds * (i + 0.37)) / 200;
    program.value.worldMatrix(part, (time * frames) / per, matrix);
    for (const point of POINTS) {
      const there = played.pointAt(node, point, time);
      const here = [0, 1, 2].map(
        (row) =>
          matrix[row]! * point[0] +
          matrix[4 + row]! * point[1] +
          matrix[8 + row]! * point[2] +
          matrix[12 + row]!,
      );
      off = Math.max(off, Math.hypot(...here.map((n, k) => n - there[k]!)));
    }
  }
  return off;
}

function quaternion(axis: readonly [number, number, number], degrees: number): number[] {
  const length = Math.hypot(...axis);
  const half = (degrees * Math.PI) / 360;
  return [...axis.map((n) => (n / length) * Math.sin(half)), Math.cos(half)];
}

const unitQuaternion = fc
  .tuple(...Array.from({ length: 4 }, () => fc.double({ min: -1, max: 1, noNaN: true })))
  .filter((q) => Math.hypot(...q) > 0.1)
  .map((q) => q.map((n) => n / Math.hypot(...q)));

describe('animations of a model', () => {
  it('come as clips: straight, held and cubic keys of places are the keys of the file', async () => {
    const bytes = await movingModel([{ name: 'Rod' }], {
      'Pump once': [
        {
          node: 'Rod',
          path: 'translation',
          interpolation: 'CUBICSPLINE',
          times: [0, 0.5, 2],
          numbers: [0, 0, 0, 0, 1, 0, 0, 2, 0, 0, 1, 0, 0, 3, 0, 0, -1, 0, 0, 0, 0, 0, 2, 0, 0, 0, 0],
        },
        { node: 'Rod', path: 'scale', interpolation: 'STEP', times: [0, 1], numbers: [1, 1, 1, 1, 2, 1] },
      ],
      Idle: [
        {
          node: 'Rod',
          path: 'translation',
          interpolation: 'LINEAR',
          times: [0.25, 1],
          numbers: [0, 0, 0, 4, 0, 0],
        },
      ],
    });
    const { project, report } = await brought(bytes);
    expect(report).toContain('2 animations read as clips');
    expect(project.rate).toEqual({ frames: 24, per: 1 });
    expect(project.range).toEqual({ start: 0, end: 48, loop: false });
    expect(project.clips.map(({ name }) => name)).toEqual(['Pump once', 'Idle']);
    expect(activeClip(project)!.curves.map(({ channel }) => channel)).toEqual([
      'Rod/translate.y',
      'Rod/scale.y',
    ]);
    const [height, size] = activeClip(project)!.curves;
    expect(height!.keys).toMatchObject([
      { frame: 0, value: 1, out: { mode: 'set', slope: 2 / 24, reach: 1 / 3 } },
      { frame: 12, value: 3, joined: false, in: { slope: 1 / 24 }, out: { slope: -1 / 24 } },
      { frame: 48, value: 2, in: { slope: 0 } },
    ]);
    expect(size!.keys).toMatchObject([
      { frame: 0, value: 1, leg: { kind: 'hold' } },
      { frame: 24, value: 2 },
    ]);
    expect(project.clips[1]!.curves[0]!.keys).toMatchObject([
      { frame: 6, value: 0, out: { mode: 'linear' } },
      { frame: 24, value: 4, in: { mode: 'linear' } },
    ]);
    expect(await farthest(bytes, project, 'Rod', 2)).toBeLessThan(1e-5);
  });

  it('a spin about one own axis is one straight channel over many turns, whatever the node’s tilt', async () => {
    const tilt = quaternion([0.3, -0.2, 0.9], 40);
    const times = Array.from({ length: 13 }, (_, i) => i / 6);
    const turned = (i: number) => {
      const [ax, ay, az, aw] = tilt as [number, number, number, number];
      const [bx, , , bw] = quaternion([1, 0, 0], 150 * i) as [number, number, number, number];
      return [aw * bx + ax * bw, ay * bw + az * bx, az * bw - ay * bx, aw * bw - ax * bx];
    };
    const bytes = await movingModel([{ name: 'Wheel', rotation: tilt }], {
      Spin: [
        {
          node: 'Wheel',
          path: 'rotation',
          interpolation: 'LINEAR',
          times,
          numbers: times.flatMap((_, i) => turned(i)),
        },
      ],
    });
    const { project, report } = await brought(bytes);
    expect(report).toEqual(['1 animation read as clips']);
    expect(project.parts[0]!.turnOrder.endsWith('X')).toBe(true);
    const [curve] = activeClip(project)!.curves;
    const moving = activeClip(project)!.curves.filter(({ keys }) => keys.length > 1);
    expect(moving.map(({ channel }) => channel)).toEqual(['Wheel/rotate.x']);
    expect(moving[0]!.keys).toHaveLength(13);
    expect(moving[0]!.keys.at(-1)!.value - moving[0]!.keys[0]!.value).toBeCloseTo(1800, 4);
    expect(moving[0]!.keys.every(({ out }) => out.mode === 'linear')).toBe(true);
    expect(curve).toBeDefined();
    expect(await farthest(bytes, project, 'Wheel', 2)).toBeLessThan(1e-5);
  });

  it('times choose the rate; a time that is on no frame stays where it is', async () => {
    const at = (times: readonly number[]) =>
      movingModel([{ name: 'Rod' }], {
        M: [
          {
            node: 'Rod',
            path: 'translation',
            interpolation: 'LINEAR',
            times,
            numbers: times.flatMap((_, i) => [i, 0, 0]),
          },
        ],
      });
    const thirty = await brought(await at([1 / 30, 2 / 30, 61 / 30]));
    expect(thirty.project.rate).toEqual({ frames: 30, per: 1 });
    expect(activeClip(thirty.project)!.curves[0]!.keys.map(({ frame }) => frame)).toEqual([1, 2, 61]);
    const odd = await brought(await at([0, 0.1234, 1]));
    expect(odd.project.rate).toEqual({ frames: 24, per: 1 });
    expect(activeClip(odd.project)!.curves[0]!.keys[1]!.frame).toBeCloseTo(0.1234 * 24, 5);
  });

  it('random turns, straight and cubic, of nodes within nodes stay within a tenth of a millimetre of three.js', async () => {
    // Half a turn has no shortest way, and a cubic to a turn’s other name passes through nothing: there readers differ.
    const isClear = (list: readonly { turn: number[] }[]) =>
      list.every(({ turn }, i) => {
        const next = list[i + 1]?.turn ?? turn;
        return turn.reduce((sum, n, k) => sum + n * next[k]!, 0) > 0.1;
      });
    const keys = fc
      .array(
        fc.record({
          turn: unitQuaternion,
          speed: fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 4, maxLength: 4 }),
        }),
        { minLength: 2, maxLength: 5 },
      )
      .filter(isClear);
    await fc.assert(
      fc.asyncProperty(
        keys,
        keys,
        fc.constantFrom('LINEAR', 'CUBICSPLINE', 'STEP'),
        async (upper, lower, how) => {
          const motion = (node: string, list: typeof upper): Motion => ({
            node,
            path: 'rotation',
            interpolation: how,
            times: list.map((_, i) => i * 0.7),
            numbers: list.flatMap(({ turn, speed }) =>
              how === 'CUBICSPLINE' ? [...speed, ...turn, ...speed] : turn,
            ),
          });
          const bytes = await movingModel([{ name: 'Arm' }, { name: 'Hand', translation: [0.5, 0, 0] }], {
            Swing: [motion('Arm', upper), motion('Hand', lower)],
          });
          const { project } = await brought(bytes);
          expect(
            await farthest(bytes, project, 'Hand', 0.7 * (Math.max(upper.length, lower.length) - 1)),
          ).toBeLessThan(1e-4);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('goes out again as it came in', async () => {
    const bytes = await movingModel([{ name: 'Arm' }, { name: 'Hand', translation: [0.5, 0, 0] }], {
      Swing: [
        {
          node: 'Arm',
          path: 'rotation',
          interpolation: 'LINEAR',
          times: [0, 1, 2],
          numbers: [
            ...quaternion([1, 1, 0], 20),
            ...quaternion([0, 1, 1], 100),
            ...quaternion([1, 0, 0], -50),
          ],
        },
        {
          node: 'Hand',
          path: 'translation',
          interpolation: 'CUBICSPLINE',
          times: [0, 2],
          numbers: [0, 0, 0, 0.5, 0, 0, 0, 1, 0, 0, 0, 0, 0.5, 1, 0, 0, 0, 0],
        },
      ],
    });
    const { project } = await brought(bytes);
    const again = glbOf(project);
    expect(await complaints(again)).toEqual([]);
    expect(await farthest(again, project, 'Hand', 2)).toBeLessThan(2e-4);
  });

  it('leaves out what it can’t read and says so, and takes the rest', async () => {
    const bytes = await movingModel([{ name: 'Rod' }], {
      Good: [
        {
          node: 'Rod',
          path: 'translation',
          interpolation: 'LINEAR',
          times: [0, 1],
          numbers: [0, 0, 0, 0, 1, 0],
        },
      ],
      Bad: [
        {
          node: 'Rod',
          path: 'translation',
          interpolation: 'LINEAR',
          times: [0, 1, 0.5],
          numbers: [0, 0, 0, 0, 1, 0, 0, 2, 0],
        },
      ],
    });
    const { project, report } = await brought(bytes);
    expect(project.clips.map(({ curves }) => curves.length)).toEqual([1, 0]);
    expect(report).toContain('one motion left out: its times do not rise');
  });

  it('any run of its bytes made another gives parts or one problem, never an exception', async () => {
    const bytes = await movingModel([{ name: 'Arm' }, { name: 'Hand' }], {
      Swing: [
        {
          node: 'Arm',
          path: 'rotation',
          interpolation: 'CUBICSPLINE',
          times: [0, 1],
          numbers: Array.from({ length: 24 }, (_, i) => (i % 4 === 3 ? 1 : 0)),
        },
        {
          node: 'Hand',
          path: 'translation',
          interpolation: 'LINEAR',
          times: [0, 1],
          numbers: [0, 0, 0, 1, 2, 3],
        },
      ],
    });
    await fc.assert(
      fc.asyncProperty(
        fc.nat(bytes.length - 1),
        fc.uint8Array({ minLength: 1, maxLength: 12 }),
        async (at, noise) => {
          const broken = bytes.slice();
          broken.set(noise.subarray(0, broken.length - at), at);
          const result = await bringModel({ name: 'broken.glb', bytes: broken });
          if (isBringProblem(result)) expect(result.message).not.toBe('');
          else expect(readDocument(stripDefaults(result.project as never)).ok).toBe(true);
        },
      ),
      { numRuns: 600 },
    );
  });
});
