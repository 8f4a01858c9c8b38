import { activeClip, splitChannel, type Project } from '../../project';
import { constraintReads, withDescendants } from '../../rig';
import { driverReads } from '../../drive';

/**
 * A part with all that rides on it as a project of its own: its curves in the clip that plays, and the drivers and constraints that
 * stay among these parts. What reaches outside is left.
 */
export function subProject(project: Project, id: string): Project {
  const inside = new Set(withDescendants(project.parts, id));
  const isInside = (names: string, of: string) =>
    names === 'channel' ? inside.has(splitChannel(of).part) : names !== 'part' || inside.has(of);
  const clip = activeClip(project);
  return {
    ...project,
    parts: project.parts
      .filter((part) => inside.has(part.id))
      .map((part) => (part.id === id ? { ...part, parent: null } : part)),
    clips: clip
      ? [{ ...clip, curves: clip.curves.filter(({ channel }) => inside.has(splitChannel(channel).part)) }]
      : [],
    drivers: project.drivers.filter(
      (driver) =>
        inside.has(splitChannel(driver.target).part) &&
        driverReads(driver).every(({ names, id: of }) => isInside(names, of)),
    ),
    constraints: project.constraints.filter(
      (each) =>
        inside.has(each.part) && constraintReads(each).every(({ names, id: of }) => isInside(names, of)),
    ),
    interlocks: project.interlocks.filter(
      ({ clip: of, channel, after }) =>
        of === clip?.id && isInside('channel', channel) && isInside('channel', after.channel),
    ),
    assets: project.assets,
    arrangement: [],
    markers: [],
    sounds: [],
    poses: [],
  };
}
