import { changeFields, type Project } from '../../project';
import { PROJECT } from '../../file';
import { driverReads } from '../../drive';
import type { Edited } from '../mapping';

/** What names a channel that has a free name (a shape's, an own number's) under its new name: curves, drivers, poses. */
export function channelRenamed(project: Project, before: string, after: string): Edited {
  return {
    project: changeFields(PROJECT, project, (value, field) =>
      field.names === 'channel' && value === before ? after : value,
    ),
    mapping: { curve: (of) => (of === before ? after : of) },
  };
}

/** A project without what names a channel that is gone: its curves, the drivers that give or read it, its values in poses. */
export function channelRemoved(project: Project, channel: string): Edited {
  const without: Project = {
    ...project,
    clips: project.clips.map((clip) => ({
      ...clip,
      curves: clip.curves.filter((curve) => curve.channel !== channel),
    })),
    drivers: project.drivers.filter(
      (driver) => driver.target !== channel && !driverReads(driver).some(({ id: read }) => read === channel),
    ),
    poses: project.poses.flatMap((pose) => {
      const values = Object.entries(pose.values).filter(([of]) => of !== channel);
      return values.length === 0 ? [] : [{ ...pose, values: Object.fromEntries(values) }];
    }),
  };
  return { project: without, mapping: { curve: (of) => (of === channel ? null : of) } };
}
