/**
 * What a project's file is made of, told once. A field says what may stand there, what counts where it is left out, what it names
 * and whether it is counted in frames. The JSON Schema, the defaults, unknown names, renaming, removing and a change of rate are
 * all read off these descriptions; none of them has a list of its own.
 */
export interface Field {
  /** The JSON Schema of the value, without what lies inside it. */
  readonly schema: Readonly<Record<string, unknown>>;
  /** The schema stands under `$defs` by this name and is referred to. */
  readonly definition?: string;
  readonly nullable?: true;
  /** A plain number may stand here in place of what this other field describes. */
  readonly orNumber?: Field;
  /** What counts where the field is left out. Undefined: it must be given, or is `optional`. */
  readonly fallback?: unknown;
  /** It may be left out, and then nothing stands for it. */
  readonly optional?: true;
  readonly names?: Named;
  /** The part that is named must be of this kind. */
  readonly partKind?: string;
  /** Counted in frames to this power: 1 for a time, −1 for a slope per frame. */
  readonly frames?: number;
  /** Counted in whole frames, at least one: rounded where the rate changes. */
  readonly wholeFrames?: true;
  /** What a number is in, as shown. */
  readonly unit?: string;
  readonly inside?: Inside;
}

/** What an id stands for; a channel is `<part>/<property>`. */
export type Named = 'part' | 'channel' | 'clip' | 'asset';
export type Fields = Readonly<Record<string, Field>>;

/** What lies in a value: the fields of an object, the entries of a list, of an object with free names, or one of several kinds. */
export type Inside =
  | { readonly is: 'fields'; readonly fields: Fields }
  | { readonly is: 'list'; readonly entry: Field }
  | { readonly is: 'record'; readonly keys?: Named; readonly entry: Field }
  | { readonly is: 'kinds'; readonly tag: string; readonly kinds: Readonly<Record<string, Fields>> };

type Bounds = Readonly<Record<string, unknown>> & { readonly unit?: string };

export function number({ unit, ...bounds }: Bounds = {}): Field {
  return { schema: { type: 'number', ...bounds }, ...(unit === undefined ? {} : { unit }) };
}

export function positive(unit?: string): Field {
  return number({ exclusiveMinimum: 0, ...(unit === undefined ? {} : { unit }) });
}

export function whole(bounds: Bounds = {}): Field {
  return { schema: { type: 'integer', ...bounds } };
}

/** A time or a length of time, in frames. */
export function frames(bounds: Bounds = {}): Field {
  return { ...number({ ...bounds, unit: 'f' }), frames: 1 };
}

/** A length of time that is a whole number of frames, at least one. */
export function wholeFrames(): Field {
  return { schema: { type: 'integer', minimum: 1 }, frames: 1, wholeFrames: true, unit: 'f' };
}

export function text(bounds: Bounds = {}): Field {
  return { schema: { type: 'string', ...bounds } };
}

export function flag(): Field {
  return { schema: { type: 'boolean' } };
}

export function oneOf(...values: readonly unknown[]): Field {
  return { schema: { enum: values } };
}

export function always(value: unknown): Field {
  return { schema: { const: value } };
}

/** A list of numbers of one length. */
export function numbers(count: number, bounds: Bounds = {}): Field {
  return {
    schema: { type: 'array', items: { type: 'number', ...bounds }, minItems: count, maxItems: count },
  };
}

export function id(): Field {
  return { schema: { type: 'string', pattern: '^[A-Za-z0-9][A-Za-z0-9._-]*$' }, definition: 'id' };
}
export function partId(kind?: string): Field {
  return { ...id(), names: 'part', ...(kind === undefined ? {} : { partKind: kind }) };
}
export function clipId(): Field {
  return { ...id(), names: 'clip' };
}
export function assetId(): Field {
  return { ...id(), names: 'asset' };
}
export function channel(): Field {
  return {
    schema: { type: 'string', pattern: '^[A-Za-z0-9][A-Za-z0-9._-]*/.+$' },
    definition: 'channel',
    names: 'channel',
  };
}

export function object(fields: Fields): Field {
  return { schema: { type: 'object' }, inside: { is: 'fields', fields } };
}
export function list(entry: Field, bounds: Bounds = {}): Field {
  return { schema: { type: 'array', ...bounds }, inside: { is: 'list', entry } };
}
/** An object with free names; `keys` says what the names themselves name. */
export function record(entry: Field, keys?: Named): Field {
  return {
    schema: { type: 'object' },
    inside: { is: 'record', entry, ...(keys === undefined ? {} : { keys }) },
  };
}
/** An object whose `tag` says which of several kinds it is. */
export function kinds(tag: string, all: Readonly<Record<string, Fields>>): Field {
  return { schema: { type: 'object' }, inside: { is: 'kinds', tag, kinds: all } };
}

/** A field whose schema stands under `$defs` by a name. */
export function defined(definition: string, field: Field): Field {
  return { ...field, definition };
}
/** The value that counts where the field is left out. */
export function otherwise(field: Field, fallback: unknown): Field {
  return { ...field, fallback };
}
/** A field that may be left out, with nothing in its place. */
export function maybe(field: Field): Field {
  return { ...field, optional: true };
}
export function orNull(field: Field): Field {
  return { ...field, nullable: true };
}
export function orNumber(field: Field): Field {
  return { schema: {}, orNumber: field, ...(field.inside ? { inside: field.inside } : {}) };
}
