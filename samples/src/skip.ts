import {
  changeKeys,
  changePart,
  keyValues,
  newProject,
  setLeg,
  setOutside,
  type Driver,
  type Part,
  type Project,
  type Vec3,
} from '@kaizen/core';
import { beam, box, camera, COLOURS, cone, gathered, group, rod, solid } from './build-parts';

const RUN = 'skip/translate.x';
const TIP = 'bucket/rotate.z';
const SLOPE = 26;
const TRAVEL = 6.4;
const WHEEL = 0.18;
const DRUM = 0.4;
const ROPE = 8.65;

/** A skip hauled up an incline by rope and drum: up by an s-curve, tipped at the top, down by a trapezoid, looped. */
export function skip(): Project {
  const project: Project = {
    ...newProject('skip', 'Skip'),
    range: { start: 0, end: 276, loop: true },
    parts: parts(),
    drivers: drivers(),
  };
  const at = (channel: string, frame: number, value: number) => ({ channel, frame, value });
  const keyed = keyValues(project, [
    at(RUN, 0, 0),
    at(RUN, 144, TRAVEL),
    at(RUN, 180, TRAVEL),
    at(RUN, 276, 0),
    at(TIP, 142, 0),
    at(TIP, 154, -72),
    at(TIP, 168, -72),
    at(TIP, 178, 0),
  ]);
  const legs = [
    [RUN, 0, { kind: 'law', law: 's-curve' }],
    [RUN, 144, { kind: 'hold' }],
    [RUN, 180, { kind: 'law', law: 'trapezoid', accelerate: 0.3, decelerate: 1 / 3 }],
    [TIP, 142, { kind: 'ease', family: 'cubic', slow: 'both' }],
    [TIP, 154, { kind: 'hold' }],
    [TIP, 168, { kind: 'law', law: 'cycloidal' }],
  ] as const;
  const shaped = legs.reduce((step, [channel, frame, leg]) => setLeg(step, [{ channel, frame }], leg), keyed);
  const looped = setOutside(shaped, [RUN, TIP], 'after', { mode: 'loop' });
  const closed = changeKeys(looped, [{ channel: TIP, frame: 142 }], (key) => ({ ...key, joined: true }));
  return changePart(tipOverWholeRange(closed), 'skip', (part) => ({
    ...part,
    limits: { 'translate.x': { min: 0, max: TRAVEL, speed: 2.4, acceleration: 2 } },
  }));
}

/** The tipping repeats with the run: its cycle is the same 276 frames. */
function tipOverWholeRange(project: Project): Project {
  const keyed = keyValues(project, [
    { channel: TIP, frame: 0, value: 0 },
    { channel: TIP, frame: 276, value: 0 },
  ]);
  return setLeg(
    keyed,
    [0, 178].map((frame) => ({ channel: TIP, frame })),
    { kind: 'hold' },
  );
}

const [COS, SIN] = [Math.cos((SLOPE * Math.PI) / 180), Math.sin((SLOPE * Math.PI) / 180)];
/** A place along and above the incline as x, y of the side view. */
function along(x: number, y = 0): [number, number] {
  return [-4 + x * COS - y * SIN, 0.5 + x * SIN + y * COS];
}

function parts(): Part[] {
  const { timber, darkTimber, iron, steel, tin, salt, clay, rope, stone } = COLOURS;
  return [
    group('incline', 'Incline', { at: [-4, 0.5, 0], turn: [0, 0, SLOPE] }),
    group('skip', 'Skip', { parent: 'incline' }),
    solid('frame', 'Frame', box(1.5, 0.1, 0.72), iron, { parent: 'skip', at: [0, 0.27, 0] }),
    ...(['rear', 'front'] as const).flatMap((name, i) => axle(name, i === 0 ? -0.5 : 0.5)),
    group('bucket', 'Bucket', { parent: 'skip', at: [0.62, 0.36, 0] }),
    solid(
      'tub',
      'Tub',
      {
        shape: 'extrude',
        outline: [
          [-0.95, 0],
          [-0.25, 0],
          [0.28, 0.82],
          [-1.52, 0.82],
        ],
        depth: 0.86,
      },
      tin,
      { parent: 'bucket' },
    ),
    solid('tub-rim', 'Tub rim', box(1.9, 0.07, 0.96), steel, { parent: 'bucket', at: [-0.62, 0.82, 0] }),
    solid(
      'load',
      'Salt',
      {
        shape: 'lathe',
        profile: [
          [0.66, 0],
          [0.42, 0.2],
          [0.16, 0.33],
          [0, 0.36],
        ],
      },
      salt,
      {
        parent: 'bucket',
        at: [-0.62, 0.85, 0],
        size: [1.1, 1, 0.6],
      },
    ),

    solid('rope', 'Rope', rod(0.028, 1), rope, { parent: 'incline', at: [4.3, 0.42, 0], turn: [0, 0, 90] }),
    group('drum', 'Drum', { at: drumPlace() }),
    solid('drum-barrel', 'Barrel', rod(DRUM, 0.7), timber, { parent: 'drum', turn: [90, 0, 0] }),
    ...[-0.37, 0.37].map((z, i) =>
      solid(`cheek-${i}`, 'Cheek', rod(DRUM + 0.2, 0.07), steel, {
        parent: 'drum',
        at: [0, 0, z],
        turn: [90, 0, 0],
      }),
    ),
    solid('spoke-a', 'Spoke', box(1.06, 0.07, 0.86), iron, { parent: 'drum' }),
    solid('spoke-b', 'Spoke', box(0.07, 1.06, 0.86), iron, { parent: 'drum' }),
    solid('shaft', 'Shaft', rod(0.08, 1.5), iron, { parent: 'drum', turn: [90, 0, 0] }),
    ...gathered(
      'headframe',
      'Headframe',
      [-0.6, 0.6].flatMap((z, i) => headframe(z, i)),
    ),
    ...gathered('hopper-frame', 'Hopper', [
      solid(
        'hopper',
        'Funnel',
        {
          shape: 'lathe',
          profile: [
            [0.22, 0],
            [0.26, 0],
            [0.92, 1.15],
            [0.98, 1.15],
            [0.98, 1.3],
            [0.86, 1.3],
            [0.2, 0.05],
          ],
        },
        clay,
        {
          at: [3.75, 1.75, 0],
        },
      ),
      solid('chute', 'Chute', rod(0.2, 0.5), steel, { at: [3.75, 1.55, 0] }),
      ...[-0.8, 0.8].flatMap((x) =>
        [-0.8, 0.8].map((z) =>
          solid(
            `hopper-leg-${x > 0 ? 'r' : 'l'}${z > 0 ? 'n' : 'f'}`,
            'Hopper leg',
            box(0.12, 2.6, 0.12),
            timber,
            {
              at: [3.75 + x, 1.3, z],
            },
          ),
        ),
      ),
    ]),
    ...gathered(
      'track',
      'Track',
      [
        ...[-0.45, 0.45].flatMap((z, i) => [
          solid(`beam-${i}`, 'Beam', box(8.2, 0.16, 0.12), timber, {
            parent: 'incline',
            at: [3.4, -0.13, z],
          }),
          solid(`rail-${i}`, 'Rail', box(8.2, 0.06, 0.06), iron, { parent: 'incline', at: [3.4, -0.02, z] }),
        ]),
        ...Array.from({ length: 16 }, (_, k) =>
          solid(`sleeper-${k}`, `Sleeper ${k + 1}`, box(0.12, 0.06, 1.06), darkTimber, {
            parent: 'incline',
            at: [-0.35 + k * 0.5, -0.07, 0],
          }),
        ),
        solid('stop', 'Stop', box(0.14, 0.34, 1.1), darkTimber, { parent: 'incline', at: [-0.72, 0.12, 0] }),
      ],
      'incline',
    ),
    ...gathered(
      'trestle',
      'Trestle',
      [-0.45, 0.45].flatMap((z, i) => [
        ...[1.6, 3.4, 5.2, 7].map((x, k) => {
          const [px, py] = along(x, -0.2);
          return beam(`trestle-${i}-${k}`, `Trestle ${k + 1}`, [px, 0], [px, py], z, 0.13, timber);
        }),
        ...[1.6, 3.4, 5.2].map((x, k) => {
          const [fx] = along(x);
          const [tx, ty] = along(x + 1.8, -0.3);
          return beam(`brace-${i}-${k}`, `Brace ${k + 1}`, [fx, 0.1], [tx, ty], z, 0.08, darkTimber);
        }),
      ]),
    ),
    ...gathered('yard', 'Yard', [
      solid('pile', 'Salt pile', cone(1.15, 0, 0.75), salt, { at: [3.75, 0.375, 0] }),
      solid('loading-heap', 'Loading heap', cone(1.2, 0, 0.8), salt, { at: [-5.9, 0.4, 0.5] }),
      solid('kerb', 'Kerb', box(1.6, 0.24, 2), stone, { at: [-4.6, 0.12, 0] }),
    ]),
    camera('shot-camera', 'Shot camera', 40, { at: [2.2, 3.2, 15], turn: [-4, 6, 0] }),
  ];

  function axle(name: 'rear' | 'front', x: number): Part[] {
    const label = name === 'rear' ? 'Rear wheels' : 'Front wheels';
    return [
      group(`${name}-wheels`, label, { parent: 'skip', at: [x, WHEEL + 0.01, 0] }),
      ...[-0.45, 0.45].flatMap((z, i) => [
        solid(`${name}-wheel-${i}`, 'Wheel', rod(WHEEL, 0.09), steel, {
          parent: `${name}-wheels`,
          at: [0, 0, z],
          turn: [90, 0, 0],
        }),
        solid(`${name}-hub-${i}`, 'Hub', box(0.26, 0.06, 0.11), iron, {
          parent: `${name}-wheels`,
          at: [0, 0, z],
        }),
      ]),
      solid(`${name}-axle`, 'Axle', rod(0.04, 0.96), iron, { parent: `${name}-wheels`, turn: [90, 0, 0] }),
    ];
  }

  function headframe(z: number, i: number): Part[] {
    const [x, y] = drumPlace();
    return [
      beam(`head-front-${i}`, 'Headframe', [x - 0.75, 0], [x, y], z, 0.15, timber),
      beam(`head-back-${i}`, 'Headframe', [x + 0.75, 0], [x, y], z, 0.15, timber),
      beam(`head-tie-${i}`, 'Tie', [x - 0.45, 1.6], [x + 0.45, 1.6], z, 0.11, darkTimber),
    ];
  }
}

/** The drum stands where the rope, running along the incline from the skip's hitch, touches its top. */
function drumPlace(): Vec3 {
  const [x, y] = along(ROPE + 0.3, 0.42 - DRUM);
  return [x, y, 0];
}

/** Wheels roll, the drum winds, and the rope is as long as what is left between them. */
function drivers(): Driver[] {
  const common = { combine: 'replace', muted: false } as const;
  const inputs = { distance: RUN };
  const roll = (id: string, target: string, radius: number): Driver => ({
    ...common,
    id,
    kind: 'linkage',
    linkage: 'wheel',
    target,
    inputs,
    output: 'angle',
    params: { radius, direction: -1 },
  });
  return [
    roll('rear-roll', 'rear-wheels/rotate.z', WHEEL),
    roll('front-roll', 'front-wheels/rotate.z', WHEEL),
    roll('wind', 'drum/rotate.z', DRUM),
    {
      ...common,
      id: 'rope-length',
      kind: 'expression',
      target: 'rope/scale.y',
      inputs,
      expression: `${ROPE} - (distance + 0.75)`,
    },
    {
      ...common,
      id: 'rope-middle',
      kind: 'expression',
      target: 'rope/translate.x',
      inputs,
      expression: `(${ROPE} + distance + 0.75) / 2`,
    },
  ];
}
