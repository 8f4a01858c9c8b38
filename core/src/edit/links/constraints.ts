import { placeOfId, replacedAt, withMore, type Constraint, type Project, type Result } from '../../project';
import { compileAfter } from '../../evaluate';
import { CONSTRAINTS, constraintRefusal } from '../../rig';
import { refused } from './refused';

export type ConstraintName = Constraint['kind'];
/** What is said of a new constraint besides its part; everything else has its default. */
export type ConstraintWish = Readonly<Record<string, unknown>>;

/** A project with one more constraint, or why it can't have it, in one sentence: a ring, a chain that does not hang together. */
export function addConstraint(
  project: Project,
  kind: ConstraintName,
  part: string,
  wish: ConstraintWish,
): Result<{ readonly project: Project; readonly id: string }> {
  const defaults = Object.entries(CONSTRAINTS[kind].fields).flatMap(([name, { fallback }]) =>
    fallback === undefined ? [] : [[name, fallback] as const],
  );
  const taken = new Set(project.constraints.map(({ id }) => id));
  let id = `${kind}-${part}`;
  for (let n = 2; taken.has(id); n++) id = `${kind}-${part}-${n}`;
  const made = {
    id,
    kind,
    part,
    muted: false,
    ...Object.fromEntries(defaults),
    ...wish,
  } as unknown as Constraint;
  const next = { ...project, constraints: withMore(project.constraints, made) };
  const problems = problemsOf(project, next, made);
  return problems ?? { ok: true, value: { project: next, id } };
}

/** Changes one constraint; refused in one sentence where the whole would not hold together any more. */
export function changeConstraint(project: Project, id: string, wish: ConstraintWish): Result<Project> {
  const i = placeOfId(project.constraints, id);
  const old = project.constraints[i];
  if (!old) return refused(`there is no constraint ${id}`);
  const made = { ...old, ...wish };
  const next = { ...project, constraints: replacedAt(project.constraints, i, made) };
  return problemsOf(project, next, made) ?? { ok: true, value: next };
}

export function removeConstraint(project: Project, id: string): Project {
  const constraints = project.constraints.filter((each) => each.id !== id);
  return constraints.length === project.constraints.length ? project : { ...project, constraints };
}

/** Puts a constraint one place earlier or later among those of its part: each acts on what the one before left. */
export function moveConstraint(project: Project, id: string, by: -1 | 1): Project {
  const at = placeOfId(project.constraints, id);
  const part = project.constraints[at]?.part;
  const places = project.constraints.flatMap((each, i) => (each.part === part ? [i] : []));
  const other = places[places.indexOf(at) + by];
  if (at < 0 || other === undefined) return project;
  const constraints = project.constraints.slice();
  [constraints[at], constraints[other]] = [constraints[other]!, constraints[at]!];
  return { ...project, constraints };
}

/** The frames of a constraint with one end, or both, moved; a start never goes past its end. Without a span it stays as it is. */
export function moveSpan(constraint: Constraint, end: 'start' | 'end' | 'both', by: number): ConstraintWish {
  if (!('start' in constraint) || !('end' in constraint)) return {};
  const { start, end: last } = constraint;
  if (end === 'both') return { start: start + by, ...(last === null ? {} : { end: last + by }) };
  if (end === 'start') return { start: last === null ? start + by : Math.min(start + by, last) };
  return last === null ? {} : { end: Math.max(last + by, start) };
}

function problemsOf(
  before: Project,
  project: Project,
  constraint: Constraint,
): Extract<Result<never>, { ok: false }> | null {
  const refusal = constraintRefusal(constraint);
  if (refusal) return refused(refusal.message);
  const compiled = compileAfter(before, project);
  return compiled.ok ? null : { ok: false, problems: compiled.problems };
}
