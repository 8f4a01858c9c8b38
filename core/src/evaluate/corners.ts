import {
  activeClip,
  isTransform,
  partOf,
  TRANSFORM_PROPERTIES,
  type Curve,
  type Placement,
  type Project,
} from '../project';
import { curveCorners, mappedChannel } from '../curve';
import { driverReads } from '../drive';
import { constraintReads, constraintSpan } from '../rig';

/** More corners than this in one track are not kept apart; the fit finds them by halving. */
const MOST_CORNERS = 20000;
/** So far after a frame, in frames, lies what comes just after it. */
const JUST_AFTER = 1e-4;

/** What moves in a finished shot, by name. */
export interface ShotOf {
  readonly project: Project;
  /** This clip alone; undefined: the arrangement, or without one the active clip. */
  readonly clip?: string | undefined;
}

/** Frames in [start, end] where a channel may jump or bend: the corners of its curves, and of those of what drives it. */
export function channelCorners(shot: ShotOf, channel: string, start: number, end: number): number[] {
  const collector = new CornerCollector(shot, start, end);
  collector.channel(channel, 0);
  return collector.inOrder();
}

/** The same for a part's world matrix: of its own channels, its parents', and what its constraints read. */
export function matrixCorners(shot: ShotOf, part: string, start: number, end: number): number[] {
  const collector = new CornerCollector(shot, start, end);
  collector.matrix(part, 0);
  return collector.inOrder();
}

class CornerCollector {
  private readonly found: Set<number>;
  private readonly seen = new Set<string>();
  private readonly waiting: (() => void)[] = [];

  constructor(
    private readonly shot: ShotOf,
    private readonly start: number,
    private readonly end: number,
  ) {
    this.found = new Set([start, end]);
  }

  inOrder(): number[] {
    for (let next = this.waiting.pop(); next; next = this.waiting.pop()) next();
    return [...this.found]
      .filter((frame) => frame >= this.start && frame <= this.end)
      .sort((a, b) => a - b)
      .filter((frame, i, list) => i === 0 || frame - list[i - 1]! > 1e-7 || i === list.length - 1);
  }

  private add(frame: number): void {
    if (this.found.size < MOST_CORNERS) this.found.add(frame);
  }

  private isNew(what: string, shift: number): boolean {
    const mark = `${what} ${shift}`;
    if (this.seen.has(mark)) return false;
    this.seen.add(mark);
    return true;
  }

  channel(channel: string, shift: number): void {
    if (!this.isNew(channel, shift)) return;
    for (const frame of this.baseCorners(channel, this.start - shift, this.end - shift))
      this.add(frame + shift);
    for (const driver of this.shot.project.drivers) {
      if (driver.muted || driver.target !== channel) continue;
      const late = shift + (driver.kind === 'echo' ? driver.delay : 0);
      if (driver.kind === 'echo')
        for (const bound of [driver.from, driver.to]) if (bound !== null) this.add(bound + late);
      for (const { names, id } of driverReads(driver))
        this.waiting.push(() => (names === 'channel' ? this.channel(id, late) : this.matrix(id, late)));
    }
  }

  matrix(part: string, shift: number): void {
    if (!this.isNew(part, shift)) return;
    const { project } = this.shot;
    const parent = partOf(project, part)?.parent;
    if (parent !== undefined && parent !== null) this.waiting.push(() => this.matrix(parent, shift));
    for (const property of TRANSFORM_PROPERTIES)
      if (isTransform(property)) this.channel(`${part}/${property}`, shift);
    for (const constraint of project.constraints) {
      const bends = constraint.kind === 'reach' && constraint.middle === part;
      if (constraint.muted || (constraint.part !== part && !bends)) continue;
      const span = constraintSpan(constraint);
      for (const edge of [span?.start, span?.end])
        if (typeof edge === 'number') for (const frame of [edge, edge + JUST_AFTER]) this.add(frame + shift);
      if (constraint.kind === 'plant') this.add(constraint.end + shift);
      for (const { names, id } of constraintReads(constraint))
        this.waiting.push(() => (names === 'channel' ? this.channel(id, shift) : this.matrix(id, shift)));
    }
  }

  private baseCorners(channel: string, start: number, end: number): number[] {
    const { project, clip } = this.shot;
    if (clip === undefined && project.arrangement.length > 0)
      return project.arrangement.flatMap((placement) =>
        placement.muted ? [] : placedCorners(project, placement, channel, start, end),
      );
    const from = clip === undefined ? activeClip(project) : project.clips.find(({ id }) => id === clip);
    const curve = from?.curves.find((each) => each.channel === channel && !each.muted);
    return curve ? curveCorners(curve, start, end) : [];
  }
}

/** Corners that a placed clip brings to a channel: of its cover, fades and weight, and its curve's through all passes. */
function placedCorners(
  project: Project,
  placement: Placement,
  channel: string,
  start: number,
  end: number,
): number[] {
  const clip = project.clips.find(({ id }) => id === placement.clip);
  const curve = clip?.curves.find(
    (each) => !each.muted && mappedChannel(placement.partMap, each.channel) === channel,
  );
  if (!curve) return [];
  const list = [placement.start, placement.start + placement.fadeIn];
  if (typeof placement.weight !== 'number') list.push(...curveCorners(asCurve(placement.weight), start, end));
  if (placement.time) return [...list, ...curveCorners(asCurve(placement.time), start, end)];
  const { from, to, speed, repeats } = placement;
  const pass = (to - from) / Math.abs(speed);
  const last = placement.start + repeats * pass;
  list.push(last, last - placement.fadeOut);
  const inner = curveCorners(curve, from, to);
  const firstPass = Math.max(0, Math.floor((start - placement.start) / pass));
  for (let n = firstPass; placement.start + n * pass <= Math.min(end, last); n++) {
    if (list.length > MOST_CORNERS) break;
    const begin = placement.start + n * pass;
    list.push(
      begin,
      ...inner.map((frame) => begin + (speed < 0 ? to - frame : frame - from) / Math.abs(speed)),
    );
  }
  return list;
}

function asCurve(keyed: Pick<Curve, 'keys' | 'before' | 'after'>): Curve {
  return { ...keyed, channel: '', treatments: [], muted: false, locked: false };
}
