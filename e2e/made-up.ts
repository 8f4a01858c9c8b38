/** Projects of the saltworks that tests drop on the page, each no more than a test needs. */

const PROJECT = {
  format: 'kaizen',
  version: 1,
  rate: { frames: 24, per: 1 },
  range: { start: 0, end: 120 },
  activeClip: 'main',
};

/** A row of net floats, each bobbing by keys on one channel; the first `locked` of them are locked. */
export function floats(count: number, locked: number): object {
  const ids = Array.from({ length: count }, (_, i) => `float-${i + 1}`);
  return {
    ...PROJECT,
    id: 'floats',
    name: 'Net floats',
    parts: ids.map((id, i) => ({
      id,
      name: `Float ${i + 1}`,
      kind: 'mesh',
      rest: { translate: [(i % 8) * 0.5, 0.2, Math.floor(i / 8) * 0.5] },
      geometry: { shape: 'sphere', radius: 0.2 },
    })),
    clips: [
      {
        id: 'main',
        name: 'Main',
        curves: ids.map((id, i) => ({
          channel: `${id}/translate.y`,
          locked: i < locked,
          keys: [
            { frame: i % 5, value: 0.2 },
            { frame: 20.25 + i / 4, value: 0.5 + i / 100, out: { mode: 'set', slope: 0.01 } },
            { frame: 60 + i, value: 0.2, leg: { kind: 'ease', family: 'sine', slow: 'both' } },
            { frame: 110, value: 0.3 },
          ],
        })),
      },
    ],
  };
}

/** A bar that swings on every kind of leg, then loops. */
export function mixedLegs(): object {
  return {
    ...PROJECT,
    id: 'mixed',
    name: 'Mixed legs',
    parts: [{ id: 'bar', name: 'Bar', kind: 'mesh', geometry: { shape: 'box', size: [1, 0.2, 0.2] } }],
    clips: [
      {
        id: 'main',
        name: 'Main',
        curves: [
          {
            channel: 'bar/translate.y',
            keys: [
              { frame: 0, value: 0, out: { mode: 'set', slope: 0.2, reach: 0.6 }, joined: false },
              { frame: 12, value: 1, in: { mode: 'flat' }, leg: { kind: 'hold' } },
              { frame: 20, value: 0.4, leg: { kind: 'ease', family: 'elastic', slow: 'end' } },
              {
                frame: 40,
                value: 1.5,
                leg: { kind: 'law', law: 'trapezoid', accelerate: 0.2, decelerate: 0.5 },
              },
              { frame: 56, value: 0.2, leg: { kind: 'ballistic' } },
              { frame: 70, value: 0.2, in: { mode: 'bounded' }, out: { mode: 'bounded' } },
              { frame: 80, value: 0.6 },
              { frame: 90, value: 0 },
            ],
            after: { mode: 'loop', count: 2.5, pin: 12 },
          },
        ],
      },
    ],
  };
}

/** A jib with a turned and shifted arm, and keys between frames. */
export function jib(): object {
  return {
    ...PROJECT,
    id: 'jib',
    name: 'Jib crane',
    parts: [
      { id: 'jib', name: 'Jib', kind: 'mesh', geometry: { shape: 'box', size: [2, 0.2, 0.2] } },
      {
        id: 'hook',
        name: 'Hook',
        kind: 'mesh',
        parent: 'jib',
        geometry: { shape: 'box', size: [0.2, 0.4, 0.2] },
      },
    ],
    clips: [
      {
        id: 'main',
        name: 'Main',
        curves: [
          {
            channel: 'jib/rotate.y',
            keys: [
              { frame: 0, value: 0 },
              { frame: 10, value: 35 },
              { frame: 50.4, value: 0 },
            ],
          },
          {
            channel: 'jib/translate.x',
            keys: [
              { frame: 0, value: 0 },
              { frame: 10, value: 0.8 },
              { frame: 80.7, value: 0.2 },
              { frame: 81.2, value: 0.1 },
            ],
          },
          { channel: 'hook/translate.y', keys: [{ frame: 10, value: -1.2 }] },
        ],
      },
    ],
  };
}

/** A hoist recorded frame by frame: keys of a swing that dies, with unrest of a third of a millimetre. */
export function recordedHoist(frames = 400): object {
  const keys = Array.from({ length: frames }, (_, frame) => {
    const unrest = ((frame * 7919) % 101) / 101 - 0.5;
    return {
      frame,
      value: 1.2 * Math.sin(frame / 45) * Math.exp(-frame / 400) + 0.0006 * unrest,
      in: { mode: 'linear' },
      out: { mode: 'linear' },
      joined: false,
    };
  });
  return {
    ...PROJECT,
    id: 'hoist',
    name: 'Hoist',
    range: { start: 0, end: frames - 1 },
    parts: [{ id: 'hook', name: 'Hook', kind: 'mesh', geometry: { shape: 'box', size: [0.2, 0.4, 0.2] } }],
    clips: [{ id: 'main', name: 'Main', curves: [{ channel: 'hook/translate.y', keys }] }],
  };
}

/** A quay: a rake carriage that runs 7.3 m, a tine rack that rocks, a salt block, and a crane of two links on a base that slides. */
export function quay(): object {
  const group = (id: string, name: string, translate: readonly number[], more: object = {}) => ({
    id,
    name,
    kind: 'mesh',
    geometry: { shape: 'box', size: [0.4, 0.3, 0.4] },
    rest: { translate },
    ...more,
  });
  const line = (channel: string, ...points: readonly (readonly [number, number])[]) => ({
    channel,
    keys: points.map(([frame, value]) => ({ frame, value })),
  });
  return {
    ...PROJECT,
    id: 'quay',
    name: 'Quay',
    parts: [
      group('carriage', 'Rake carriage', [0, 0.5, 0]),
      group('rack', 'Tine rack', [3.55, 0.64, 0.2], {
        rest: { translate: [3.55, 0.64, 0.2], rotate: [0, 20, 0] },
      }),
      group('block', 'Salt block', [1, 0.15, 2]),
      group('base', 'Base', [0, 0.2, -3]),
      group('boom', 'Boom', [0, 2, 0], {
        parent: 'base',
        rest: { translate: [0, 2, 0], rotate: [0, 0, 40] },
      }),
      group('jib', 'Jib', [3, 0, 0], { parent: 'boom', rest: { translate: [3, 0, 0], rotate: [0, 0, -80] } }),
      group('hook', 'Hook', [2.5, 0, 0], { parent: 'jib' }),
    ],
    clips: [
      {
        id: 'main',
        name: 'Main',
        curves: [
          line('carriage/translate.x', [0, 0], [60, 7.3]),
          line('rack/rotate.z', [0, -11], [30, 11], [60, -11]),
          line('base/translate.x', [10, 0], [60, 0.3], [119, 0.46]),
        ],
      },
    ],
  };
}

const box = (id: string, name: string, translate: readonly number[], more: object = {}): object => ({
  id,
  name,
  kind: 'mesh',
  rest: { translate },
  geometry: { shape: 'box', size: [0.4, 0.4, 0.4] },
  ...more,
});

/** Blocks on a crane, a pump with its crank and rod, two gears: what drives and is driven, nothing of it driven yet. */
export function yard(): object {
  return {
    ...PROJECT,
    id: 'yard',
    name: 'Yard',
    parts: [
      box('hook', 'Block on the hook', [0, 3, 0]),
      box('second', 'Second block', [1, 2, 0]),
      box('third', 'Third block', [2, 2, 0]),
      box('crank', 'Crank', [4, 1, 0]),
      box('rod', 'Rod', [4.35, 1, 0]),
      box('pump', 'Pump', [5.5, 1, 0]),
      {
        ...box('small', 'Small gear', [0, 0.5, 3]),
        geometry: { shape: 'gear', teeth: 17, module: 0.04, width: 0.1 },
      },
      {
        ...box('large', 'Large gear', [1.4, 0.5, 3]),
        geometry: { shape: 'gear', teeth: 53, module: 0.04, width: 0.1 },
      },
    ],
    clips: [
      {
        id: 'main',
        name: 'Main',
        curves: [
          {
            channel: 'hook/translate.y',
            keys: [
              { frame: 20, value: 3 },
              { frame: 94, value: 1, out: { mode: 'flat' } },
              { frame: 100, value: 1.2 },
              { frame: 108, value: 1 },
            ],
          },
          {
            channel: 'crank/rotate.z',
            keys: [
              { frame: 0, value: 0, out: { mode: 'linear' } },
              { frame: 120, value: 1980, in: { mode: 'linear' } },
            ],
          },
          {
            channel: 'small/rotate.y',
            keys: [
              { frame: 0, value: 0, out: { mode: 'linear' } },
              { frame: 120, value: 720, in: { mode: 'linear' } },
            ],
          },
        ],
      },
    ],
  };
}

/** A skip that comes by 60 to 132 and leaves from 180 to 230, past a sluice board that opens at 156 and shuts at 240. */
export function sluiceWorks(): object {
  return {
    ...PROJECT,
    range: { start: 0, end: 360 },
    id: 'sluice-works',
    name: 'Sluice works',
    parts: [box('skip', 'Skip', [0, 0.5, 0]), box('board', 'Sluice board', [6.393, 0.5, 1.6])],
    clips: [
      {
        id: 'main',
        name: 'Main',
        curves: [
          {
            channel: 'skip/translate.x',
            keys: [
              { frame: 60, value: 0, leg: { kind: 'law', law: 's-curve' } },
              { frame: 132, value: 6.393, leg: { kind: 'hold' } },
              { frame: 180, value: 6.393, leg: { kind: 'law', law: 's-curve' } },
              { frame: 230, value: 0 },
            ],
          },
          {
            channel: 'board/translate.y',
            keys: [
              { frame: 156, value: 0.5, leg: { kind: 'law', law: 'trapezoid' } },
              { frame: 176, value: 1.3, leg: { kind: 'hold' } },
              { frame: 240, value: 1.3, leg: { kind: 'law', law: 'trapezoid' } },
              { frame: 260, value: 0.5 },
            ],
          },
        ],
      },
    ],
  };
}

/** A boom and its pennant; a carriage with a wheel and four bars; a shaft, a valve and a rotor: keyed where they begin, nothing driven yet. */
export function machineYard(): object {
  const swing = (channel: string, keys: readonly (readonly [number, number])[]) => ({
    channel,
    keys: keys.map(([frame, value]) => ({ frame, value })),
    after: { mode: 'loop' },
  });
  return {
    ...PROJECT,
    id: 'machine-yard',
    name: 'Machine yard',
    range: { start: 0, end: 120, loop: true },
    parts: [
      box('boom', 'Boom', [0, 2, -3]),
      box('pennant', 'Pennant', [1, 2, -3]),
      box('carriage', 'Carriage', [0, 0, 0]),
      {
        ...box('wheel', 'Wheel', [-0.6, 0.25, 0.4]),
        parent: 'carriage',
        rest: { translate: [-0.6, 0.25, 0.4], rotate: [90, 0, 0] },
        geometry: { shape: 'cylinder', radius: 0.25, height: 0.08 },
      },
      box('crank', 'Crank', [-0.35, 0.95, 0.5], { parent: 'carriage' }),
      box('coupler', 'Coupler', [-0.19, 0.95, 0.56], { parent: 'carriage' }),
      box('rocker', 'Rocker', [-0.95, 1.15, 0.5], { parent: 'carriage' }),
      box('pin', 'Pin', [0, -0.45, 0], { parent: 'rocker' }),
      {
        ...box('shaft', 'Shaft', [3, 1, 0]),
        geometry: { shape: 'cylinder', radius: 0.04, height: 0.5 },
      },
      box('valve', 'Valve', [3, 1.4, 0]),
      box('rotor', 'Rotor', [4, 1, 0]),
    ],
    clips: [
      {
        id: 'main',
        name: 'Main',
        curves: [
          swing('boom/rotate.y', [
            [0, 0],
            [40, 50],
            [60, 50],
            [120, 0],
          ]),
          swing('carriage/translate.x', [
            [0, 0],
            [60, 2.4],
            [120, 0],
          ]),
          {
            channel: 'shaft/rotate.z',
            keys: [
              { frame: 0, value: 0, out: { mode: 'linear' } },
              { frame: 120, value: 360, in: { mode: 'linear' } },
            ],
          },
        ],
      },
    ],
  };
}
