import {
  addDriver,
  assembleGears,
  assembleSliderCrank,
  echoRow,
  keyValues,
  newProject,
  setOutside,
  type Part,
  type Project,
  type Result,
} from '@kaizen/core';
import { beam, box, camera, COLOURS, gathered, group, rod, solid } from './build-parts';

/** Teeth of the pinion and the wheel, of one module, and where their shafts are. */
const [PINION, WHEEL, MODULE] = [17, 53, 0.04] as const;
const SHAFT = 1.5;
const APART = ((PINION + WHEEL) * MODULE) / 2;
const [CRANK, ROD] = [0.3, 1.15] as const;
/** Frames in which the wheel turns once. */
const CYCLE = 72;
const VALVES = 6;

/** A pinion turns a wheel of 53 teeth; on its shaft one pin works two pumps half a cycle apart, and a cam lifts six valves in phase. */
export function pumpHouse(): Project {
  const project: Project = {
    ...newProject('pump-house', 'Pump house'),
    range: { start: 0, end: CYCLE, loop: true },
    parts: parts(),
  };
  const turn = 'pinion/rotate.y';
  const keyed = keyValues(
    project,
    [
      { channel: turn, frame: 0, value: 0 },
      { channel: turn, frame: CYCLE, value: (360 * WHEEL) / PINION },
    ],
    { mode: 'linear', leg: { kind: 'curve' } },
  );
  const looped = (['before', 'after'] as const).reduce(
    (at, side) => setOutside(at, [turn], side, { mode: 'loop-carry' }),
    keyed,
  );
  const geared = done(assembleGears(looped, { driving: 'pinion', driven: 'wheel' }, 0)).project;
  const cranked = ['crank-a', 'crank-b'].reduce(
    (at, crank) =>
      done(
        addDriver(at, 'expression', `${crank}/rotate.z`, {
          inputs: { wheel: 'wheel/rotate.y' },
          expression: 'wheel',
        }),
      ).project,
    geared,
  );
  const pumping = ['a', 'b'].reduce(
    (at, side) =>
      done(assembleSliderCrank(at, { crank: `crank-${side}`, rod: `rod-${side}`, slider: `pump-${side}` }, 0))
        .project,
    cranked,
  );
  return valves(pumping);
}

/** The first valve rides on a cam on the wheel's shaft; the others are the same, each a sixth of a turn later. */
function valves(project: Project): Project {
  const lifted = done(
    addDriver(project, 'linkage', 'valve-1/translate.y', {
      linkage: 'cam',
      inputs: { angle: 'wheel/rotate.y' },
      output: 'lift',
      combine: 'add',
      params: {
        program: [
          { to: 60, lift: 0.22, law: 'modified-sine' },
          { to: 100, law: 'dwell' },
          { to: 190, lift: 0, law: 'cycloidal' },
          { to: 360, law: 'dwell' },
        ],
      },
    }),
  ).project;
  const others = Array.from({ length: VALVES - 1 }, (_, i) => `valve-${i + 2}`);
  const row = { properties: ['translate.y'], delay: CYCLE / VALVES, gain: 1, from: null, to: null };
  const made = echoRow(lifted, 'valve-1', others, { ...row, alternate: false, vary: 0, seed: 1 });
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
}

function done<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(result.problems[0]!.message);
  return result.value;
}

function parts(): Part[] {
  const { timber, darkTimber, iron, steel, stone, brass, tin, clay } = COLOURS;
  const gear = (teeth: number) =>
    ({ shape: 'gear', teeth, module: MODULE, width: 0.16, bore: 0.12 }) as const;
  const upright = { turn: [90, 0, 0] as const };
  const side = (name: 'a' | 'b', way: 1 | -1, z: number): Part[] => [
    group(`crank-${name}`, `Crank ${name.toUpperCase()}`, { at: [0, SHAFT, z] }),
    solid(`web-${name}`, `Web ${name.toUpperCase()}`, box(CRANK + 0.2, 0.2, 0.08), iron, {
      parent: `crank-${name}`,
      at: [CRANK / 2, 0, 0],
    }),
    group(`rod-${name}`, `Rod ${name.toUpperCase()}`, { at: [CRANK, SHAFT, z + 0.09] }),
    solid(`bar-${name}`, `Bar ${name.toUpperCase()}`, box(ROD, 0.1, 0.06), steel, {
      parent: `rod-${name}`,
      at: [(way * ROD) / 2, 0, 0],
    }),
    solid(`pump-${name}`, `Pump ${name.toUpperCase()}`, box(0.34, 0.3, 0.24), brass, {
      at: [CRANK + way * ROD, SHAFT, z + 0.09],
    }),
    solid(`barrel-${name}`, `Barrel ${name.toUpperCase()}`, box(0.9, 0.12, 0.4), tin, {
      at: [way * (ROD + 0.1), SHAFT - 0.24, z + 0.09],
    }),
  ];
  return [
    solid('floor', 'Floor', box(5.6, 0.16, 2.8), stone, { at: [0, 0.08, 0] }),
    ...gathered('frame', 'Frame', [
      beam('post-left', 'Post, left', [-1.9, 0.16], [-1.9, 1.2], 0, 0.14, darkTimber),
      beam('post-right', 'Post, right', [1.9, 0.16], [1.9, 1.2], 0, 0.14, darkTimber),
      beam('sill-left', 'Sill, left', [-2.2, 1.12], [-1.0, 1.12], 0.36, 0.12, timber),
      beam('sill-right', 'Sill, right', [1.0, 1.12], [2.2, 1.12], 0.36, 0.12, timber),
    ]),
    solid('pinion', 'Pinion', gear(PINION), brass, { at: [-APART, SHAFT, 0], ...upright }),
    solid('wheel', 'Wheel', gear(WHEEL), clay, { at: [0, SHAFT, 0], ...upright }),
    solid('shaft', 'Shaft', rod(0.08, 1), steel, { at: [0, SHAFT, 0.1], ...upright }),
    ...side('a', 1, 0.2),
    ...side('b', -1, 0.42),
    ...Array.from({ length: VALVES }, (_, i) =>
      solid(`valve-${i + 1}`, `Valve ${i + 1}`, rod(0.05, 0.7), steel, {
        at: [-1.25 + i * 0.5, 0.5, 1],
      }),
    ),
    camera('shot', 'Shot camera', 32, { at: [2.6, 2.3, 6.2], turn: [-9, 22, 0] }),
  ];
}
