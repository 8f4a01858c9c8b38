/** Whether a value is what a field must be. */
export type Is = (value: unknown) => boolean;

/** A field of the Bench's state: what it begins as, and what it must be when it is read from a record. */
export interface Field<T> {
  readonly initial: T;
  readonly is: Is;
}

export function field<T>(initial: T, is: Is): Field<T> {
  return { initial, is };
}

/** The state that a room's fields describe. */
export type StateOf<F> = { readonly [N in keyof F]: F[N] extends Field<infer T> ? T : never };

export const text: Is = (value) => typeof value === 'string';
export const flag: Is = (value) => typeof value === 'boolean';
export const number: Is = (value) => typeof value === 'number' && Number.isFinite(value);
export const atLeast =
  (least: number): Is =>
  (value) =>
    number(value) && (value as number) >= least;
export const oneOf =
  (...values: readonly string[]): Is =>
  (value) =>
    typeof value === 'string' && values.includes(value);
export const orNull =
  (is: Is): Is =>
  (value) =>
    value === null || is(value);
export const listOf =
  (is: Is): Is =>
  (value) =>
    Array.isArray(value) && value.every(is);
export const vector: Is = (value) => listOf(number)(value) && (value as unknown[]).length === 3;
export const shaped =
  (fields: Readonly<Record<string, Is>>): Is =>
  (value) =>
    typeof value === 'object' &&
    value !== null &&
    Object.entries(fields).every(([name, is]) => is((value as Record<string, unknown>)[name]));
