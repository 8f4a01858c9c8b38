import {
  addDriver,
  addInterlock,
  asEdited,
  assembleWheel,
  changePart,
  holdInterlocks,
  keyValues,
  newProject,
  setLeg,
  setOutside,
  type InterlockWish,
  type Part,
  type Project,
  type Result,
} from '@kaizen/core';
import { beam, box, camera, COLOURS, gathered, group, rod, solid } from './build-parts';

const RUN = 'skip/translate.x';
const SCREW = 'screw/rotate.y';
const BELL = 'bell/rotate.z';
const [LEAD, TURNS] = [0.12, 5] as const;
const WHEEL = 0.17;
const WHEELS = [
  ['wheel-rear-near', 'Wheel, rear', -0.42, 0.36],
  ['wheel-rear-far', 'Wheel, rear far', -0.42, -0.36],
  ['wheel-front-near', 'Wheel, front', 0.42, 0.36],
  ['wheel-front-far', 'Wheel, front far', 0.42, -0.36],
] as const;
/** Where the skip waits for brine, and where its run ends. */
const [SPOUT, END] = [3.2, 0] as const;

/**
 * A sluice board on its screw, and the skip it fills: the board opens once the skip stands, the skip leaves once it is shut, and a
 * bell is struck when the skip has passed the post.
 */
export function sluice(): Project {
  const project: Project = {
    ...newProject('sluice', 'Sluice'),
    range: { start: 0, end: 264, loop: true },
    parts: parts(),
  };
  const at = (channel: string, frame: number, value: number) => ({ channel, frame, value });
  const keyed = keyValues(project, [
    at(RUN, 0, END),
    at(RUN, 72, SPOUT),
    at(RUN, 174, SPOUT),
    at(RUN, 246, END),
    at(SCREW, 84, 0),
    at(SCREW, 108, 360 * TURNS),
    at(SCREW, 138, 360 * TURNS),
    at(SCREW, 162, 0),
    at(BELL, 56, 0),
    at(BELL, 60, -34),
    at(BELL, 66, 0),
  ]);
  const legs = [
    [RUN, 0, { kind: 'law', law: 's-curve' }],
    [RUN, 72, { kind: 'hold' }],
    [RUN, 174, { kind: 'law', law: 's-curve' }],
    [SCREW, 84, { kind: 'law', law: 'trapezoid' }],
    [SCREW, 108, { kind: 'hold' }],
    [SCREW, 138, { kind: 'law', law: 'trapezoid' }],
    [BELL, 56, { kind: 'ease', family: 'cubic', slow: 'start' }],
    [BELL, 60, { kind: 'ease', family: 'cubic', slow: 'end' }],
  ] as const;
  const shaped = legs.reduce((step, [channel, frame, leg]) => setLeg(step, [{ channel, frame }], leg), keyed);
  const held = setOutside(shaped, [RUN, SCREW, BELL], 'after', { mode: 'hold' });
  const lifted = done(
    addDriver(held, 'linkage', 'board/translate.y', {
      linkage: 'screw',
      inputs: { angle: SCREW },
      output: 'distance',
      combine: 'add',
      params: { lead: LEAD },
    }),
  ).project;
  const rolling = WHEELS.reduce(
    (step, [wheel]) => done(assembleWheel(step, { wheel, wagon: 'skip' }, 'x', 0)).project,
    lifted,
  );
  const key = (channel: string, frame: number) => ({ kind: 'key', channel, frame }) as const;
  const tied = [
    { channel: SCREW, frame: 84, after: key(RUN, 72), gap: 6 },
    { channel: RUN, frame: 174, after: key(SCREW, 162), gap: 12 },
    {
      channel: BELL,
      frame: 56,
      after: { kind: 'passes', channel: RUN, value: 2.4, way: 'up', nth: 1 },
      gap: 4,
    },
  ] satisfies readonly InterlockWish[];
  const waiting = tied.reduce(
    (step: Project, wish) => holdInterlocks(step, asEdited(done(addInterlock(step, wish)).project)).project,
    rolling,
  );
  return changePart(waiting, 'skip', (part) => ({
    ...part,
    limits: { 'translate.x': { min: END, max: SPOUT, speed: 2.4 } },
  }));
}

function done<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(result.problems[0]!.message);
  return result.value;
}

function parts(): Part[] {
  const { timber, darkTimber, iron, steel, tin, clay, stone, brass, brine } = COLOURS;
  const lying = { turn: [90, 0, 0] as const };
  const wheels = WHEELS.flatMap(([id, name, x, z]) => [
    solid(id, name, rod(WHEEL, 0.08), iron, { parent: 'skip', at: [x, WHEEL, z], ...lying }),
    solid(`${id}-spoke`, 'Spoke', box(WHEEL * 1.9, 0.1, 0.05), brass, { parent: id }),
  ]);
  return [
    solid('floor', 'Floor', box(6.6, 0.12, 2.6), stone, { at: [1.4, -0.06, 0] }),
    ...gathered('track', 'Track', [
      ...[-0.36, 0.36].map((z, i) =>
        solid(`rail-${i}`, 'Rail', box(6.4, 0.05, 0.06), iron, { at: [1.4, 0.025, z] }),
      ),
    ]),
    group('skip', 'Skip', { at: [0, 0.05, 0] }),
    solid('frame', 'Frame', box(1.3, 0.1, 0.6), iron, { parent: 'skip', at: [0, 0.3, 0] }),
    solid(
      'tub',
      'Tub',
      {
        shape: 'extrude',
        outline: [
          [-0.46, 0],
          [0.46, 0],
          [0.62, 0.52],
          [-0.62, 0.52],
        ],
        depth: 0.72,
      },
      tin,
      { parent: 'skip', at: [0, 0.35, 0] },
    ),
    solid('brine', 'Brine', box(1.04, 0.02, 0.64), brine, { parent: 'skip', at: [0, 0.76, 0] }),
    ...wheels,
    ...gathered('pan', 'Pan', [
      solid('pan-wall', 'Wall', box(1.5, 1.5, 1.7), clay, { at: [4.55, 0.75, 0] }),
      solid('pan-lip', 'Lip', box(1.6, 0.1, 1.8), stone, { at: [4.55, 1.55, 0] }),
    ]),
    solid('spout', 'Spout', box(0.9, 0.06, 0.5), tin, { at: [3.55, 1.16, 0], turn: [0, 0, 9] }),
    ...gathered('gantry', 'Gantry', [
      ...[-0.5, 0.5].map((z, i) =>
        solid(`post-${i}`, 'Post', box(0.12, 2.3, 0.12), timber, { at: [3.86, 1.15, z] }),
      ),
      solid('head', 'Head', box(0.2, 0.14, 1.3), darkTimber, { at: [3.86, 2.36, 0] }),
      beam('brace', 'Brace', [3.86, 1.9], [4.6, 1.62], -0.5, 0.08, darkTimber),
    ]),
    solid('board', 'Sluice board', box(0.08, 0.56, 0.84), timber, { at: [3.82, 1.34, 0] }),
    group('screw', 'Screw', { at: [3.86, 2.5, 0] }),
    solid('spindle', 'Spindle', rod(0.035, 1.6), steel, { parent: 'screw', at: [-0.04, -0.2, 0] }),
    solid('hand-wheel', 'Hand wheel', { shape: 'torus', radius: 0.26, tube: 0.03 }, iron, {
      parent: 'screw',
      at: [-0.04, 0.5, 0],
    }),
    solid('spoke', 'Spoke', box(0.5, 0.04, 0.05), iron, { parent: 'screw', at: [-0.04, 0.5, 0] }),
    solid('post', 'Bell post', box(0.1, 1.9, 0.1), darkTimber, { at: [2.4, 0.95, -0.9] }),
    group('bell', 'Bell', { at: [2.4, 1.82, -0.72] }),
    solid(
      'bell-cup',
      'Cup',
      {
        shape: 'lathe',
        profile: [
          [0.16, 0],
          [0.12, 0.06],
          [0.09, 0.2],
          [0, 0.24],
        ],
      },
      brass,
      { parent: 'bell', at: [0, -0.3, 0] },
    ),
    camera('shot', 'Shot camera', 34, { at: [1.4, 1.75, 7.4], turn: [-5, -1, 0] }),
  ];
}
