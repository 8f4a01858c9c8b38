import { type Mesh, Vector3 } from 'three';
import { TrackedPoints } from '../../evaluate';
import type { Project, Vec3 } from '../../project';
import { complaints, glbOf, playGlb, type PlayedGltf } from '../../../testing/gltf';
import { programOf } from '../../../testing/project';
import { line, riggedProject } from '../../../testing/rigged';

const box = (id: string, more: object = {}) => ({
  id,
  kind: 'mesh',
  geometry: { shape: 'box', size: [0.4, 0.4, 0.4] },
  ...more,
});

/** Every constraint, with lag and plants that let go, on chains that turn, follow and are driven. */
function rigOfEverything(): Project {
  return riggedProject(
    [
      box('cart', { rest: { translate: [0, 0.5, 0] } }),
      box('mast', { parent: 'cart', rest: { translate: [0, 1, 0], rotate: [0, 20, 0] }, pivot: [0.1, 0, 0] }),
      box('jib', { parent: 'mast', rest: { translate: [2, 0, 0], rotate: [0, 0, -40] } }),
      box('tip', { parent: 'jib', rest: { translate: [1.5, 0, 0] } }),
      box('skip', { rest: { translate: [2.5, 1, 0.5] } }),
      box('lamp', { rest: { translate: [0, 4, 6] } }),
      box('crate', { rest: { translate: [2, 0, 1] } }),
      {
        id: 'track',
        kind: 'path',
        path: {
          points: [
            [0, 0, 0],
            [4, 0, 1],
            [6, 1, 5],
            [2, 0, 7],
          ],
          closed: true,
        },
      },
      box('wagon', { custom: [{ name: 'way', value: 0 }] }),
      box('chaser'),
      box('spring'),
    ],
    [
      { kind: 'heading', part: 'cart', axis: 'x' },
      { kind: 'reach', part: 'mast', middle: 'jib', tip: 'tip', target: 'skip' },
      { kind: 'aim', part: 'lamp', target: 'skip', lag: { frequency: 1.5, damping: 0.5 } },
      { kind: 'attach', part: 'crate', target: 'tip', start: 20, end: 50 },
      { kind: 'plant', part: 'crate', start: 60, end: 66, fade: 0 },
      { kind: 'along', part: 'wagon', path: 'track', distance: 'wagon/custom.way' },
      {
        kind: 'chase',
        part: 'chaser',
        target: 'wagon',
        offset: [0, 2, 0],
        axes: 'xz',
        lag: { frequency: 1, damping: 1 },
      },
    ],
    [
      {
        channel: 'cart/translate.x',
        keys: [
          { frame: 0, value: 0 },
          { frame: 40, value: 3 },
          { frame: 80, value: 0.5 },
        ],
      },
      line('cart/translate.z', [0, 0], [30, 0], [80, 2]),
      line('skip/translate.y', [0, 0.6], [30, 1.8], [80, 0.4]),
      line('crate/translate.x', [0, 2], [80, 5]),
      line('wagon/custom.way', [0, 0], [80, 25]),
    ],
    {
      range: { start: 0, end: 80 },
      drivers: [
        {
          id: 'f',
          target: 'spring/translate.y',
          kind: 'follow',
          input: 'skip/translate.y',
          frequency: 2,
          damping: 0.2,
        },
        { id: 'd', target: 'spring/translate.x', kind: 'distance', of: 'cart', to: 'skip' },
        {
          id: 'g',
          target: 'spring/rotate.z',
          kind: 'linkage',
          linkage: 'gear',
          inputs: { angle: 'wagon/custom.way' },
          output: 'angle',
          params: { teethIn: 40, teethOut: 3 },
        },
      ],
    },
  );
}

/** Times in seconds, evenly spread by the golden section: none on a frame. */
const TIMES = Array.from({ length: 200 }, (_, i) => (((i + 1) * 0.6180339887498949) % 1) * (80 / 24));

function furthest(
  project: Project,
  played: PlayedGltf,
  points: readonly { readonly id: string; readonly at: Vec3 }[],
): number {
  const program = programOf(project);
  const tracked = new TrackedPoints(
    program,
    points.map(({ id, at }) => ({ part: program.structure.partIndex.get(id)!, at })),
  );
  const out = program.createOutput();
  const places = new Float64Array(points.length * 3);
  let most = 0;
  for (const seconds of TIMES) {
    program.run(seconds * 24, out);
    tracked.read(out, places);
    points.forEach(({ id, at }, i) => {
      const shown = played.pointAt(id, at, seconds);
      most = Math.max(most, Math.hypot(...shown.map((value, row) => value - places[i * 3 + row]!)));
    });
  }
  return most;
}

describe('the finished shot as GLB', () => {
  it('plays in three.js as the engine computes it, within 1e-4 m at 200 times, constraints and all', async () => {
    const project = rigOfEverything();
    const glb = glbOf(project);
    expect(await complaints(glb)).toEqual([]);
    const points = project.parts
      .filter(({ kind }) => kind === 'mesh')
      .flatMap(({ id }) =>
        (
          [
            [0, 0, 0],
            [1, 0, 0],
            [0, 0, 1],
          ] as Vec3[]
        ).map((at) => ({ id, at })),
      );
    expect(furthest(project, await playGlb(glb), points)).toBeLessThan(1e-4);
  }, 60_000);

  it('plays clips laid over time', async () => {
    const clip = (id: string, ...curves: object[]) => ({ id, name: id, curves });
    const project = riggedProject([box('cart'), box('buoy')], [], [], {
      range: { start: 0, end: 80 },
      clips: [
        clip('sway', {
          channel: 'cart/rotate.z',
          keys: [
            { frame: 0, value: 0 },
            { frame: 6, value: 30 },
            { frame: 12, value: 0 },
          ],
        }),
        clip('go', {
          channel: 'cart/translate.x',
          keys: [
            { frame: 0, value: 0 },
            { frame: 20, value: 2, leg: { kind: 'hold' } },
            { frame: 24, value: 3 },
          ],
        }),
      ],
      activeClip: 'go',
      arrangement: [
        { id: 'a', clip: 'go', start: 5, from: 0, to: 24, repeats: 2.5, repeat: 'carry', after: 'hold' },
        {
          id: 'b',
          clip: 'sway',
          start: 10,
          from: 0,
          to: 12,
          repeats: 4,
          speed: 1.5,
          fadeIn: 8,
          fadeOut: 8,
          weight: 0.8,
        },
        {
          id: 'c',
          clip: 'sway',
          start: 0,
          from: 0,
          to: 12,
          repeats: 6,
          speed: -1,
          partMap: { cart: 'buoy' },
        },
      ],
    });
    const glb = glbOf(project);
    expect(await complaints(glb)).toEqual([]);
    const played = await playGlb(glb);
    expect(played.animations.map(({ name }) => name)).toEqual(['Test', 'sway', 'go']);
    const points = ['cart', 'buoy'].flatMap((id) =>
      (
        [
          [0, 0, 0],
          [0, 1, 0],
        ] as Vec3[]
      ).map((at) => ({ id, at })),
    );
    expect(furthest(project, played, points)).toBeLessThan(1e-4);
  }, 30_000);

  it.each([
    [
      'made morph targets',
      {
        morphs: [
          { name: 'sag', moves: [{ at: [0, 0.2, 0], radius: 0.3, by: [0.06, -0.04, 0], scale: 1.4 }] },
        ],
      },
      ['drum/morph.sag'],
      1,
    ],
    [
      'a rounded squash',
      { squash: { axis: 'y', anchor: [0, -0.2, 0], round: { from: 0, to: 0.4 } } },
      ['drum/squash'],
      1,
    ],
    [
      'both at once',
      {
        squash: { axis: 'y', anchor: [0, -0.2, 0], round: { from: 0, to: 0.4 } },
        morphs: [{ name: 'sag', moves: [{ at: [0, 0.2, 0], radius: 0.3, by: [0.02, -0.02, 0] }] }],
      },
      ['drum/squash', 'drum/morph.sag'],
      // The farther it goes the more shapes are blended, and the longer it takes.
      0.4,
    ],
  ])(
    'shows every vertex of a mesh deformed by %s within 1e-4 m',
    async (_name, more, channels, far) => {
      const drum = {
        id: 'drum',
        kind: 'mesh',
        geometry: { shape: 'cylinder', radius: 0.1, height: 0.4 },
        rest: { translate: [1, 0, 0] },
        ...more,
      };
      const project = riggedProject(
        [drum],
        [],
        channels.map((channel) => ({
          channel,
          keys: [
            { frame: 0, value: 0 },
            { frame: 20, value: -0.35 * far },
            { frame: 50, value: 0.4 * far },
            { frame: 80, value: 0.1 * far },
          ],
        })),
        { range: { start: 0, end: 36 } },
      );
      const glb = glbOf(project);
      expect(await complaints(glb)).toEqual([]);
      const played = await playGlb(glb);
      const mesh = played.scene.getObjectByName('drum') as Mesh;
      const positions = mesh.geometry.getAttribute('position');
      const program = programOf(project);
      const out = program.createOutput();
      const watched = Array.from({ length: 300 }, (_, n) => Math.floor((n * positions.count) / 300));
      const tracked = new TrackedPoints(
        program,
        watched.map((i) => ({
          part: 0,
          at: [positions.getX(i), positions.getY(i), positions.getZ(i)],
        })),
      );
      const places = new Float64Array(watched.length * 3);
      let most = 0;
      for (const seconds of TIMES.filter((time) => time * 24 <= 36).slice(0, 60)) {
        played.pointAt('drum', [0, 0, 0], seconds);
        program.run(seconds * 24, out);
        tracked.read(out, places);
        watched.forEach((i, n) => {
          const shown = mesh.getVertexPosition(i, new Vector3()).applyMatrix4(mesh.matrixWorld);
          const off = [shown.x, shown.y, shown.z].map((value, row) => value - places[n * 3 + row]!);
          most = Math.max(most, Math.hypot(...off));
        });
      }
      expect(most).toBeLessThan(1e-4);
    },
    60_000,
  );

  it('tells of a part that leans: place, turn and size can’t say that', () => {
    const parts = [
      box('cart', { rest: { scale: [1, 3, 1], rotate: [0, 0, 20] } }),
      box('lamp', { parent: 'cart', rest: { rotate: [0, 0, 30] } }),
      box('skip', { rest: { translate: [4, 3, 1] } }),
    ];
    const told: string[] = [];
    const attached = { kind: 'attach', part: 'lamp', target: 'skip', start: 0 };
    const turning = line('skip/rotate.z', [0, 0], [40, 60]);
    glbOf(riggedProject(parts, [attached], [turning]), { tell: (sentence) => told.push(sentence) });
    expect(told).toEqual([expect.stringMatching(/^lamp leans/)]);
  });
});
