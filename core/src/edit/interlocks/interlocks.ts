import type { Interlock, Project, Result } from '../../project';
import { interlockProblems, interlockRing, ringMessage } from '../../file';
import { refused } from '../links/refused';

/** What is said of an interlock that is made; everything else has its default. */
export type InterlockWish = Pick<Interlock, 'channel' | 'frame' | 'after'> & Partial<Interlock>;

/**
 * A project in which a key of the clip that plays waits for another key, or for a value to be passed; or why it can't, in one
 * sentence. The key itself is moved by `holdInterlocks`, as after any edit.
 */
export function addInterlock(
  project: Project,
  wish: InterlockWish,
): Result<{ readonly project: Project; readonly id: string }> {
  const taken = new Set(project.interlocks.map(({ id }) => id));
  let id = 'interlock';
  for (let n = 2; taken.has(id); n++) id = `interlock-${n}`;
  const made: Interlock = { clip: project.activeClip, gap: 0, exact: false, muted: false, ...wish, id };
  const checked = withInterlocks(project, [...project.interlocks, made]);
  return checked.ok ? { ok: true, value: { project: checked.value, id } } : checked;
}

/** Changes one interlock; refused in one sentence where it could not hold together any more. */
export function changeInterlock(
  project: Project,
  id: string,
  wish: Partial<Omit<Interlock, 'id'>>,
): Result<Project> {
  const changed = project.interlocks.map((each) => (each.id === id ? { ...each, ...wish } : each));
  return withInterlocks(project, changed);
}

export function removeInterlock(project: Project, id: string): Project {
  const interlocks = project.interlocks.filter((each) => each.id !== id);
  return interlocks.length === project.interlocks.length ? project : { ...project, interlocks };
}

function withInterlocks(project: Project, interlocks: readonly Interlock[]): Result<Project> {
  const next = { ...project, interlocks };
  const ring = interlockRing(next);
  if (ring) return refused(ringMessage(ring));
  const [problem] = interlockProblems(next);
  return problem ? refused(problem.message) : { ok: true, value: next };
}
