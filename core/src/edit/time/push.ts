import type { Project } from '../../project';

import { changeCurves, withKeys } from '../curves';
import { openChannels, retime, type SlopesKeep, type TimeEdit } from './retime';
import { shiftFrame } from './time-map';

/**
 * Push: every key after a frame moves later (or, by a negative number, earlier), or every key before it moves earlier. The
 * key on the frame itself stays.
 */
export function push(
  project: Project,
  channels: readonly string[],
  at: number,
  by: number,
  what: 'after' | 'before',
  slopes: SlopesKeep = 'speed',
): TimeEdit {
  const moves = (frame: number) => (what === 'after' ? frame > at : frame < at);
  return retime(project, channels, (frame) => (moves(frame) ? shiftFrame(frame, by) : frame), slopes);
}

/** Opens a gap of some frames: what stands at the frame or after it moves later. */
export function openGap(
  project: Project,
  channels: readonly string[],
  at: number,
  frames: number,
  slopes: SlopesKeep = 'speed',
): TimeEdit {
  return retime(project, channels, (frame) => (frame >= at ? shiftFrame(frame, frames) : frame), slopes);
}

/** Cuts a span out of time: keys from its start up to its end go, what stands at its end or after it moves to its start. */
export function closeGap(
  project: Project,
  channels: readonly string[],
  start: number,
  end: number,
  slopes: SlopesKeep = 'speed',
): TimeEdit {
  if (end <= start) return { project, channels: 0, keys: 0, refused: [] };
  let gone = 0;
  const cut = changeCurves(project, openChannels(project, channels), (curve) => {
    const kept = curve.keys.filter(({ frame }) => frame < start || frame >= end);
    gone += curve.keys.length - kept.length;
    return kept.length === curve.keys.length ? curve : withKeys(curve, kept);
  });
  const moved = retime(
    cut,
    channels,
    (frame) => (frame >= end ? shiftFrame(frame, shiftFrame(start, -end)) : frame),
    slopes,
  );
  return moved.refused.length > 0 ? { ...moved, project } : { ...moved, keys: moved.keys + gone };
}
