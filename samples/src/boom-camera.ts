import {
  defaultBlock,
  DEFAULT_PART,
  keyValues,
  newProject,
  setLeg,
  type Constraint,
  type Driver,
  type Part,
  type Project,
} from '@kaizen/core';
import { box, camera, COLOURS, cone, gathered, group, rod, solid, withSides } from './build-parts';

const WAY = 'wagon/custom.way';

/**
 * A salt wagon on a curved track, and a camera on a boom that goes with it: it chases the wagon a little late, looks at its load
 * a little late too, and its focus is the distance to it.
 */
export function boomCamera(): Project {
  const project: Project = {
    ...newProject('boom-camera', 'Boom camera'),
    range: { start: 0, end: 240, loop: false },
    parts: parts(),
    constraints: constraints(),
    drivers: drivers(),
  };
  const at = (channel: string, frame: number, value: number) => ({ channel, frame, value });
  const keyed = keyValues(project, [
    at(WAY, 0, 0.8),
    at(WAY, 30, 0.8),
    at(WAY, 200, 17.4),
    at(WAY, 240, 17.4),
    at('boom/custom.height', 0, 1.6),
    at('boom/custom.height', 120, 3.1),
    at('boom/custom.height', 216, 1.9),
    at('gull-place/custom.way', 0, 0),
    at('gull-place/custom.way', 240, 24),
    at('load/morph.slump', 0, 0),
    at('load/morph.slump', 200, 0),
    at('load/morph.slump', 206, 1),
    at('load/morph.slump', 214, 0.7),
    at('eye/camera.focalLength', 0, 32),
    at('eye/camera.focalLength', 130, 32),
    at('eye/camera.focalLength', 214, 58),
  ]);
  return setLeg(withSides(keyed, 'bounded'), [{ channel: WAY, frame: 30 }], {
    kind: 'law',
    law: 'trapezoid',
    accelerate: 0.25,
    decelerate: 0.2,
  });
}

function drivers(): Driver[] {
  const base = { combine: 'replace', muted: false } as const;
  return [
    {
      ...base,
      id: 'focus',
      target: 'eye/camera.focusDistance',
      kind: 'distance',
      of: 'eye',
      to: 'load',
      axis: '-z',
    },
    {
      ...base,
      id: 'lifts',
      target: 'boom/translate.y',
      kind: 'follow',
      input: 'boom/custom.height',
      frequency: 0.9,
      damping: 1,
      start: 0,
      loop: null,
    },
    ...(['front', 'rear'] as const).map((axle): Driver => ({
      ...base,
      id: `${axle}-rolls`,
      target: `${axle}-axle/rotate.x`,
      kind: 'linkage',
      linkage: 'wheel',
      inputs: { distance: WAY },
      output: 'angle',
      params: { radius: 0.22 },
    })),
    {
      ...base,
      id: 'load-lags',
      target: 'load/rotate.x',
      kind: 'expression',
      inputs: { way: WAY },
      expression: '1.2 * sin(way * 140)',
    },
  ];
}

function constraints(): Constraint[] {
  return [
    { id: 'rails', kind: 'along', part: 'wagon', path: 'track', distance: WAY, orient: true, muted: false },
    {
      id: 'goes-with',
      kind: 'chase',
      part: 'boom',
      target: 'wagon',
      offset: [0, 0, 4.6],
      axes: 'xz',
      weight: 1,
      lag: { frequency: 0.7, damping: 0.9, start: 0, loop: null },
      muted: false,
    },
    {
      id: 'looks-at',
      kind: 'aim',
      part: 'eye',
      target: 'load',
      axis: '-z',
      up: 'y',
      weight: 1,
      lag: { frequency: 1.6, damping: 0.8, start: 0, loop: null },
      muted: false,
    },
    { id: 'gull-heads', kind: 'heading', part: 'gull', axis: 'z', up: 'y', weight: 1, span: 4, muted: false },
    {
      id: 'gull-circles',
      kind: 'along',
      part: 'gull-place',
      path: 'round',
      distance: 'gull-place/custom.way',
      orient: false,
      muted: false,
    },
  ];
}

function path(
  id: string,
  name: string,
  points: readonly (readonly [number, number, number])[],
  closed: boolean,
): Part {
  return { ...DEFAULT_PART, id, name, kind: 'path', path: { points, closed } } as unknown as Part;
}

function parts(): Part[] {
  const { timber, darkTimber, iron, steel, salt, stone, clay, rope } = COLOURS;
  const track: [number, number, number][] = [
    [-7, 0.32, -1],
    [-3.4, 0.32, -2.2],
    [0, 0.32, -1.2],
    [2.6, 0.32, 0.8],
    [6, 0.32, 0.6],
    [9.4, 0.32, -1.4],
  ];
  return [
    path('track', 'Track', track, false),
    path(
      'round',
      'Gulls’ round',
      [
        [-3, 4.2, -4],
        [3, 4.8, -6],
        [7, 4.4, -3],
        [2, 5, 0],
      ],
      true,
    ),
    ...gathered('bed', 'Bed', [
      ...Array.from({ length: 11 }, (_, k) =>
        solid(`stone-${k}`, 'Stone', box(0.5 + (k % 3) * 0.2, 0.16, 0.4 + (k % 2) * 0.2), stone, {
          at: [-7 + k * 1.6, 0.06, -3.6 - ((k * 7) % 5) * 0.3],
          turn: [0, (k * 53) % 90, 0],
        }),
      ),
      ...[-6, -2, 2, 6].map((x, i) =>
        solid(`pile-${i}`, 'Salt pile', cone(0.9, 0.1, 0.8), salt, { at: [x, 0.4, -5.4 - (i % 2)] }),
      ),
    ]),
    group('wagon', 'Wagon', { more: { custom: [{ name: 'way', value: 0, unit: 'm' }] } }),
    solid('chassis', 'Chassis', box(0.8, 0.12, 1.7), iron, { parent: 'wagon', at: [0, 0.12, 0] }),
    solid(
      'tub',
      'Tub',
      {
        shape: 'extrude',
        outline: [
          [-0.42, 0],
          [0.42, 0],
          [0.56, 0.6],
          [-0.56, 0.6],
        ],
        depth: 1.5,
      },
      timber,
      { parent: 'wagon', at: [0, 0.2, 0] },
    ),
    solid(
      'load',
      'Load',
      {
        shape: 'lathe',
        profile: [
          [0.66, 0],
          [0.5, 0.16],
          [0.24, 0.34],
          [0, 0.4],
        ],
      },
      salt,
      {
        parent: 'wagon',
        at: [0, 0.76, 0],
        size: [0.8, 1, 1.1],
        more: {},
      },
    ),
    ...(['front', 'rear'] as const).flatMap((name, i) => [
      group(`${name}-axle`, `${name === 'front' ? 'Front' : 'Rear'} axle`, {
        parent: 'wagon',
        at: [0, -0.08, i === 0 ? 0.55 : -0.55],
      }),
      ...[-0.46, 0.46].map((x, k) =>
        solid(`${name}-wheel-${k}`, 'Wheel', rod(0.22, 0.07), steel, {
          parent: `${name}-axle`,
          at: [x, 0, 0],
          turn: [0, 0, 90],
        }),
      ),
      ...[-0.46, 0.46].map((x, k) =>
        solid(`${name}-spoke-${k}`, 'Spoke', box(0.09, 0.4, 0.05), darkTimber, {
          parent: `${name}-axle`,
          at: [x, 0, 0],
        }),
      ),
    ]),
    group('boom', 'Boom', { more: { custom: [{ name: 'height', value: 2, unit: 'm' }] } }),
    solid('boom-head', 'Boom head', box(0.3, 0.18, 0.3), iron, { parent: 'boom', at: [0, -0.16, 0.2] }),
    solid('boom-arm', 'Boom arm', box(0.12, 0.12, 2.4), darkTimber, { parent: 'boom', at: [0, -0.2, 1.4] }),
    camera('eye', 'Eye', 32, { parent: 'boom' }),
    group('gull-place', 'Gull’s place', { more: { custom: [{ name: 'way', value: 0, unit: 'm' }] } }),
    group('gull', 'Gull', { parent: 'gull-place' }),
    solid('gull-body', 'Gull body', cone(0.07, 0.02, 0.5), salt, { parent: 'gull', turn: [90, 0, 0] }),
    solid('gull-wings', 'Wings', box(0.9, 0.02, 0.16), clay, { parent: 'gull', at: [0, 0.04, 0] }),
    solid('gate', 'Gate', box(0.12, 1.5, 0.12), rope, { at: [8.4, 0.75, 0.4] }),
    camera('shot', 'Shot camera', 30, { at: [1, 4.4, 13], turn: [-14, 0, 0] }),
  ].map((part) =>
    part.id === 'load' && part.kind === 'mesh'
      ? {
          ...part,
          material: { ...defaultBlock('material'), ...part.material },
          morphs: [
            {
              name: 'slump',
              value: 0,
              moves: [
                { at: [0, 0.36, 0.1], radius: 0.55, by: [0, -0.16, 0.12], scale: 1.2 },
                { at: [0, 0.1, 0.6], radius: 0.4, by: [0, 0.06, 0.1], scale: 1 },
              ],
            },
          ],
        }
      : part,
  );
}
