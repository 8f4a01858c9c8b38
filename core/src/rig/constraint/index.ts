import {
  flag,
  id,
  jsonPointer,
  kinds,
  namingsIn,
  otherwise,
  partId,
  partOf,
  type Constraint,
  type Field,
  type Fields,
  type Naming,
  type Part,
  type Problem,
} from '../../project';
import { aim } from './aim';
import { along } from './along';
import { attach } from './attach';
import { chase } from './chase';
import type { CompiledConstraint, ConstraintContext, ConstraintKind, ConstraintRefusal } from './constraint';
import { heading } from './heading';
import { plant } from './plant';
import { reach } from './reach';

/** The constraints by kind. One line a constraint. */
export const CONSTRAINTS: {
  readonly [K in Constraint['kind']]: ConstraintKind<Extract<Constraint, { kind: K }>>;
} = { attach, plant, aim, reach, along, chase, heading };

const COMMON: Fields = { id: id(), part: partId(), muted: otherwise(flag(), false) };

/** A constraint as a file has it. */
export const CONSTRAINT: Field = {
  ...kinds(
    'kind',
    Object.fromEntries(
      Object.entries(CONSTRAINTS).map(([kind, { fields }]) => [kind, { ...fields, ...COMMON }]),
    ),
  ),
  definition: 'constraint',
};

function kindOf(constraint: Constraint): ConstraintKind<Constraint> {
  return CONSTRAINTS[constraint.kind] as ConstraintKind<Constraint>;
}

/** What of a constraint's fields can't stand together, or null. */
export function constraintRefusal(constraint: Constraint): ConstraintRefusal | null {
  return kindOf(constraint).refuse?.(constraint) ?? null;
}

/** Whether a constraint came with the second edition of the format. */
export function constraintIsSecondEdition(constraint: Constraint): boolean {
  return kindOf(constraint).edition?.(constraint) ?? false;
}

/** What a constraint reads: parts and channels by their ids, the part it acts on left out. */
export function constraintReads(constraint: Constraint): readonly Naming[] {
  return namingsIn(kindOf(constraint).fields, constraint);
}

/** The frames between which a constraint acts, `end` null for ever; null where it always acts. */
export function constraintSpan(
  constraint: Constraint,
): { readonly start: number; readonly end: number | null } | null {
  return kindOf(constraint).span?.(constraint) ?? null;
}

/** What a constraint does, in a few words, parts called by their names. */
export function constraintSays(project: { readonly parts: readonly Part[] }, constraint: Constraint): string {
  const fields = constraint as unknown as Readonly<Record<string, unknown>>;
  return kindOf(constraint).says.replace(/\{(\w+)\}/g, (_, field: string) => {
    const id = String(fields[field]);
    return partOf(project, id)?.name ?? id;
  });
}

export type ConstraintResult =
  | { readonly ok: true; readonly value: CompiledConstraint }
  | { readonly ok: false; readonly problem: Problem };

/** Compiles constraint number `index` of the project, or says in one sentence why it can't be. */
export function compileConstraint(
  constraint: Constraint,
  index: number,
  context: ConstraintContext,
): ConstraintResult {
  const made = kindOf(constraint).make(constraint, context);
  if ('message' in made) {
    const { at, message } = made;
    return { ok: false, problem: { pointer: jsonPointer('constraints', index, ...at), message } };
  }
  const bare = { parts: [], slots: [], late: [], bends: -1 };
  return {
    ok: true,
    value: { id: constraint.id, part: context.part(constraint.part), ...bare, ...made },
  };
}

export * from './constraint';
export { turnAboutPivot } from './move';
