import type { Field, Fields, Named } from './field';

type Value = Readonly<Record<string, unknown>>;

/** Gives another value for what stands in a field that names something or is counted in frames; the same where it stays. */
export type Change = (value: unknown, field: Field) => unknown;

/**
 * An object with every value that names something or is counted in frames passed through `change`, however deep it lies; the very
 * same object where nothing changed. What no field describes stays as it is.
 */
export function changeFields<T extends object>(fields: Fields, object: T, change: Change): T {
  let changed: Record<string, unknown> | null = null;
  for (const name of Object.keys(fields)) {
    const value = (object as Value)[name];
    if (value === undefined) continue;
    const next = changeValue(fields[name]!, value, change);
    if (next !== value) (changed ??= { ...object } as Record<string, unknown>)[name] = next;
  }
  return (changed as T | null) ?? object;
}

function changeValue(field: Field, value: unknown, change: Change): unknown {
  if (value === null) return value;
  const { inside } = field;
  if (!inside) return (field.names ?? field.frames) ? change(value, field) : value;
  if (typeof value !== 'object') return value;
  switch (inside.is) {
    case 'fields':
      return changeFields(inside.fields, value, change);
    case 'kinds': {
      const own = inside.kinds[String((value as Value)[inside.tag])];
      return own ? changeFields(own, value, change) : value;
    }
    case 'list':
      return changeList(value as readonly unknown[], inside.entry, change);
    case 'record':
      return changeRecord(value as Value, inside.entry, inside.keys, change);
  }
}

function changeList(values: readonly unknown[], entry: Field, change: Change): readonly unknown[] {
  let changed: unknown[] | null = null;
  for (let i = 0; i < values.length; i++) {
    const next = changeValue(entry, values[i], change);
    if (next !== values[i]) (changed ??= values.slice())[i] = next;
  }
  return changed ?? values;
}

function changeRecord(record: Value, entry: Field, keys: Named | undefined, change: Change): Value {
  const keyField: Field | null = keys ? { schema: {}, names: keys } : null;
  const pairs = Object.entries(record).map(([key, value]): [string, unknown] => [
    keyField ? String(change(key, keyField)) : key,
    changeValue(entry, value, change),
  ]);
  const same = pairs.every(([key, value]) => record[key] === value && Object.hasOwn(record, key));
  return same ? record : Object.fromEntries(pairs);
}

/** What is named in an object and where: `at` is the way to it from the object, for a JSON pointer. */
export interface Naming {
  readonly names: Named;
  readonly id: string;
  readonly at: readonly (string | number)[];
  readonly partKind?: string;
}

/** All that an object names, in the order of its fields. */
export function namingsIn(fields: Fields, object: object): readonly Naming[] {
  const found: Naming[] = [];
  visit({ schema: {}, inside: { is: 'fields', fields } }, object, [], found);
  return found;
}

function visit(field: Field, value: unknown, at: readonly (string | number)[], found: Naming[]): void {
  if (value === null || value === undefined) return;
  const { inside, names, partKind } = field;
  if (!inside) {
    if (names && typeof value === 'string')
      found.push({ names, id: value, at, ...(partKind === undefined ? {} : { partKind }) });
    return;
  }
  if (typeof value !== 'object') return;
  switch (inside.is) {
    case 'fields':
      for (const [name, own] of Object.entries(inside.fields))
        visit(own, (value as Value)[name], [...at, name], found);
      return;
    case 'kinds':
      for (const [name, own] of Object.entries(inside.kinds[String((value as Value)[inside.tag])] ?? {}))
        visit(own, (value as Value)[name], [...at, name], found);
      return;
    case 'list':
      (value as readonly unknown[]).forEach((each, i) => visit(inside.entry, each, [...at, i], found));
      return;
    case 'record':
      for (const [key, each] of Object.entries(value)) visit(inside.entry, each, [...at, key], found);
  }
}

/** How ids are called anew. */
export interface NewNames {
  readonly part: (id: string) => string;
  readonly clip?: (id: string) => string;
  readonly asset?: (id: string) => string;
}

/** An object with what it names called anew; a channel follows its part. */
export function renameIn<T extends object>(fields: Fields, object: T, names: NewNames): T {
  return changeFields(fields, object, (value, field) => {
    const id = String(value);
    switch (field.names) {
      case 'part':
        return names.part(id);
      case 'channel': {
        const slash = id.indexOf('/');
        return `${names.part(id.slice(0, slash))}${id.slice(slash)}`;
      }
      case 'clip':
        return names.clip?.(id) ?? id;
      case 'asset':
        return names.asset?.(id) ?? id;
      case undefined:
        return value;
    }
  });
}

/** An object with all that is counted in frames made `factor` times as much; whole frames are rounded, to one at least. */
export function scaleFrames<T extends object>(fields: Fields, object: T, factor: number): T {
  return changeFields(fields, object, (value, { frames, wholeFrames }) => {
    if (frames === undefined || typeof value !== 'number') return value;
    if (wholeFrames) return Math.max(1, Math.round(value * factor));
    if (value === 0) return value;
    return frames === 1 ? value * factor : frames === -1 ? value / factor : value * factor ** frames;
  });
}
