import type { Axis, Part, Pose, Project } from '../project';
import { channelKind, channelName, partProperties, splitChannel, type ChannelKind } from '../project';
import type { Program } from '../evaluate';

/** A value for each of some channels. */
export type PoseValues = ReadonlyMap<string, number>;

/** The pose of some parts at a frame: every channel's value by its curve, driven channels left out. */
export function poseAt(
  program: Program,
  project: Project,
  parts: readonly string[],
  frame: number,
): PoseValues {
  const wanted = new Set(parts);
  const pose = new Map<string, number>();
  for (const part of project.parts) {
    if (!wanted.has(part.id)) continue;
    for (const { property } of partProperties(part)) {
      const channel = channelName(part.id, property);
      const slot = program.structure.slots.get(channel);
      if (slot !== undefined && !program.isDriven(slot)) pose.set(channel, program.baseValue(slot, frame));
    }
  }
  return pose;
}

/** The part of a pose that is of some kinds. */
export function poseOfKinds(pose: PoseValues, kinds: readonly ChannelKind[]): PoseValues {
  return new Map(
    [...pose].filter(([channel]) => kinds.includes(channelKind(splitChannel(channel).property))),
  );
}

/**
 * A pose mirrored across the plane through the parent's origin that stands on an axis: places change their side of it, turns about the other two axes
 * their sense. A part whose id says left or right gives its pose to its counterpart, where there is one.
 */
export function mirroredPose(project: Project, pose: PoseValues, across: Axis): PoseValues {
  const parts = new Map(project.parts.map((part) => [part.id, part]));
  const mirrored = new Map<string, number>();
  for (const [channel, value] of pose) {
    const { part: id, property } = splitChannel(channel);
    const part = parts.get(id);
    if (!part) continue;
    const target = parts.get(counterpart(id) ?? '') ?? part;
    mirrored.set(channelName(target.id, property), mirroredValue(part, target, property, value, across));
  }
  return mirrored;
}

function mirroredValue(part: Part, target: Part, property: string, value: number, across: Axis): number {
  const axis = property.at(-1);
  if (property.startsWith('translate.') && axis === across) {
    const i = 'xyz'.indexOf(across);
    return 0 - value - part.pivot[i]! - target.pivot[i]!;
  }
  return property.startsWith('rotate.') && axis !== across ? 0 - value : value;
}

const SIDES: readonly (readonly [RegExp, string])[] = [
  [/(^|[._-])left($|[._-])/i, '$1right$2'],
  [/(^|[._-])right($|[._-])/i, '$1left$2'],
];

/** The id with left and right exchanged, or null where it says neither. */
function counterpart(id: string): string | null {
  const side = SIDES.find(([pattern]) => pattern.test(id));
  return side ? id.replace(side[0], side[1]) : null;
}

/** Keeps a pose on the project's shelf; one of the same id is replaced. */
export function keepPose(project: Project, pose: Pose): Project {
  const others = project.poses.filter(({ id }) => id !== pose.id);
  return { ...project, poses: [...others, pose] };
}

export function removePose(project: Project, id: string): Project {
  const poses = project.poses.filter((pose) => pose.id !== id);
  return poses.length === project.poses.length ? project : { ...project, poses };
}

export function renamePose(project: Project, id: string, name: string): Project {
  return { ...project, poses: project.poses.map((pose) => (pose.id === id ? { ...pose, name } : pose)) };
}
