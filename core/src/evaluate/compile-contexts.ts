import type { Project } from '../project';
import type { DriverContext } from '../drive';
import type { ConstraintContext } from '../rig';
import { TRANSFORM_VALUES, type Structure } from './structure';

/** What a project's drivers are compiled against. */
export function driverContext(project: Project, structure: Structure): DriverContext {
  return {
    slot: (channel) => structure.slots.get(channel) ?? -1,
    part: (id) => structure.partIndex.get(id) ?? -1,
    rest: (slot) => structure.rest.at(slot),
    pivot: (part) => structure.parts[part]!.pivot,
    secondsPerFrame: project.rate.per / project.rate.frames,
    gravity: project.gravity,
  };
}

/** What a project's constraints are compiled against. */
export function constraintContext(project: Project, structure: Structure): ConstraintContext {
  return {
    slot: (channel) => structure.slots.get(channel) ?? -1,
    part: (id) => structure.partIndex.get(id) ?? -1,
    pivot: (part) => structure.parts[part]!.pivot,
    parent: (part) => structure.hierarchy.parents[part]!,
    transformSlots: (part) => {
      const first = structure.firstSlot[part]!;
      return Array.from({ length: TRANSFORM_VALUES }, (_, i) => first + i);
    },
    points: (part) => {
      const described = structure.parts[part]!;
      return described.kind === 'path' ? described.path : null;
    },
    secondsPerFrame: project.rate.per / project.rate.frames,
    range: project.range,
  };
}
