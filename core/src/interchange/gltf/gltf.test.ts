import { bringModel, exportGltf, isBringProblem, readGlb, writeGlb } from './index';
import { type FrameOutput, type Program } from '../../evaluate';
import { type Project } from '../../project';
import { writeProject } from '../../file';
import { complaints, glbOf, playGlb } from '../../../testing/gltf';
import { programOf, testProject } from '../../../testing/project';

const LINEAR = { in: { mode: 'linear' }, out: { mode: 'linear' } };
const mesh = (id: string, more: object = {}) => ({
  id,
  name: id,
  kind: 'mesh',
  geometry: { shape: 'box', size: [1, 1, 1] },
  ...more,
});

/** Pivots, squash in both frames, every kind of leg, loops, a hold's jump, a fast spin, a slider-crank. */
function hardProject(): Project {
  return testProject(
    {
      range: { start: 10, end: 82 },
      parts: [
        mesh('base', { pivot: [0.3, -0.2, 0.1], turnOrder: 'ZXY' }),
        mesh('arm', {
          parent: 'base',
          rest: { translate: [1, 0.5, 0], scale: [1, 2, 0.5] },
          pivot: [0, 0.5, 0],
          squash: { axis: 'y', anchor: [0, -0.5, 0] },
        }),
        mesh('ball', {
          parent: 'arm',
          rest: { rotate: [10, 20, 30] },
          turnOrder: 'YZX',
          squash: { axis: 'y', anchor: [0, -0.5, 0], frame: 'parent' },
        }),
        mesh('rotor', { rest: { translate: [0, 3, 0] } }),
        { id: 'eye', name: 'Eye', kind: 'camera' },
        { id: 'lamp', name: 'Lamp', kind: 'light', light: { type: 'spot', intensity: 20, cone: 40 } },
      ],
      drivers: [
        {
          id: 'd',
          target: 'base/translate.x',
          kind: 'linkage',
          linkage: 'slider-crank',
          inputs: { angle: 'rotor/rotate.y' },
          output: 'slide',
          params: { crank: 0.2, rod: 0.7 },
        },
      ],
    },
    [
      {
        channel: 'base/translate.y',
        keys: [
          { frame: 0, value: 0, leg: { kind: 'ease', family: 'bounce', slow: 'end' } },
          { frame: 30, value: 1 },
        ],
        after: { mode: 'swing' },
      },
      {
        channel: 'base/rotate.x',
        keys: [
          { frame: 12, value: 0, leg: { kind: 'law', law: 'modified-sine' } },
          { frame: 50, value: 400, leg: { kind: 'hold' } },
          { frame: 60, value: 10 },
        ],
      },
      {
        channel: 'base/rotate.z',
        keys: [
          { frame: 10, value: 0, out: { reach: 0.9 } },
          { frame: 40, value: 80 },
          { frame: 82, value: -20 },
        ],
      },
      {
        channel: 'arm/squash',
        keys: [
          { frame: 20, value: 0 },
          { frame: 25, value: -0.5 },
          { frame: 33, value: 0.3 },
          { frame: 40, value: 0 },
        ],
      },
      {
        channel: 'ball/squash',
        keys: [
          { frame: 20, value: 0 },
          { frame: 30, value: 0.6 },
          { frame: 40, value: 0 },
        ],
        after: { mode: 'loop' },
      },
      {
        channel: 'ball/rotate.y',
        keys: [
          { frame: 10, value: 0 },
          { frame: 60, value: 300 },
        ],
      },
      {
        channel: 'rotor/rotate.y',
        keys: [
          { frame: 10, value: 0, ...LINEAR },
          { frame: 22, value: 540, ...LINEAR },
        ],
        after: { mode: 'loop-carry' },
      },
      {
        channel: 'eye/camera.focalLength',
        keys: [
          { frame: 10, value: 24 },
          { frame: 60, value: 85 },
        ],
      },
      {
        channel: 'lamp/visible',
        keys: [
          { frame: 10, value: 1, leg: { kind: 'hold' } },
          { frame: 30, value: 0 },
        ],
      },
      {
        channel: 'rotor/material.baseColor.g',
        keys: [
          { frame: 10, value: 0 },
          { frame: 60, value: 1 },
        ],
      },
    ],
  );
}

function pointOf(
  program: Program,
  out: FrameOutput,
  part: string,
  point: readonly number[],
  frame: number,
): number[] {
  program.run(frame, out);
  const m = out.world[program.structure.parts.findIndex(({ id }) => id === part)]!;
  return [0, 1, 2].map(
    (row) => m[row]! * point[0]! + m[4 + row]! * point[1]! + m[8 + row]! * point[2]! + m[12 + row]!,
  );
}

describe('glTF written', () => {
  it.each([
    ['editable', {}],
    ['baked', { bake: true }],
  ])('%s: another player shows every part within 0.1 mm at every time', async (_, options) => {
    const project = hardProject();
    const played = await playGlb(glbOf(project, options));
    const program = programOf(project);
    const out = program.createOutput();
    let worst = 0;
    for (let frame = 10; frame < 81.9; frame += 0.37) {
      if ([22, 30, 50, 60].some((jump) => Math.abs(frame - jump) < 0.01)) continue;
      for (const part of ['base', 'arm', 'ball', 'rotor']) {
        for (const point of [
          [1, 0, 0],
          [0, 1, 0],
          [0, 0, 1],
        ] as const) {
          const expected = pointOf(program, out, part, point, frame);
          const actual = played.pointAt(part, point, (frame - 10) / 24);
          worst = Math.max(worst, Math.hypot(...expected.map((v, i) => v - actual[i]!)));
        }
      }
    }
    expect(worst).toBeLessThan(1e-4);
  });

  it('has no error and no warning for the validator', async () => {
    expect(await complaints(glbOf(hardProject()))).toEqual([]);
    expect(await complaints(glbOf(hardProject(), { bake: true }))).toEqual([]);
    expect(await complaints(glbOf(testProject()))).toEqual([]);
  });

  it('begins each animation at 0 and lasts the whole range', async () => {
    const { animations } = await playGlb(glbOf(hardProject()));
    expect(animations[0]!.name).toBe('Test');
    expect(Math.abs(animations[0]!.duration - 72 / 24)).toBeLessThan(1e-6);
    for (const track of animations[0]!.tracks) expect(track.times[0]).toBe(0);
  });

  it('points its pointers at things that exist', () => {
    const glb = readGlb(glbOf(hardProject()));
    if ('reason' in glb) throw new Error(glb.reason);
    const json = JSON.parse(glb.text) as Record<string, unknown> & {
      animations: {
        channels: { target: { extensions?: { KHR_animation_pointer: { pointer: string } } } }[];
      }[];
    };
    const pointers = json.animations[0]!.channels.flatMap(
      ({ target }) => target.extensions?.KHR_animation_pointer.pointer ?? [],
    );
    expect(pointers).toHaveLength(3);
    for (const pointer of pointers) {
      const found = pointer
        .slice(1)
        .split('/')
        .reduce<unknown>((at, step) => (at as Record<string, unknown>)[step], json);
      expect(found).toBeDefined();
    }
  });

  it('comes back as the very project, and as bare nodes once somebody changed it', async () => {
    const project = hardProject();
    const glb = glbOf(project);
    const own = await bringModel({ name: 'hard.glb', bytes: glb });
    if (isBringProblem(own)) throw new Error(own.message);
    expect(writeProject(own.project)).toBe(writeProject(project));

    const made = exportGltf(project);
    if (!made.ok) throw new Error('not made');
    made.value.json.nodes![0]!.translation = [9, 9, 9];
    const foreign = await bringModel({ name: 'hard.glb', bytes: writeGlb(made.value) });
    if (isBringProblem(foreign)) throw new Error(foreign.message);
    expect(foreign.project.parts[0]!.rest.translate).toEqual([9, 9, 9]);
    expect(foreign.report.join()).toMatch(/2 animations read as clips/);
    expect(foreign.report.join()).not.toMatch(/left out:/);
  });
});
