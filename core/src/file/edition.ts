import type { Project } from '../project';
import { driverIsSecondEdition } from '../drive';
import { constraintIsSecondEdition } from '../rig';

/** The least edition of the format in which all of a project can be said. */
export function editionNeeded(project: Project): number {
  const second =
    project.drivers.some(driverIsSecondEdition) ||
    project.constraints.some(constraintIsSecondEdition) ||
    project.parts.some(
      (part) =>
        part.squash?.round !== undefined ||
        (part.kind === 'mesh' && part.morphs.some(({ moves }) => moves !== undefined)),
    );
  return second ? 2 : 1;
}
