import { placeOfId, replacedAt, withMore, type Driver, type Project, type Result } from '../../project';
import { DRIVERS, driverRefusal } from '../../drive';
import { compileAfter } from '../../evaluate';
import { refused } from '../links/refused';

export type DriverName = Driver['kind'];
/** What is said of a driver besides its target; everything else has its default. */
export type DriverWish = Readonly<Record<string, unknown>>;

/**
 * A project with one more driver of a channel, acting after those it has; or why it can't have it, in one sentence: a ring, a formula
 * that can't be read, a mechanism that does not go together.
 */
export function addDriver(
  project: Project,
  kind: DriverName,
  target: string,
  wish: DriverWish,
): Result<{ readonly project: Project; readonly id: string }> {
  const defaults = Object.entries(DRIVERS[kind].fields).flatMap(([name, { fallback }]) =>
    fallback === undefined ? [] : [[name, fallback] as const],
  );
  const taken = new Set(project.drivers.map(({ id }) => id));
  const base = `${kind}-${target.replace(/[^A-Za-z0-9._-]/g, '-')}`;
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
  const made = {
    id,
    kind,
    target,
    combine: 'replace',
    muted: false,
    ...Object.fromEntries(defaults),
    ...wish,
  } as unknown as Driver;
  const next = { ...project, drivers: withMore(project.drivers, made) };
  return problemsOf(project, next, made) ?? { ok: true, value: { project: next, id } };
}

/** Changes one driver; refused in one sentence where the whole would not hold together any more. */
export function changeDriver(project: Project, id: string, wish: DriverWish): Result<Project> {
  const i = placeOfId(project.drivers, id);
  const old = project.drivers[i];
  if (!old) return refused(`there is no driver ${id}`);
  const made = { ...old, ...wish };
  const next = { ...project, drivers: replacedAt(project.drivers, i, made) };
  return problemsOf(project, next, made) ?? { ok: true, value: next };
}

export function removeDriver(project: Project, id: string): Project {
  const drivers = project.drivers.filter((each) => each.id !== id);
  return drivers.length === project.drivers.length ? project : { ...project, drivers };
}

/** Puts a driver one place earlier or later among those of its channel: each acts on what the one before left. */
export function moveDriver(project: Project, id: string, by: -1 | 1): Project {
  const at = placeOfId(project.drivers, id);
  const target = project.drivers[at]?.target;
  const places = project.drivers.flatMap((each, i) => (each.target === target ? [i] : []));
  const other = places[places.indexOf(at) + by];
  if (at < 0 || other === undefined) return project;
  const drivers = project.drivers.slice();
  [drivers[at], drivers[other]] = [drivers[other]!, drivers[at]!];
  return { ...project, drivers };
}

function problemsOf(
  before: Project,
  project: Project,
  driver: Driver,
): Extract<Result<never>, { ok: false }> | null {
  const refusal = driverRefusal(driver);
  if (refusal) return refused(refusal.message);
  const compiled = compileAfter(before, project);
  return compiled.ok ? null : compiled;
}
