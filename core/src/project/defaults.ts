/**
 * The defaults of contract §2 as one table, read in both directions: `fillDefaults` puts them in on
 * load, `stripDefaults` leaves them out on writing. Fields the table doesn't know pass through both.
 */
type Fields = Readonly<Record<string, unknown>>;

interface Shape {
  readonly defaults: Fields;
  /** Nested objects: a shape, or a list of them. A function picks by the object itself (its kind). */
  readonly nested?: Readonly<Record<string, Shape | readonly [Shape]>>;
  readonly byKind?: (object: Fields) => Shape;
  /** A quick way for the most common form, made in one piece; null for any other form. */
  readonly quickly?: (object: Fields) => Fields | null;
}

const THIRD = 1 / 3;
const ZERO = [0, 0, 0];
const ONE = [1, 1, 1];
const HOLD_OUTSIDE = { mode: 'hold', count: null, pin: null };
const SMOOTH_SIDE = { mode: 'smooth', slope: 0, reach: THIRD };
const REST = { translate: ZERO, rotate: ZERO, scale: ONE };

const side: Shape = { defaults: SMOOTH_SIDE };
const outside: Shape = { defaults: HOLD_OUTSIDE };
const CURVE_LEG = { kind: 'curve' };
const key: Shape = {
  defaults: { in: SMOOTH_SIDE, out: SMOOTH_SIDE, joined: true, leg: CURVE_LEG },
  nested: { in: side, out: side },
  quickly: (object) => (isBareKey(object) ? bareKey(object['frame'], object['value']) : null),
};
/** Whether a key has a frame and a value and nothing else. */
export function isBareKey(object: Fields): boolean {
  for (const name in object) if (name !== 'frame' && name !== 'value') return false;
  return true;
}

/** A key that has only a frame and a value, with its defaults put in. */
export function bareKey(frame: unknown, value: unknown): Fields {
  return { frame, value, in: SMOOTH_SIDE, out: SMOOTH_SIDE, joined: true, leg: CURVE_LEG };
}

const keyedDefaults = { keys: [], before: HOLD_OUTSIDE, after: HOLD_OUTSIDE };
const keyedNested = { keys: [key], before: outside, after: outside } as const;
const keyed: Shape = { defaults: keyedDefaults, nested: keyedNested };
const treatment: Shape = { defaults: { weight: 1, muted: false }, nested: { weight: keyed } };
const take: Shape = {
  defaults: { ...keyedDefaults, treatments: [] },
  nested: { ...keyedNested, treatments: [treatment] },
};
const curve: Shape = {
  defaults: { ...take.defaults, muted: false, locked: false },
  nested: { ...take.nested, otherTake: take },
};
const clip: Shape = { defaults: { curves: [] }, nested: { curves: [curve] } };

const BLOCKS: Readonly<Record<string, Fields>> = {
  camera: { focalLength: 35, sensorHeight: 24, focusDistance: 5, fStop: 5.6, near: 0.05, far: 1000 },
  light: { type: 'directional', color: ONE, intensity: 1 },
  material: { baseColor: [0.8, 0.8, 0.8, 1], roughness: 0.8, metallic: 0, emissive: ZERO },
};
const partDefaults: Fields = {
  parent: null,
  rest: REST,
  pivot: ZERO,
  turnOrder: 'XYZ',
  custom: [],
  limits: {},
  visible: 1,
};
const partNested = {
  rest: { defaults: REST },
  squash: { defaults: { anchor: ZERO, frame: 'part' } },
} satisfies Record<string, Shape>;

function partWithBlock(block: string, more: Fields = {}): Shape {
  const defaults = BLOCKS[block];
  return {
    defaults: { ...partDefaults, [block]: defaults, ...more },
    nested: { ...partNested, [block]: { defaults: defaults ?? {} } },
  };
}
const PARTS: Readonly<Record<string, Shape>> = {
  group: { defaults: partDefaults, nested: partNested },
  mesh: partWithBlock('material', { morphs: [] }),
  camera: partWithBlock('camera'),
  light: partWithBlock('light'),
  path: { defaults: partDefaults, nested: { ...partNested, path: { defaults: { closed: false } } } },
};
const PLAIN_PART: Shape = { defaults: partDefaults, nested: partNested };
const part: Shape = { defaults: {}, byKind: (object) => PARTS[String(object['kind'])] ?? PLAIN_PART };

const driverDefaults = { combine: 'replace', muted: false };
const DRIVERS: Readonly<Record<string, Shape>> = {
  expression: { defaults: { ...driverDefaults, inputs: {} } },
  map: { defaults: driverDefaults, nested: { curve: keyed } },
  linkage: { defaults: { ...driverDefaults, params: {} } },
  echo: { defaults: { ...driverDefaults, delay: 0, gain: 1 } },
  follow: { defaults: { ...driverDefaults, start: 0, loop: null } },
};
const driver: Shape = {
  defaults: {},
  byKind: (object) => DRIVERS[String(object['kind'])] ?? { defaults: driverDefaults },
};

const project: Shape = {
  defaults: {
    gravity: 9.81,
    floor: 0,
    parts: [],
    clips: [],
    activeClip: null,
    arrangement: [],
    drivers: [],
    constraints: [],
    assets: [],
    markers: [],
    sounds: [],
    poses: [],
  },
  nested: {
    range: { defaults: { loop: false } },
    parts: [part],
    clips: [clip],
    drivers: [driver],
    constraints: [{ defaults: { muted: false } }],
    arrangement: [{ defaults: { muted: false } }],
    markers: [{ defaults: { kind: 'note', end: null } }],
    sounds: [{ defaults: { gain: 1, muted: false } }],
    poses: [{ defaults: { picture: null } }],
  },
};

function isObject(value: unknown): value is Fields {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** A shape with its entries laid out once: every key of a big project passes through here. */
interface LaidOut {
  readonly defaults: readonly (readonly [name: string, value: unknown])[];
  readonly nested: readonly (readonly [name: string, child: Shape, isList: boolean])[];
}
const laidOut = new WeakMap<Shape, LaidOut>();

function layOut(shape: Shape): LaidOut {
  let laid = laidOut.get(shape);
  if (!laid) {
    const nested = Object.entries(shape.nested ?? {}).map(([name, child]) =>
      Array.isArray(child)
        ? ([name, (child as readonly [Shape])[0], true] as const)
        : ([name, child as Shape, false] as const),
    );
    laid = { defaults: Object.entries(shape.defaults), nested };
    laidOut.set(shape, laid);
  }
  return laid;
}

type Each = (shape: Shape, object: Fields) => Fields;

/** A nested value with each object in it passed through; the very same where none came out as another. */
function through(value: unknown, child: Shape, isList: boolean, each: Each): unknown {
  if (!isList) return isObject(value) ? each(child, value) : value;
  if (!Array.isArray(value)) return value;
  let changed: unknown[] | null = null;
  for (let i = 0; i < value.length; i++) {
    const entry: unknown = value[i];
    const next = isObject(entry) ? each(child, entry) : entry;
    if (next !== entry) (changed ??= value.slice())[i] = next;
  }
  return changed ?? value;
}

/** An object with its defaults put in, those shared by all; the very same where nothing was missing. */
function fill(shape: Shape, object: Fields): Fields {
  return fillAllBut(null, shape, object);
}

/** The same, what has one of the shapes left as it came. */
function fillAllBut(left: Shape | null, shape: Shape, object: Fields): Fields {
  const quick = shape.quickly?.(object);
  if (quick) return quick;
  const { defaults, nested } = layOut(shape.byKind ? shape.byKind(object) : shape);
  const each: Each = left ? (inner, value) => fillAllBut(left, inner, value) : fill;
  let filled: Record<string, unknown> | null = null;
  for (const [name, child, isList] of nested) {
    const value = object[name];
    if (value === undefined || child === left) continue;
    const next = through(value, child, isList, each);
    if (next !== value) (filled ??= { ...object })[name] = next;
  }
  for (const [name, value] of defaults)
    if (object[name] === undefined) (filled ??= { ...object })[name] = value;
  return filled ?? object;
}

/** An object without what equals its default. */
function strip(shape: Shape, object: Fields): Fields {
  const own = shape.byKind ? shape.byKind(object) : shape;
  const { nested } = layOut(own);
  const kept: Record<string, unknown> = {};
  for (const name of Object.keys(object)) {
    const value = object[name];
    if (Object.hasOwn(own.defaults, name) && (value === undefined || same(value, own.defaults[name])))
      continue;
    const within = nested.find(([inner]) => inner === name);
    setOwn(kept, name, within ? through(value, within[1], within[2], strip) : value);
  }
  return kept;
}

/** Sets a field by its name, also one that is called `__proto__`. */
function setOwn(object: Record<string, unknown>, name: string, value: unknown): void {
  if (name !== '__proto__') object[name] = value;
  else Object.defineProperty(object, name, { value, enumerable: true, writable: true, configurable: true });
}

function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((item, i) => same(item, b[i]));
  if (!isObject(a) || !isObject(b)) return false;
  const names = Object.keys(a);
  return (
    names.length === Object.keys(b).length &&
    names.every((name) => Object.hasOwn(b, name) && same(a[name], b[name]))
  );
}

function named(list: unknown): unknown {
  if (!Array.isArray(list)) return list;
  return list.map((item: unknown) =>
    isObject(item) && item['name'] === undefined ? { ...item, name: item['id'] } : item,
  );
}

/** A document that the schema accepts, with every default put in. Parts and clips without a name are called by their id. */
export function fillDefaults(document: Fields): Fields {
  return fill(project, withNames(document));
}

/** The same with the keys as they came: enough for checking a document, at a small part of the cost. */
export function fillOutline(document: Fields): Fields {
  return fillAllBut(key, project, withNames(document));
}

function withNames(document: Fields): Fields {
  return {
    ...document,
    parts: named(document['parts']) ?? [],
    clips: named(document['clips']) ?? [],
  };
}

/** The lists of a project whose items can be read and written by themselves; `curves` stands for the curves of any clip. */
export type Listed =
  'parts' | 'curves' | 'drivers' | 'constraints' | 'arrangement' | 'assets' | 'markers' | 'sounds' | 'poses';

function shapeOf(list: Listed): Shape {
  if (list === 'curves') return curve;
  const nested = project.nested?.[list];
  return Array.isArray(nested) ? (nested as readonly [Shape])[0] : BARE;
}
const BARE: Shape = { defaults: {} };

/** One item of a list with its defaults put in, as `fillDefaults` puts them into the whole document. */
export function fillItem(list: Listed, item: Fields): Fields {
  const withName = list === 'parts' && item['name'] === undefined ? { ...item, name: item['id'] } : item;
  return fill(shapeOf(list), withName);
}

/** A curve with its defaults put in, around keys that have theirs already. */
export function fillCurveAround(keys: readonly Fields[], item: Fields): Fields {
  return { ...fill(curve, { ...item, keys: [] }), keys };
}

/** A key with its defaults put in. */
export function fillKey(item: Fields): Fields {
  return fill(key, item);
}

/** One item of a list without what equals its default. */
export function stripItem(list: Listed, item: Fields): Fields {
  return strip(shapeOf(list), item);
}

/** The document to write for a project: what equals its default is left out. */
export function stripDefaults(document: Fields): Fields {
  return strip(project, document);
}

/** The block a camera, light or mesh part has when its file says nothing. */
export function defaultBlock(name: 'camera' | 'light' | 'material'): Fields {
  return BLOCKS[name] ?? {};
}
export const DEFAULT_SIDE = SMOOTH_SIDE as {
  readonly mode: 'smooth';
  readonly slope: number;
  readonly reach: number;
};
export const DEFAULT_OUTSIDE = HOLD_OUTSIDE as {
  readonly mode: 'hold';
  readonly count: null;
  readonly pin: null;
};
export const DEFAULT_PART = partDefaults;
