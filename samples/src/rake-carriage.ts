import {
  addDriver,
  assembleFourBar,
  assembleWheel,
  changePart,
  keyValues,
  newProject,
  setLeg,
  type Part,
  type Project,
  type Result,
} from '@kaizen/core';
import { box, camera, COLOURS, gathered, group, rod, solid } from './build-parts';

const RUN = 'carriage/translate.x';
const [WHEEL, TRAVEL] = [0.24, 4.2] as const;
const CRANK = 0.14;
/** How far down its arm the rake is held, and how far it leans to each side, in degrees. */
const [HOLD, LEAN] = [0.45, 18] as const;
/** The sides: their names, which way they look, how far the crank is behind. */
const SIDES = [
  ['left', 'Left', -1, 0],
  ['right', 'Right', 1, 180],
] as const;
const WHEELS = [
  ['wheel-rear', 'Wheel, rear', -0.8, 0.62],
  ['wheel-rear-far', 'Wheel, rear far', -0.8, -0.62],
  ['wheel-front', 'Wheel, front', 0.8, 0.62],
  ['wheel-front-far', 'Wheel, front far', 0.8, -0.62],
] as const;

/**
 * A carriage over the salt pans: its wheels roll on the way it goes, a belt from one of them turns two cranks, and four bars on each
 * side rock a rake, mirrored and half a cycle apart. Whatever is done to the one run, nothing slips.
 */
export function rakeCarriage(): Project {
  const project: Project = {
    ...newProject('rake-carriage', 'Rake carriage'),
    range: { start: 0, end: 240, loop: true },
    parts: parts(),
  };
  const at = (frame: number, value: number) => ({ channel: RUN, frame, value });
  const keyed = keyValues(project, [at(0, 0), at(108, TRAVEL), at(126, TRAVEL), at(222, 0)]);
  const shaped = ([0, 126] as const).reduce(
    (step, frame) => setLeg(step, [{ channel: RUN, frame }], { kind: 'law', law: 's-curve' }),
    setLeg(keyed, [{ channel: RUN, frame: 108 }], { kind: 'hold' }),
  );
  const rolling = WHEELS.reduce(
    (step, [wheel]) => done(assembleWheel(step, { wheel, wagon: 'carriage' }, 'x', 0)).project,
    shaped,
  );
  const raking = SIDES.reduce((step: Project, [side, , way, behind]) => {
    const ids = {
      crank: `crank-${side}`,
      coupler: `coupler-${side}`,
      rocker: `rake-${side}`,
      pin: `pin-${side}`,
    };
    const barred = done(assembleFourBar(step, ids, 0)).project;
    const belted = done(
      addDriver(barred, 'linkage', `crank-${side}/custom.belt`, {
        linkage: 'belt',
        inputs: { angle: 'wheel-rear/rotate.y' },
        output: 'angle',
        params: { radiusIn: 0.1, radiusOut: 0.15, crossed: false },
      }),
    ).project;
    return done(
      addDriver(belted, 'expression', `crank-${side}/rotate.z`, {
        inputs: { belt: `crank-${side}/custom.belt` },
        expression: `${-way} * belt + ${behind}`,
      }),
    ).project;
  }, rolling);
  return changePart(raking, 'carriage', (part) => ({
    ...part,
    limits: { 'translate.x': { min: 0, max: TRAVEL, speed: 2 } },
  }));
}

function done<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(result.problems[0]!.message);
  return result.value;
}

/** One side: crank, coupler and rake as they stand at the start, and the pin between the last two. */
function side(name: string, title: string, way: 1 | -1): Part[] {
  const { timber, darkTimber, iron, steel, brass } = COLOURS;
  const crank = [way * 0.35, 0.98] as const;
  const rake = [way * 0.95, 1.18] as const;
  // the crank points inwards, and the rake leans inwards as far as it will lean outwards half a turn on
  const leaning = (-way * LEAN * Math.PI) / 180;
  const joint = [rake[0] + HOLD * Math.sin(leaning), rake[1] - HOLD * Math.cos(leaning)] as const;
  const pin = [crank[0] - way * CRANK, crank[1]] as const;
  const rodWay = [joint[0] - pin[0], joint[1] - pin[1]] as const;
  const length = Math.hypot(...rodWay);
  const lean = (Math.atan2(rodWay[1], rodWay[0]) * 180) / Math.PI;
  const wheel = { turn: [90, 0, 0] as const };
  const own = { name: 'belt', value: 0, unit: '°' };
  return [
    group(`crank-${name}`, `Crank, ${title.toLowerCase()}`, {
      parent: 'carriage',
      at: [...crank, 0.5],
      more: { custom: [own] },
    }),
    solid(`disc-${name}`, 'Disc', rod(0.19, 0.06), iron, { parent: `crank-${name}`, ...wheel }),
    solid(`knob-${name}`, 'Knob', rod(0.04, 0.14), brass, {
      parent: `crank-${name}`,
      at: [-way * CRANK, 0, 0.08],
      ...wheel,
    }),
    group(`coupler-${name}`, `Coupler, ${title.toLowerCase()}`, { parent: 'carriage', at: [...pin, 0.58] }),
    solid(`bar-${name}`, 'Bar', box(length + 0.1, 0.07, 0.04), steel, {
      parent: `coupler-${name}`,
      at: [rodWay[0] / 2, rodWay[1] / 2, 0],
      turn: [0, 0, lean],
    }),
    group(`rake-${name}`, `Rake, ${title.toLowerCase()}`, {
      parent: 'carriage',
      at: [...rake, 0.5],
      turn: [0, 0, -way * LEAN],
    }),
    solid(`arm-${name}`, 'Arm', box(0.09, 0.98, 0.06), timber, { parent: `rake-${name}`, at: [0, -0.42, 0] }),
    solid(`pin-${name}`, 'Pin', rod(0.04, 0.16), brass, {
      parent: `rake-${name}`,
      at: [0, -HOLD, 0.06],
      ...wheel,
    }),
    solid(`head-${name}`, 'Head', box(0.1, 0.08, 1), darkTimber, {
      parent: `rake-${name}`,
      at: [0, -0.9, -0.5],
    }),
    ...Array.from({ length: 6 }, (_, i) =>
      solid(`tine-${name}-${i}`, `Tine ${i + 1}`, rod(0.018, 0.18), steel, {
        parent: `rake-${name}`,
        at: [0, -1.02, -0.06 - i * 0.17],
      }),
    ),
  ];
}

function parts(): Part[] {
  const { timber, darkTimber, iron, steel, clay, stone, brass, salt, brine } = COLOURS;
  const lying = { turn: [90, 0, 0] as const };
  return [
    ...gathered('pan', 'Salt pan', [
      solid('bed', 'Bed', box(7.2, 0.06, 1.04), brine, { at: [2.1, 0.03, 0] }),
      ...[-0.58, 0.58].map((z, i) =>
        solid(`wall-${i}`, 'Wall', box(7.2, 0.16, 0.12), stone, { at: [2.1, 0.08, z] }),
      ),
      ...[0, 1, 2, 3].map((i) =>
        solid(
          `heap-${i}`,
          'Salt',
          {
            shape: 'lathe',
            profile: [
              [0.3, 0],
              [0.18, 0.07],
              [0, 0.1],
            ],
          },
          salt,
          { at: [0.2 + i * 1.35, 0.06, (i % 2) * 0.3 - 0.15] },
        ),
      ),
    ]),
    ...[-0.62, 0.62].map((z, i) =>
      solid(`rail-${i}`, 'Rail', box(7.2, 0.05, 0.08), iron, { at: [2.1, 0.185, z] }),
    ),
    group('carriage', 'Carriage', { at: [0, 0.21, 0] }),
    solid('deck', 'Deck', box(2.3, 0.1, 1.1), timber, { parent: 'carriage', at: [0, 0.52, 0] }),
    ...[-0.35, 0.35, -0.95, 0.95].map((x, i) =>
      solid(`bracket-${i}`, 'Bracket', box(0.09, i < 2 ? 0.46 : 0.66, 0.06), darkTimber, {
        parent: 'carriage',
        at: [x, i < 2 ? 0.76 : 0.86, 0.42],
      }),
    ),
    solid('seat', 'Seat', box(0.5, 0.34, 0.6), clay, { parent: 'carriage', at: [0, 0.74, -0.2] }),
    ...WHEELS.flatMap(([id, name, x, z]) => [
      solid(id, name, rod(WHEEL, 0.08), iron, { parent: 'carriage', at: [x, WHEEL, z], ...lying }),
      solid(`${id}-spoke`, 'Spoke', box(WHEEL * 1.9, 0.1, 0.05), brass, { parent: id }),
    ]),
    ...[-0.8, 0.8].map((x, i) =>
      solid(`axle-${i}`, 'Axle', rod(0.035, 1.3), steel, { parent: 'carriage', at: [x, WHEEL, 0], ...lying }),
    ),
    ...SIDES.flatMap(([name, title, way]) => side(name, title, way)),
    camera('shot', 'Shot camera', 40, { at: [2.1, 1.75, 7.4], turn: [-8, 0, 0] }),
  ];
}
