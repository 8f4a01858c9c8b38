import type { Project, Vec3 } from '../project';
import { channelName } from '../project';
import { translateOf } from '../rig';
import type { Program } from '../evaluate';
import { curveOf, type KeyRef } from './curves';
import { insertKeys } from './insert-key';
import { keyValues, type KeyedValue } from './keys';

const PLACES = ['translate.x', 'translate.y', 'translate.z'] as const;

/** The place channels of a part that have keys and can be changed: what a hand on its motion trail moves. */
export function trailChannels(project: Project, program: Program, part: string): readonly string[] {
  return PLACES.map((property) => channelName(part, property)).filter((channel) => {
    const curve = curveOf(project, channel);
    const slot = program.structure.slots.get(channel);
    return curve && !curve.locked && slot !== undefined && !program.isDriven(slot);
  });
}

/** A key on each place channel of a part at a frame, without changing its way. */
export function insertTrailKeys(project: Project, channels: readonly string[], frame: number): Project {
  return insertKeys(
    project,
    channels.map((channel): KeyRef => ({ channel, frame })),
  );
}

/**
 * Moves a part's keys at a frame by a shift in the world (metres): the channels' values change by the shift as its parent
 * sees it. Only channels that have keys are moved; where one has none at the frame it gets it.
 */
export function moveTrailKey(
  project: Project,
  program: Program,
  part: string,
  frame: number,
  shift: Vec3,
): Project {
  const { structure } = program;
  const index = structure.parts.findIndex(({ id }) => id === part);
  if (index < 0) return project;
  const above = structure.hierarchy.parents[index]!;
  let parent: Float64Array | null = null;
  if (above >= 0) program.worldMatrix(above, frame, (parent = new Float64Array(16)));
  const by = translateOf(shift, parent);
  const values = trailChannels(project, program, part).flatMap((channel): KeyedValue[] => {
    const change = by['xyz'.indexOf(channel.at(-1)!)]!;
    const slot = structure.slots.get(channel)!;
    const value = program.baseValue(slot, frame) + change;
    return Math.abs(change) < 1e-9 ? [] : [{ channel, frame, value: Math.round(value * 1e7) / 1e7 }];
  });
  const keyed = insertTrailKeys(
    project,
    values.map(({ channel }) => channel),
    frame,
  );
  return keyValues(keyed, values);
}
