import { partOf, restValue, splitChannel, type Project } from '../../project';

/** What a channel shows where nothing animates it. */
export function restOf(project: Project, channel: string): number {
  const { part: id, property } = splitChannel(channel);
  const part = partOf(project, id);
  return (part && restValue(part, property)) ?? 0;
}
