import {
  bareKey,
  eachKey,
  packedKeys,
  setOwn,
  withPackedKeys,
  type Field,
  type Fields as Described,
  type KeyedCurve,
} from '../project';
import { ENTRIES, PROJECT, type Listed } from './project-fields';

/**
 * The defaults of contract §2, read off the description of the file in both directions: `fillDefaults` puts them in on load,
 * `stripDefaults` leaves them out on writing. Fields that nothing describes pass through both.
 */
type Fields = Readonly<Record<string, unknown>>;

/** Whether a key has a frame and a value and nothing else. */
export function isBareKey(object: Fields): boolean {
  for (const name in object) if (name !== 'frame' && name !== 'value') return false;
  return true;
}

const KEY = 'key';

export function isObject(value: unknown): value is Fields {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Fields laid out once: every key of a big project passes through here. */
interface LaidOut {
  readonly defaults: readonly (readonly [name: string, value: unknown])[];
  readonly nested: readonly (readonly [name: string, field: Field])[];
}
const laidOut = new WeakMap<Described, LaidOut>();

function layOut(fields: Described): LaidOut {
  let laid = laidOut.get(fields);
  if (!laid) {
    const all = Object.entries(fields);
    laid = {
      defaults: all.flatMap(([name, { fallback }]) =>
        fallback === undefined ? [] : [[name, fallback] as const],
      ),
      nested: all.filter(([, { inside }]) => inside !== undefined),
    };
    laidOut.set(fields, laid);
  }
  return laid;
}

type Each = (fields: Described, object: Fields, definition: string | undefined) => Fields;

const NOTHING: Described = {};

/** A value with each object in it passed through; the very same where none came out as another. */
function through(field: Field, value: unknown, each: Each): unknown {
  const { inside, definition } = field;
  switch (inside?.is) {
    case undefined:
      return value;
    case 'fields':
      return isObject(value) ? each(inside.fields, value, definition) : value;
    case 'kinds':
      return isObject(value)
        ? each(inside.kinds[String(value[inside.tag])] ?? NOTHING, value, definition)
        : value;
    case 'list':
      return Array.isArray(value) ? throughList(inside.entry, value, each) : value;
    case 'record':
      return isObject(value) ? throughRecord(inside.entry, value, each) : value;
  }
}

function throughList(entry: Field, value: readonly unknown[], each: Each): unknown {
  let changed: unknown[] | null = null;
  for (let i = 0; i < value.length; i++) {
    const next = through(entry, value[i], each);
    if (next !== value[i]) (changed ??= value.slice())[i] = next;
  }
  return changed ?? value;
}

function throughRecord(entry: Field, value: Fields, each: Each): Fields {
  if (!entry.inside) return value;
  let changed: Record<string, unknown> | null = null;
  for (const name of Object.keys(value)) {
    const next = through(entry, value[name], each);
    if (next !== value[name]) setOwn((changed ??= { ...value }), name, next);
  }
  return changed ?? value;
}

/** An object with its defaults put in, those shared by all; the very same where nothing was missing. */
const fill: Each = (fields, object, definition) => {
  if (definition === KEY && isBareKey(object))
    return bareKey(object['frame'] as number, object['value'] as number) as unknown as Fields;
  return filledWith(fields, object, fill);
};

/** The same with keys left as they came; lists of them are not even looked through. */
const fillAllButKeys: Each = (fields, object) => filledWith(fields, object, fillAllButKeys, KEY);

function filledWith(fields: Described, object: Fields, each: Each, butListsOf?: string): Fields {
  const { defaults, nested } = layOut(fields);
  let filled: Record<string, unknown> | null = null;
  for (const [name, field] of nested) {
    const value = object[name];
    if (value === undefined || (butListsOf !== undefined && isListOf(field, butListsOf))) continue;
    const next = through(field, value, each);
    if (next !== value) (filled ??= copied(object))[name] = next;
  }
  for (const [name, value] of defaults)
    if (object[name] === undefined) (filled ??= copied(object))[name] = value;
  return filled ?? object;
}

/** A copy made field by field: to it more can be added at a tenth of what adding to a spread copy costs. */
function copied(object: Fields): Record<string, unknown> {
  const copy: Record<string, unknown> = {};
  for (const name of Object.keys(object)) setOwn(copy, name, object[name]);
  return copy;
}

function isListOf({ inside }: Field, definition: string): boolean {
  return inside?.is === 'list' && inside.entry.definition === definition;
}

/** Whether an object is a curve with keys that lie packed. */
function isPacked(object: Fields): object is Fields & Pick<KeyedCurve, 'keys'> {
  return (packedKeys(object as unknown as KeyedCurve)?.length ?? 0) > 0;
}

/** Bare keys as a file has them. */
function bareFields(curve: Pick<KeyedCurve, 'keys'>): readonly Fields[] {
  const written: Fields[] = [];
  eachKey(curve, (frame, value) => written.push({ frame, value }));
  return written;
}

/** An object without what equals its default. */
const strip: Each = (fields, object) => {
  const kept: Record<string, unknown> = {};
  for (const name of Object.keys(object)) {
    if (name === 'keys' && isPacked(object)) {
      kept[name] = bareFields(object);
      continue;
    }
    const value = object[name];
    const field = Object.hasOwn(fields, name) ? fields[name] : undefined;
    const fallback = field?.fallback;
    if (fallback !== undefined && (value === undefined || same(value, fallback))) continue;
    setOwn(kept, name, field ? through(field, value, strip) : value);
  }
  return kept;
};

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
  return fill(PROJECT, withNames(document), undefined);
}

/** The same with the keys as they came: enough for checking a document, at a small part of the cost. */
export function fillOutline(document: Fields): Fields {
  return fillAllButKeys(PROJECT, withNames(document), undefined);
}

function withNames(document: Fields): Fields {
  return {
    ...document,
    parts: named(document['parts']) ?? [],
    clips: named(document['clips']) ?? [],
  };
}

/** One item of a list with its defaults put in, as `fillDefaults` puts them into the whole document. */
export function fillItem(list: Listed, item: Fields): Fields {
  const withName = list === 'parts' && item['name'] === undefined ? { ...item, name: item['id'] } : item;
  return through(ENTRIES[list], withName, fill) as Fields;
}

/** A curve with its defaults put in, around keys that have theirs already. */
export function fillCurveAround(keys: readonly Fields[], item: Fields): Fields {
  return { ...fillItem('curves', { ...item, keys: [] }), keys };
}

/** A curve that has anything in the place of its keys, with its defaults put in, and bare keys as numbers, `[frame, value]` a key. */
export function fillCurvePacked(numbers: Float64Array, item: Fields & { readonly keys: unknown }): Fields {
  const filled = isPlain(item) ? { ...plainCurve(), channel: item['channel'] } : fillItem('curves', item);
  return withPackedKeys(filled as typeof item, numbers);
}

/** Whether an item has a channel and keys, in this order, and nothing else, as nearly all curves of a big project. */
function isPlain(item: Fields): boolean {
  let count = 0;
  for (const name in item) if (name !== PLAIN[count++]) return false;
  return count === PLAIN.length;
}
const PLAIN = ['channel', 'keys'];

let plain: Fields | null = null;
/** A curve of which the file says nothing but its channel and keys. */
function plainCurve(): Fields {
  return (plain ??= fillItem('curves', { channel: '', keys: [] }));
}

/** A key with its defaults put in. */
export function fillKey(item: Fields): Fields {
  const curve = through(ENTRIES.curves, { keys: [item] }, fill) as { readonly keys: readonly [Fields] };
  return curve.keys[0];
}

/** One item of a list without what equals its default. */
export function stripItem(list: Listed, item: Fields): Fields {
  return through(ENTRIES[list], item, strip) as Fields;
}

/** The document to write for a project: what equals its default is left out. */
export function stripDefaults(document: Fields): Fields {
  return strip(PROJECT, document, undefined);
}
