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
}

const THIRD = 1 / 3;
const ZERO = [0, 0, 0];
const ONE = [1, 1, 1];
const HOLD_OUTSIDE = { mode: 'hold', count: null, pin: null };
const SMOOTH_SIDE = { mode: 'smooth', slope: 0, reach: THIRD };
const REST = { translate: ZERO, rotate: ZERO, scale: ONE };

const side: Shape = { defaults: SMOOTH_SIDE };
const outside: Shape = { defaults: HOLD_OUTSIDE };
const key: Shape = {
  defaults: { in: SMOOTH_SIDE, out: SMOOTH_SIDE, joined: true, leg: { kind: 'curve' } },
  nested: { in: side, out: side },
};
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

function mapNested(shape: Shape, object: Fields, each: (child: Shape, value: Fields) => unknown): Fields {
  const nested = shape.nested;
  if (!nested) return object;
  const changed: Record<string, unknown> = { ...object };
  for (const [name, child] of Object.entries(nested)) {
    const value = object[name];
    if (Array.isArray(child)) {
      const item = (child as readonly [Shape])[0];
      if (Array.isArray(value))
        changed[name] = value.map((entry: unknown) => (isObject(entry) ? each(item, entry) : entry));
    } else if (isObject(value)) {
      changed[name] = each(child as Shape, value);
    }
  }
  return changed;
}

function fill(shape: Shape, object: Fields): Fields {
  const own = shape.byKind ? shape.byKind(object) : shape;
  const missing = Object.entries(own.defaults).filter(([name]) => object[name] === undefined);
  return mapNested(own, { ...object, ...Object.fromEntries(missing) }, fill);
}

function strip(shape: Shape, object: Fields): Fields {
  const own = shape.byKind ? shape.byKind(object) : shape;
  const inner = mapNested(own, object, strip);
  return Object.fromEntries(
    Object.entries(inner).filter(
      ([name, value]) =>
        !(
          Object.hasOwn(own.defaults, name) &&
          (same(object[name], own.defaults[name]) || value === undefined)
        ),
    ),
  );
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
  return fill(project, {
    ...document,
    parts: named(document['parts']) ?? [],
    clips: named(document['clips']) ?? [],
  });
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
