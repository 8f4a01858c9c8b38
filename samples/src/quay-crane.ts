import {
  addConstraint,
  addTargetShape,
  keepFocusOn,
  keyValues,
  newProject,
  plantArm,
  setLeg,
  squashHere,
  type Part,
  type Project,
  type Result,
} from '@kaizen/core';
import { beam, box, camera, COLOURS, cone, gathered, group, rod, solid, withSides } from './build-parts';

/** Lengths of the crane's two links, and how high above the quay the upper one hangs. */
const [UPPER, LOWER, MAST] = [2.4, 2.1, 2.3];
/** The block is taken, set down, and the lamp goes out, on these frames; the float meets the step at the third. */
const [TAKEN, SET_DOWN, CONTACT, LAMP_OUT] = [44, 100, 67, 103];
/** From the frame on which it sets down, the crane's base slides under it. */
const [SLIDE_FROM, SLIDE_TO, SLIDE] = [83, 119, -0.46];

/**
 * A crane on rails sets a salt block on a bench and is planted there while its base slides away under it; a boom camera looks on and
 * stays sharp on the block; a net float comes down on a step; a tarpaulin billows by two shapes made here; the lamp goes out.
 */
export function quayCrane(): Project {
  const project: Project = {
    ...newProject('quay-crane', 'Quay crane'),
    range: { start: 0, end: 168, loop: false },
    parts: parts(),
  };
  const posed = keyValues(project, [...armKeys(), ...otherKeys()]);
  const smooth = withSides(posed, 'bounded');
  const falls = setLeg(
    smooth,
    [
      { channel: 'float/translate.y', frame: 46 },
      { channel: 'float/translate.y', frame: CONTACT },
    ],
    { kind: 'ballistic' },
  );
  const squashed = squashHere(falls, 'float', CONTACT, { before: 0.12, contact: -0.3, after: 0.1 }, true);
  const level = got(addConstraint(squashed, 'aim', 'hook', { target: 'plumb', axis: '-y', up: 'z' })).project;
  const held = got(
    addConstraint(level, 'attach', 'block', { target: 'hook', start: TAKEN, end: SET_DOWN }),
  ).project;
  const planted = got(plantArm(held, 'hook', SLIDE_FROM, SLIDE_TO, 14)).project;
  const aimed = got(
    addConstraint(planted, 'aim', 'eye', {
      target: 'block',
      weight: 0.7,
      lag: { frequency: 1.2, damping: 0.9, start: 0, loop: null },
    }),
  ).project;
  const sharp = got(keepFocusOn(aimed, 'eye', 'block'));
  return keyedShapes(lampOut(sharp));
}

function got<T>(made: Result<T>): T {
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return made.value;
}

const key = (channel: string, frame: number, value: number) => ({ channel, frame, value });

/** Angles of the two links that bring the hook to a place beside the top of the mast, elbow up. */
function armKeys() {
  const places: readonly (readonly [number, number, number])[] = [
    [0, 3.1, -0.2],
    [36, 2.6, -1.85],
    [TAKEN, 2.6, -1.85],
    [70, 2.9, -0.1],
    [SLIDE_FROM, 3.3, -1.3],
    [SLIDE_TO, 3.3, -1.3],
    [146, 3.0, -0.1],
    [168, 3.1, -0.2],
  ];
  return places.flatMap(([frame, x, y]) => {
    const reach = Math.hypot(x, y);
    const shoulder = Math.acos((UPPER ** 2 + reach ** 2 - LOWER ** 2) / (2 * UPPER * reach));
    const elbow = Math.acos((UPPER ** 2 + LOWER ** 2 - reach ** 2) / (2 * UPPER * LOWER));
    const degrees = (radians: number) => Math.round(((radians * 180) / Math.PI) * 100) / 100;
    return [
      key('boom/rotate.z', frame, degrees(Math.atan2(y, x) + shoulder)),
      key('jib/rotate.z', frame, degrees(elbow - Math.PI)),
    ];
  });
}

function otherKeys() {
  return [
    key('base/translate.x', SLIDE_FROM, 0),
    key('base/translate.x', SLIDE_TO, SLIDE),
    key('base/translate.x', 168, SLIDE),
    key('float/translate.x', 46, -3.4),
    key('float/translate.x', CONTACT, -2.9),
    key('float/translate.x', 90, -2.5),
    key('float/translate.y', 46, 2.2),
    key('float/translate.y', CONTACT, 0.87),
    key('float/translate.y', 90, 0.87),
    key('eye/camera.focalLength', 0, 41),
    key('eye/camera.focalLength', 168, 63),
    key('pole/rotate.y', 0, 8),
    key('pole/rotate.y', 168, -14),
  ];
}

/** The lamp is there up to one frame, and from it on it is not. */
function lampOut(project: Project): Project {
  const keyed = keyValues(project, [
    key('lamp-light/visible', 0, 1),
    key('lamp-light/visible', LAMP_OUT, 0),
    key('glass/material.emissive.r', 0, 0.9),
    key('glass/material.emissive.r', LAMP_OUT, 0),
    key('glass/material.emissive.g', 0, 0.6),
    key('glass/material.emissive.g', LAMP_OUT, 0),
  ]);
  return setLeg(
    keyed,
    ['lamp-light/visible', 'glass/material.emissive.r', 'glass/material.emissive.g'].map((channel) => ({
      channel,
      frame: 0,
    })),
    { kind: 'hold' },
  );
}

/** Two shapes of the tarpaulin, each from its base: a gust that lifts it, and salt that weighs it down. */
function keyedShapes(project: Project): Project {
  const gust = addTargetShape(project, 'tarpaulin', 'Gust', {
    at: [0.4, 0, 0.3],
    radius: 0.9,
    by: [0, 0.34, 0],
    scale: 1.1,
  });
  const sag = addTargetShape(gust.project, 'tarpaulin', 'Sag', {
    at: [-0.3, 0, -0.1],
    radius: 1,
    by: [0, -0.22, 0],
    scale: 1,
  });
  return withBounded(
    keyValues(sag.project, [
      ...[0, 30, 58, 90, 126, 168].map((frame, i) =>
        key('tarpaulin/morph.Gust', frame, i % 2 === 0 ? 0.1 : 0.9),
      ),
      key('tarpaulin/morph.Sag', 0, 0.2),
      key('tarpaulin/morph.Sag', 120, 1),
      key('tarpaulin/morph.Sag', 168, 0.2),
    ]),
  );
}

function withBounded(project: Project): Project {
  const shapes = withSides(project, 'bounded');
  const clips = project.clips.map((clip, i) => ({
    ...clip,
    curves: clip.curves.map((curve, k) =>
      curve.channel.startsWith('tarpaulin/') ? shapes.clips[i]!.curves[k]! : curve,
    ),
  }));
  return { ...project, clips };
}

function parts(): Part[] {
  const { timber, darkTimber, iron, steel, salt, stone, clay, brass, rope, tin } = COLOURS;
  const taper = (length: number, deep: number): [number, number][] => [
    [-0.14, -deep / 2],
    [length + 0.1, -deep / 3],
    [length + 0.1, deep / 3],
    [-0.14, deep / 2],
  ];
  return [
    ...gathered('quay', 'Quay', [
      solid('deck', 'Deck', box(9.6, 0.5, 5.2), stone, { at: [0.2, -0.25, 0] }),
      ...[-0.55, 0.55].map((z, i) =>
        solid(`rail-${i}`, 'Rail', box(4.4, 0.05, 0.08), iron, { at: [-0.4, 0.025, z - 1] }),
      ),
      ...[-3.9, 4.3].map((x, i) =>
        solid(`bollard-${i}`, 'Bollard', cone(0.16, 0.21, 0.46), iron, { at: [x, 0.23, 2.1] }),
      ),
      solid('step', 'Step', box(1.5, 0.63, 1.3), stone, { at: [-2.9, 0.315, 1.1] }),
      solid('bench', 'Bench', box(1, 0.55, 0.9), darkTimber, { at: [3.3, 0.275, -1] }),
    ]),
    group('base', 'Crane', { at: [0, 0, -1] }),
    group('plumb', 'Plumb', { parent: 'base', at: [0, -5000, 0] }),
    solid('trolley', 'Trolley', box(1.3, 0.34, 1.5), darkTimber, { parent: 'base', at: [0, 0.29, 0] }),
    ...[
      [-0.45, -0.55],
      [0.45, -0.55],
      [-0.45, 0.55],
      [0.45, 0.55],
    ].map(([x, z], i) =>
      solid(`roller-${i}`, 'Roller', rod(0.14, 0.1), iron, {
        parent: 'base',
        at: [x!, 0.19, z!],
        turn: [90, 0, 0],
      }),
    ),
    solid('mast', 'Mast', cone(0.26, 0.16, 1.95), timber, { parent: 'base', at: [0, 1.42, 0] }),
    solid('ballast', 'Ballast', box(0.5, 0.5, 0.8), iron, { parent: 'base', at: [-0.42, 0.7, 0] }),
    solid('boom', 'Boom', { shape: 'extrude', outline: taper(UPPER, 0.34), depth: 0.22 }, timber, {
      parent: 'base',
      at: [0, MAST, 0],
      turn: [0, 0, 40],
    }),
    solid('knuckle', 'Knuckle', rod(0.17, 0.34), brass, {
      parent: 'boom',
      at: [UPPER, 0, 0],
      turn: [90, 0, 0],
    }),
    solid('jib', 'Jib', { shape: 'extrude', outline: taper(LOWER, 0.26), depth: 0.16 }, tin, {
      parent: 'boom',
      at: [UPPER, 0, 0],
      turn: [0, 0, -80],
    }),
    solid('hook', 'Hook', { shape: 'sphere', radius: 0.13 }, iron, { parent: 'jib', at: [LOWER, 0, 0] }),
    solid('block', 'Salt block', box(0.46, 0.42, 0.46), salt, { at: [2.6, 0.21, -1] }),
    group('float', 'Net float', { at: [-3.4, 2.2, 1.1] }),
    solid('ball', 'Ball', { shape: 'sphere', radius: 0.24 }, clay, { parent: 'float' }),
    solid('band', 'Band', { shape: 'torus', radius: 0.22, tube: 0.03 }, rope, { parent: 'float' }),
    solid('tarpaulin', 'Tarpaulin', { shape: 'plane', size: [2, 1.5] }, clay, { at: [1.2, 0.52, 1.6] }),
    ...[
      [0.4, 1.05],
      [2, 1.05],
      [0.4, 2.15],
      [2, 2.15],
    ].map(([x, z], i) => solid(`heap-${i}`, 'Sack', box(0.6, 0.34, 0.5), rope, { at: [x!, 0.17, z!] })),
    group('lamp', 'Lamp', { at: [-1.6, 0, -2] }),
    solid('post', 'Post', cone(0.07, 0.05, 2.6), iron, { parent: 'lamp', at: [0, 1.3, 0] }),
    solid('glass', 'Glass', cone(0.12, 0.16, 0.26), salt, { parent: 'lamp', at: [0, 2.72, 0] }),
    solid('hat', 'Hat', cone(0.2, 0.04, 0.14), iron, { parent: 'lamp', at: [0, 2.92, 0] }),
    {
      ...group('lamp-light', 'Lamp light', { parent: 'lamp', at: [0, 2.72, 0] }),
      kind: 'light',
      light: { type: 'point', color: [1, 0.82, 0.5], intensity: 60 },
    },
    camera('shot', 'Shot camera', 32, { at: [0.5, 3.4, 12.2], turn: [-10, 0, 0] }),
    group('pole', 'Boom camera', { at: [-1.2, 0, 7] }),
    solid('pedestal', 'Pedestal', cone(0.4, 0.16, 1.1), iron, { parent: 'pole', at: [0, 0.55, 0] }),
    beam('swing', 'Swing arm', [0, 1.1], [1.6, 2.4], 0, 0.12, steel, 'pole'),
    camera('eye', 'Eye', 41, { parent: 'pole', at: [1.7, 2.5, 0], turn: [-9, -4, 0] }),
  ];
}
