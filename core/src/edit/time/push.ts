import type { Project } from '../../project';

import { changeCurves, withKeys } from '../curves';
import { mappingOf, openChannels, retime, untouched, type SlopesKeep, type TimeEdit } from './retime';
import { cutFrame, shiftFrame } from './time-map';

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
  const map = (frame: number) => (moves(frame) ? shiftFrame(frame, by) : frame);
  return retime(project, channels, map, slopes, what === 'after' ? map : undefined);
}

/** Opens a gap of some frames: what stands at the frame or after it moves later. */
export function openGap(
  project: Project,
  channels: readonly string[],
  at: number,
  frames: number,
  slopes: SlopesKeep = 'speed',
): TimeEdit {
  const map = (frame: number) => (frame >= at ? shiftFrame(frame, frames) : frame);
  return retime(project, channels, map, slopes, map);
}

/** Cuts a span out of time: keys from its start up to its end go, what stands at its end or after it moves to its start. */
export function closeGap(
  project: Project,
  channels: readonly string[],
  start: number,
  end: number,
  slopes: SlopesKeep = 'speed',
): TimeEdit {
  if (end <= start) return untouched(project);
  const open = openChannels(project, channels);
  let gone = 0;
  const cut = changeCurves(project, open, (curve) => {
    const kept = curve.keys.filter(({ frame }) => frame < start || frame >= end);
    gone += curve.keys.length - kept.length;
    return kept.length === curve.keys.length ? curve : withKeys(curve, kept);
  });
  const earlier = (frame: number) => (frame >= end ? shiftFrame(frame, shiftFrame(start, -end)) : frame);
  const moved = retime(cut, channels, earlier, slopes);
  if (moved.refused.length > 0) return { ...moved, project };
  const isCut = (frame: number) => frame >= start && frame < end;
  const mapping = mappingOf(
    open,
    (frame) => (isCut(frame) ? null : earlier(frame)),
    (frame) => cutFrame({ start, end }, frame),
  );
  return { ...moved, mapping, keys: moved.keys + gone };
}
