import type { Problem, Project } from '../project';
import { jsonPointer } from '../project';

/** What the file format allows and this version does not evaluate yet: said, never passed over. */
export function unsupportedProblems(project: Project): Problem[] {
  const problems: Problem[] = [];
  project.constraints.forEach((constraint, i) => {
    if (constraint.muted) return;
    problems.push({
      notYet: true,
      pointer: jsonPointer('constraints', i),
      message: `this Kaizen does not compute "${constraint.kind}" constraints yet; the constraint must be muted or taken out`,
    });
  });
  project.arrangement.forEach((placement, i) => {
    if (placement.muted) return;
    problems.push({
      notYet: true,
      pointer: jsonPointer('arrangement', i),
      message:
        'this Kaizen does not play clips over time yet; the placement must be muted or taken out, or one clip played by itself',
    });
  });
  return problems;
}
