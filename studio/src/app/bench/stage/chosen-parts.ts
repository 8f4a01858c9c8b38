import { partOf, type Part, type Project } from '@kaizen/core';

/** The parts that are chosen, as far as a project has them, the one chosen last at the end. */
export function chosenParts(project: Project | null, ids: readonly string[]): readonly Part[] {
  return project ? ids.flatMap((id) => partOf(project, id) ?? []) : [];
}
