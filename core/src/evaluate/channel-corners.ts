import { driverInputs, type Curve, type Project } from '../project';
import { curveCorners } from '../curve';

/** More corners than this in one track are not kept apart; the fit finds them by halving. */
const MOST_CORNERS = 20000;

/** Frames in [start, end] where a channel may jump or bend: the corners of its curve, and of those of what drives it. */
export function channelCorners(
  project: Project,
  curves: readonly Curve[],
  channel: string,
  start: number,
  end: number,
): number[] {
  const found = new Set<number>([start, end]);
  collect(project, curves, channel, 0, start, end, found, new Set());
  return [...found]
    .filter((frame) => frame >= start && frame <= end)
    .sort((a, b) => a - b)
    .filter(apart);
}

function apart(frame: number, i: number, list: readonly number[]): boolean {
  return i === 0 || frame - list[i - 1]! > 1e-7 || i === list.length - 1;
}

function collect(
  project: Project,
  curves: readonly Curve[],
  channel: string,
  shift: number,
  start: number,
  end: number,
  found: Set<number>,
  seen: Set<string>,
): void {
  const mark = `${channel} ${shift}`;
  if (seen.has(mark)) return;
  seen.add(mark);
  const curve = curves.find((candidate) => candidate.channel === channel && !candidate.muted);
  if (curve)
    for (const frame of curveCorners(curve, start - shift, end - shift))
      if (found.size < MOST_CORNERS) found.add(frame + shift);
  for (const driver of project.drivers) {
    if (driver.muted || driver.target !== channel) continue;
    const late = driver.kind === 'echo' ? driver.delay : 0;
    for (const input of driverInputs(driver))
      collect(project, curves, input, shift + late, start, end, found, seen);
  }
}
