import {
  always,
  assetId,
  channel,
  clipId,
  defined,
  flag,
  frames,
  id,
  keyedFields,
  kinds,
  list,
  MARKER_KINDS,
  maybe,
  number,
  numbers,
  object,
  oneOf,
  orNull,
  otherwise,
  OVER_FRAMES,
  partId,
  positive,
  record,
  text,
  TURN_ORDERS,
  WAYS,
  whole,
  namingsIn,
  type Field,
  type Fields,
  type Interlock,
  type Naming,
} from '../project';
import { LEG, PLACEMENT, TREATMENT } from '../curve';
import { DRIVER } from '../drive';
import { CONSTRAINT } from '../rig';
import { GEOMETRY } from '../shape';

/** A whole project's file, described once (contract §2). What belongs to a kind stands with the kind. */
const ZERO = [0, 0, 0];
const ONE = [1, 1, 1];
const REST = { translate: ZERO, rotate: ZERO, scale: ONE };

const rest = defined(
  'rest',
  object({
    translate: otherwise(numbers(3), ZERO),
    rotate: otherwise(numbers(3), ZERO),
    scale: otherwise(numbers(3), ONE),
  }),
);
const squash = defined(
  'squash',
  object({
    axis: otherwise(oneOf('x', 'y', 'z'), 'y'),
    anchor: otherwise(numbers(3), ZERO),
    frame: otherwise(oneOf('part', 'parent'), 'part'),
    round: maybe(object({ from: number({ unit: 'm' }), to: number({ unit: 'm' }) })),
  }),
);
const limit = (): Field => maybe(orNull(number()));
const custom = defined(
  'custom',
  object({
    name: text({ minLength: 1 }),
    value: number(),
    min: limit(),
    max: limit(),
    unit: maybe(text()),
  }),
);
const limits = record(
  defined(
    'limit',
    object({ min: limit(), max: limit(), speed: limit(), acceleration: limit(), jerk: limit() }),
  ),
);
const morph = defined(
  'morph',
  object({
    name: text({ minLength: 1 }),
    value: otherwise(number(), 0),
    moves: maybe(
      list(
        object({
          at: numbers(3),
          radius: positive('m'),
          by: otherwise(numbers(3), ZERO),
          scale: otherwise(number(), 1),
        }),
      ),
    ),
  }),
);

/** The blocks a camera, light or mesh part has when its file says nothing. */
const BLOCKS = {
  camera: { focalLength: 35, sensorHeight: 24, focusDistance: 5, fStop: 5.6, near: 0.05, far: 1000 },
  light: { type: 'directional', color: ONE, intensity: 1 },
  material: { baseColor: [0.8, 0.8, 0.8, 1], roughness: 0.8, metallic: 0, emissive: ZERO },
} as const;

/** A block whose fields are left out singly or all together. */
function block(name: keyof typeof BLOCKS, fields: Fields, more: Fields = {}): Field {
  const filled = Object.fromEntries(
    Object.entries(fields).map(([field, described]) => [
      field,
      otherwise(described, (BLOCKS[name] as Readonly<Record<string, unknown>>)[field]),
    ]),
  );
  return otherwise(defined(name, object({ ...filled, ...more })), BLOCKS[name]);
}
const share = (): Field => number({ minimum: 0, maximum: 1 });
const material = block('material', {
  baseColor: numbers(4, { minimum: 0, maximum: 1 }),
  roughness: share(),
  metallic: share(),
  emissive: numbers(3, { minimum: 0 }),
});
const camera = block('camera', {
  focalLength: positive('mm'),
  sensorHeight: positive('mm'),
  focusDistance: positive('m'),
  fStop: positive(),
  near: positive('m'),
  far: positive('m'),
});
const light = block(
  'light',
  {
    type: oneOf('directional', 'point', 'spot'),
    color: numbers(3, { minimum: 0 }),
    intensity: number({ minimum: 0 }),
  },
  {
    sky: maybe(number({ minimum: 0 })),
    range: maybe(orNull(positive('m'))),
    cone: maybe(orNull(number({ exclusiveMinimum: 0, maximum: 180, unit: '°' }))),
  },
);
const path = defined(
  'path',
  object({ points: list(numbers(3), { minItems: 2 }), closed: otherwise(flag(), false) }),
);

const PART: Fields = {
  id: id(),
  name: maybe(text()),
  parent: otherwise(orNull(partId()), null),
  rest: otherwise(rest, REST),
  pivot: otherwise(numbers(3), ZERO),
  turnOrder: otherwise(oneOf(...TURN_ORDERS), 'XYZ'),
  squash: maybe(squash),
  custom: otherwise(list(custom), []),
  limits: otherwise(limits, {}),
  visible: otherwise(number(), 1),
};

const part = defined(
  'part',
  kinds('kind', {
    group: PART,
    mesh: { geometry: GEOMETRY, material, morphs: otherwise(list(morph), []), ...PART },
    camera: { camera, ...PART },
    light: { light, ...PART },
    path: { path, ...PART },
  }),
);

const take: Fields = {
  ...keyedFields(OVER_FRAMES, LEG),
  treatments: otherwise(list(TREATMENT), []),
};
const curve = defined(
  'curve',
  object({
    channel: channel(),
    ...take,
    muted: otherwise(flag(), false),
    locked: otherwise(flag(), false),
    otherTake: maybe(defined('take', object(take))),
  }),
);
const clip = defined('clip', object({ id: id(), name: maybe(text()), curves: otherwise(list(curve), []) }));

const asset = defined(
  'asset',
  object({
    id: id(),
    name: text(),
    type: text(),
    sha256: text({ pattern: '^[0-9a-f]{64}$' }),
    uri: text(),
    report: maybe(list(text())),
  }),
);
const marker = defined(
  'marker',
  object({
    id: id(),
    name: text(),
    kind: otherwise(oneOf(...MARKER_KINDS), 'note'),
    frame: frames(),
    end: otherwise(orNull(frames()), null),
  }),
);
const interlock = defined(
  'interlock',
  object({
    id: id(),
    clip: clipId(),
    channel: channel(),
    frame: frames(),
    after: kinds('kind', {
      key: { channel: channel(), frame: frames() },
      passes: {
        channel: channel(),
        value: number(),
        way: otherwise(oneOf(...WAYS), 'either'),
        nth: otherwise(whole({ minimum: 1 }), 1),
      },
    }),
    gap: otherwise(frames(), 0),
    exact: otherwise(flag(), false),
    muted: otherwise(flag(), false),
  }),
);
/** All that an interlock names. */
export function interlockReads(lock: Interlock): readonly Naming[] {
  return namingsIn(interlock.inside?.is === 'fields' ? interlock.inside.fields : {}, lock);
}
const sound = defined(
  'sound',
  object({
    id: id(),
    asset: assetId(),
    start: frames(),
    gain: otherwise(number({ minimum: 0 }), 1),
    muted: otherwise(flag(), false),
  }),
);
const pose = defined(
  'pose',
  object({
    id: id(),
    name: text(),
    values: record(number(), 'channel'),
    picture: otherwise(orNull(text({ pattern: '^data:image/' })), null),
  }),
);

/** The lists of a project whose items can be read and written by themselves; `curves` stands for the curves of any clip. */
export type Listed =
  | 'parts'
  | 'curves'
  | 'drivers'
  | 'constraints'
  | 'interlocks'
  | 'arrangement'
  | 'assets'
  | 'markers'
  | 'sounds'
  | 'poses';

/** What an entry of a list of the project is. */
export const ENTRIES: Readonly<Record<Listed | 'clips', Field>> = {
  parts: part,
  clips: clip,
  curves: curve,
  drivers: DRIVER,
  constraints: CONSTRAINT,
  interlocks: interlock,
  arrangement: defined('placement', object(PLACEMENT)),
  assets: asset,
  markers: marker,
  sounds: sound,
  poses: pose,
};

const items = (name: Exclude<Listed, 'curves'> | 'clips'): Field => otherwise(list(ENTRIES[name]), []);

export const PROJECT: Fields = {
  format: always('kaizen'),
  version: always(1),
  edition: otherwise({ schema: { type: 'integer', minimum: 1 } }, 1),
  id: text({ minLength: 1 }),
  name: text(),
  rate: defined('rate', object({ frames: positive(), per: positive() })),
  range: defined('range', object({ start: frames(), end: frames(), loop: otherwise(flag(), false) })),
  gravity: otherwise(number(), 9.81),
  floor: otherwise(number(), 0),
  parts: items('parts'),
  clips: items('clips'),
  activeClip: otherwise(orNull({ schema: { type: 'string' }, names: clipId().names! }), null),
  arrangement: items('arrangement'),
  drivers: items('drivers'),
  constraints: items('constraints'),
  interlocks: items('interlocks'),
  assets: items('assets'),
  markers: items('markers'),
  sounds: items('sounds'),
  poses: items('poses'),
};

/** A block of a part where its file says nothing. */
export function defaultBlock(name: keyof typeof BLOCKS): Readonly<Record<string, unknown>> {
  return BLOCKS[name];
}

/** What a part has where its file says nothing. */
export const DEFAULT_PART: Readonly<Record<string, unknown>> = Object.fromEntries(
  Object.entries(PART).flatMap(([name, { fallback }]) => (fallback === undefined ? [] : [[name, fallback]])),
);
