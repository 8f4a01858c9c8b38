import {
  keyValues,
  newProject,
  setLeg,
  type AttachConstraint,
  type Constraint,
  type Part,
  type Project,
} from '@kaizen/core';
import { beam, box, camera, COLOURS, cone, gathered, group, rod, solid, withSides } from './build-parts';

const MARK = ['mark/translate.x', 'mark/translate.y'] as const;
const LIFTED = 44;
const SET_DOWN = 132;

/**
 * A crane with two arms that reach for a mark: its claw takes a salt block from the quay and sets it down on a barge that heaves.
 * The mark is keyed, the arms find their angles; the block rides while it is held; the lad on the quay keeps his feet where they stand.
 */
export function jibCrane(): Project {
  const project: Project = {
    ...newProject('jib-crane', 'Jib crane'),
    range: { start: 0, end: 192, loop: false },
    parts: parts(),
    constraints: constraints(),
    drivers: [
      {
        id: 'jaws',
        target: 'claw-right/rotate.z',
        combine: 'replace',
        muted: false,
        kind: 'expression',
        inputs: { left: 'claw-left/rotate.z' },
        expression: 'left',
      },
    ],
  };
  const at = (channel: string, frame: number, value: number) => ({ channel, frame, value });
  const keyed = keyValues(project, [
    ...[
      [0, 1.4, 2.3],
      [30, 2.2, 0.78],
      [48, 2.2, 0.78],
      [84, 1.5, 2.7],
      [108, 3.6, 1.9],
      [128, 3.6, 0.98],
      [140, 3.6, 0.98],
      [164, 2.6, 2.4],
      [192, 1.4, 2.3],
    ].flatMap(([frame, x, y]) => [at(MARK[0], frame!, x!), at(MARK[1], frame!, y!)]),
    at('crane/rotate.y', 0, 0),
    at('crane/rotate.y', 84, 0),
    at('crane/rotate.y', 116, -38),
    at('crane/rotate.y', 148, -38),
    at('crane/rotate.y', 184, 0),
    at('claw-left/rotate.z', 0, 32),
    at('claw-left/rotate.z', 32, 32),
    at('claw-left/rotate.z', 42, 6),
    at('claw-left/rotate.z', 132, 6),
    at('claw-left/rotate.z', 140, 32),
    at('barge/translate.y', 0, -0.3),
    at('barge/translate.y', 48, -0.22),
    at('barge/translate.y', 96, -0.32),
    at('barge/translate.y', 144, -0.2),
    at('barge/translate.y', 192, -0.3),
    at('barge/rotate.x', 0, 1.4),
    at('barge/rotate.x', 96, -1.8),
    at('barge/rotate.x', 192, 1.4),
    at('lad/rotate.z', 0, 0),
    at('lad/rotate.z', 40, -7),
    at('lad/rotate.z', 90, 4),
    at('lad/rotate.z', 150, -5),
    at('lad/rotate.z', 192, 0),
  ]);
  return setLeg(
    withSides(keyed, 'bounded'),
    [
      { channel: 'crane/rotate.y', frame: 84 },
      { channel: 'crane/rotate.y', frame: 148 },
    ],
    { kind: 'law', law: 's-curve' },
  );
}

function constraints(): Constraint[] {
  const rides = (id: string, target: string, start: number, end: number | null): AttachConstraint => ({
    id,
    kind: 'attach',
    part: 'block',
    target,
    start,
    end,
    muted: false,
  });
  return [
    {
      id: 'arms',
      kind: 'reach',
      part: 'upper-arm',
      middle: 'lower-arm',
      tip: 'claw',
      target: 'mark',
      axis: 'z',
      bend: -1,
      weight: 1,
      muted: false,
    },
    {
      id: 'claw-level',
      kind: 'aim',
      part: 'claw',
      target: 'plumb',
      axis: '-y',
      up: 'z',
      weight: 1,
      lag: null,
      muted: false,
    },
    rides('held', 'claw', LIFTED, SET_DOWN),
    rides('on-the-barge', 'barge', SET_DOWN, null),
    {
      id: 'stands',
      kind: 'plant',
      part: 'boots',
      start: 0,
      end: 168,
      fade: 12,
      turn: true,
      muted: false,
    },
    {
      id: 'watches',
      kind: 'aim',
      part: 'head',
      target: 'block',
      axis: 'x',
      up: 'y',
      weight: 0.7,
      lag: { frequency: 1.2, damping: 0.9, start: 0, loop: null },
      muted: false,
    },
  ];
}

function parts(): Part[] {
  const { timber, darkTimber, iron, steel, salt, stone, clay, brass, rope } = COLOURS;
  const outline = (length: number, deep: number): [number, number][] => [
    [-0.12, -deep / 2],
    [length + 0.12, -deep / 3],
    [length + 0.12, deep / 3],
    [-0.12, deep / 2],
  ];
  return [
    ...gathered('quay-wall', 'Quay', [
      solid('quay-top', 'Quay top', box(4.6, 0.6, 3.4), stone, { at: [0.7, -0.3, 0] }),
      ...[-0.9, 0.2, 1.3, 2.4].map((x, i) =>
        solid(`course-${i}`, 'Course', box(1.06, 0.16, 3.44), stone, { at: [x, -0.52, 0.02] }),
      ),
      ...[-1.2, 1.2].map((z, i) =>
        solid(`bollard-${i}`, 'Bollard', cone(0.16, 0.2, 0.44), iron, { at: [2.8, 0.22, z] }),
      ),
    ]),
    group('crane', 'Crane'),
    solid('foot', 'Foot', rod(0.56, 0.16), iron, { parent: 'crane', at: [0, 0.08, 0] }),
    solid('mast', 'Mast', cone(0.24, 0.16, 2.1), darkTimber, { parent: 'crane', at: [0, 1.2, 0] }),
    solid('collar', 'Collar', rod(0.22, 0.2), brass, { parent: 'crane', at: [0, 2.15, 0], turn: [90, 0, 0] }),
    solid('upper-arm', 'Upper arm', { shape: 'extrude', outline: outline(2, 0.32), depth: 0.2 }, timber, {
      parent: 'crane',
      at: [0, 2.15, 0],
      turn: [0, 0, 42],
    }),
    solid('knuckle', 'Knuckle', rod(0.17, 0.34), iron, {
      parent: 'upper-arm',
      at: [2, 0, 0],
      turn: [90, 0, 0],
    }),
    solid('lower-arm', 'Lower arm', { shape: 'extrude', outline: outline(2.1, 0.26), depth: 0.16 }, timber, {
      parent: 'upper-arm',
      at: [2, 0, 0],
      turn: [0, 0, -96],
    }),
    solid('claw', 'Claw', rod(0.13, 0.26), iron, {
      parent: 'lower-arm',
      at: [2.1, 0, 0],
      turn: [90, 0, 0],
      more: { turnOrder: 'XYZ' },
    }),
    group('claw-left', 'Claw, left', { parent: 'claw', at: [-0.06, -0.1, 0] }),
    solid('jaw-left', 'Jaw', box(0.07, 0.42, 0.24), steel, { parent: 'claw-left', at: [-0.16, -0.2, 0] }),
    group('claw-right', 'Claw, right', { parent: 'claw', at: [0.06, -0.1, 0], turn: [0, 180, 0] }),
    solid('jaw-right', 'Jaw', box(0.07, 0.42, 0.24), steel, { parent: 'claw-right', at: [-0.16, -0.2, 0] }),
    group('mark', 'Mark', { parent: 'crane' }),
    group('plumb', 'Plumb', { parent: 'mark', at: [0, -50, 0] }),
    solid('block', 'Salt block', box(0.42, 0.42, 0.42), salt, { at: [2.2, 0.21, 0] }),
    ...gathered('boots', 'Lad', [
      solid('boot-left', 'Boot', box(0.24, 0.1, 0.12), darkTimber, { at: [0, 0.05, 0.1] }),
      solid('boot-right', 'Boot', box(0.24, 0.1, 0.12), darkTimber, { at: [0, 0.05, -0.1] }),
    ]).map((part) =>
      part.id === 'boots' ? { ...part, rest: { ...part.rest, translate: [0.9, 0, 1.15] as const } } : part,
    ),
    group('lad', 'Body', { parent: 'boots', at: [0, 0.1, 0] }),
    solid('coat', 'Coat', cone(0.2, 0.14, 0.72), clay, { parent: 'lad', at: [0, 0.44, 0] }),
    solid('head', 'Head', { shape: 'sphere', radius: 0.13 }, salt, { parent: 'lad', at: [0, 0.96, 0] }),
    solid('cap', 'Cap', cone(0.17, 0.1, 0.1), darkTimber, { parent: 'head', at: [0.03, 0.1, 0] }),
    group('barge', 'Barge', { at: [4.3, -0.3, 2.2], turn: [0, 38, 0] }),
    solid(
      'hull',
      'Hull',
      {
        shape: 'extrude',
        outline: [
          [-1.5, 0],
          [1.5, 0],
          [1.2, -0.5],
          [-1.2, -0.5],
        ],
        depth: 2,
      },
      darkTimber,
      { parent: 'barge', at: [0, 0.5, 0] },
    ),
    solid('deck', 'Deck', box(2.8, 0.06, 1.8), timber, { parent: 'barge', at: [0, 0.5, 0] }),
    ...[-0.9, 0, 0.9].map((x, i) =>
      solid(`batten-${i}`, 'Batten', box(0.08, 0.05, 1.8), rope, { parent: 'barge', at: [x, 0.55, 0] }),
    ),
    beam('tie-a', 'Stay', [-0.5, 0.1], [0, 2], 0.3, 0.06, iron, 'crane'),
    beam('tie-b', 'Stay', [-0.5, 0.1], [0, 2], -0.3, 0.06, iron, 'crane'),
    camera('shot', 'Shot camera', 34, { at: [1.6, 2.6, 8.6], turn: [0, 0, -9] }),
  ].map((part) =>
    part.id === 'shot' ? { ...part, rest: { ...part.rest, rotate: [-8, 2, 0] as const } } : part,
  );
}
