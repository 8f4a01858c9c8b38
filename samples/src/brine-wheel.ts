import {
  keyValues,
  newProject,
  setOutside,
  setSideMode,
  setSpeed,
  type Driver,
  type Part,
  type Project,
} from '@kaizen/core';
import { beam, box, camera, COLOURS, cone, gathered, group, rod, solid } from './build-parts';

const CRANK = 0.42;
const ROD = 1.35;
const OFFSET = 0.08;
const HEIGHT = 2.2;
const PADDLES = 10;
const TURN = 'wheel/rotate.y';

/** A horizontal wheel in its basin; the crank on its shaft works a pump through a rod. A lead-in, then for ever at 30 rpm. */
export function brineWheel(): Project {
  const project: Project = {
    ...newProject('brine-wheel', 'Brine wheel'),
    range: { start: 0, end: 240, loop: false },
    parts: parts(),
    drivers: drivers(),
  };
  const keyed = keyValues(project, [
    { channel: TURN, frame: 0, value: 0 },
    { channel: TURN, frame: 48, value: 180 },
    { channel: TURN, frame: 144, value: 900 },
  ]);
  const steady = [48, 144].map((frame) => ({ channel: TURN, frame }));
  const shaped = setSpeed(
    setSideMode(keyed, [{ channel: TURN, frame: 0 }], 'out', 'flat'),
    steady,
    'out',
    180,
  );
  return setOutside(shaped, [TURN], 'after', { mode: 'loop-carry', pin: 48 });
}

function parts(): Part[] {
  const { timber, darkTimber, iron, steel, stone, brine, brass, tin } = COLOURS;
  return [
    group('wheel', 'Wheel', { at: [0, 0.78, 0] }),
    solid('hub', 'Hub', rod(0.2, 0.42), darkTimber, { parent: 'wheel' }),
    solid('rim', 'Rim', { shape: 'torus', radius: 1.5, tube: 0.055 }, timber, { parent: 'wheel' }),
    ...gathered('arms', 'Arms', Array.from({ length: PADDLES }, (_, i) => spoke(i)).flat(), 'wheel'),
    solid('shaft', 'Shaft', rod(0.1, HEIGHT - 0.78), steel, {
      parent: 'wheel',
      at: [0, (HEIGHT - 0.78) / 2, 0],
    }),
    solid('crank', 'Crank', box(CRANK + 0.22, 0.12, 0.2), iron, {
      parent: 'wheel',
      at: [CRANK / 2, HEIGHT - 0.84, 0],
    }),
    solid('crank-pin', 'Crank pin', rod(0.06, 0.3), brass, {
      parent: 'wheel',
      at: [CRANK, HEIGHT - 0.74, 0],
    }),
    group('pump-rod', 'Pump rod', { at: [CRANK, HEIGHT + 0.02, 0] }),
    solid('rod-bar', 'Rod bar', box(ROD, 0.08, 0.1), timber, { parent: 'pump-rod', at: [ROD / 2, 0, 0] }),
    solid('rod-eye', 'Rod eye', rod(0.11, 0.12), iron, { parent: 'pump-rod' }),
    group('piston', 'Piston', { at: [CRANK + ROD, HEIGHT + 0.02, -OFFSET] }),
    solid('crosshead', 'Crosshead', box(0.22, 0.2, 0.24), brass, { parent: 'piston' }),
    solid('piston-rod', 'Piston rod', rod(0.05, 0.9), steel, {
      parent: 'piston',
      at: [0.5, 0, 0],
      turn: [0, 0, 90],
    }),
    group('pump', 'Pump', { at: [2.72, HEIGHT + 0.02, -OFFSET] }),
    solid('barrel', 'Barrel', rod(0.24, 0.95), tin, { parent: 'pump', turn: [0, 0, 90] }),
    solid('near-flange', 'Near flange', rod(0.31, 0.07), iron, {
      parent: 'pump',
      at: [-0.46, 0, 0],
      turn: [0, 0, 90],
    }),
    solid('far-flange', 'Far flange', rod(0.31, 0.07), iron, {
      parent: 'pump',
      at: [0.46, 0, 0],
      turn: [0, 0, 90],
    }),
    solid('spout', 'Spout', rod(0.09, 0.5), tin, { parent: 'pump', at: [0.3, -0.4, 0] }),
    solid('bed', 'Bed', box(1.3, 0.12, 0.5), darkTimber, { parent: 'pump', at: [0, -0.3, 0] }),
    ...gathered(
      'pump-frame',
      'Pump frame',
      [-0.2, 0.2].flatMap((z) => [
        beam(`post-${z > 0 ? 'a' : 'b'}`, 'Post', [3.1, 0], [3.1, HEIGHT - 0.3], z - OFFSET, 0.14, timber),
        beam(`leg-${z > 0 ? 'a' : 'b'}`, 'Leg', [2.4, 0], [2.4, HEIGHT - 0.3], z - OFFSET, 0.14, timber),
        beam(
          `brace-${z > 0 ? 'a' : 'b'}`,
          'Brace',
          [2.4, 0.35],
          [3.1, HEIGHT - 0.5],
          z - OFFSET,
          0.09,
          darkTimber,
        ),
      ]),
    ),
    ...gathered('pit', 'Basin', [
      solid(
        'basin',
        'Basin wall',
        {
          shape: 'lathe',
          profile: [
            [1.95, 0],
            [2.3, 0],
            [2.3, 0.5],
            [2.05, 0.5],
            [2.05, 0.16],
            [0, 0.16],
          ],
        },
        stone,
      ),
      solid('water', 'Brine', rod(2.04, 0.02), brine, { at: [0, 0.34, 0] }),
      solid('footing', 'Footing', cone(0.5, 0.3, 0.3), stone, { at: [0, 0.3, 0] }),
    ]),
    camera('shot-camera', 'Shot camera', 38, { at: [4.6, 4.1, 7.4], turn: [-19, 27, 0] }),
  ];

  function spoke(i: number): Part[] {
    const angle = (360 / PADDLES) * i;
    return [
      group(`arm-${i}`, `Arm ${i + 1}`, { parent: 'wheel', turn: [0, angle, 0] }),
      solid(`spoke-${i}`, `Spoke ${i + 1}`, box(1.36, 0.09, 0.09), timber, {
        parent: `arm-${i}`,
        at: [0.84, 0, 0],
      }),
      solid(`paddle-${i}`, `Paddle ${i + 1}`, box(0.42, 0.52, 0.05), darkTimber, {
        parent: `arm-${i}`,
        at: [1.62, -0.14, 0],
      }),
    ];
  }
}

/** The pin goes round with the wheel; the rod leans from it to the crosshead, which the slider-crank sets. */
function drivers(): Driver[] {
  const params = { crank: CRANK, rod: ROD, offset: OFFSET };
  const common = { combine: 'replace', muted: false } as const;
  const inputs = { angle: TURN };
  return [
    {
      ...common,
      id: 'pin-x',
      kind: 'expression',
      target: 'pump-rod/translate.x',
      inputs,
      expression: `${CRANK} * cos(angle)`,
    },
    {
      ...common,
      id: 'pin-z',
      kind: 'expression',
      target: 'pump-rod/translate.z',
      inputs,
      expression: `-${CRANK} * sin(angle)`,
    },
    {
      ...common,
      id: 'rod-lean',
      kind: 'linkage',
      target: 'pump-rod/rotate.y',
      linkage: 'slider-crank',
      inputs,
      output: 'rod',
      params,
    },
    {
      ...common,
      id: 'slide',
      kind: 'linkage',
      target: 'piston/translate.x',
      linkage: 'slider-crank',
      inputs,
      output: 'slide',
      params,
    },
  ];
}
