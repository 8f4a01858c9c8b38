import {
  partOf,
  restValue,
  secondsPerFrame,
  splitChannel,
  type Awaited,
  type Interlock,
  type Project,
} from '../project';
import { compileCurve, curveValue } from '../curve';
import { compile } from './program';

/** A value that comes as near as this, as a share of it, has been reached. */
const REACHED = 1e-9;
/** So many frames are looked at; in a longer shot not every one. */
const MOST_FRAMES = 20_000;
/** Halvings of a step: a frame to one part in 10^12. */
const HALVINGS = 40;

/**
 * The frame at which what an interlock waits for has come: a key's frame, or the first moment at which the value, as driven, has
 * passed the given one, for the nth time in the shot. Null where it never comes.
 */
export function awaitedFrame(
  project: Project,
  { clip, after }: Pick<Interlock, 'clip' | 'after'>,
): number | null {
  if (after.kind === 'key') return after.frame;
  return momentsPassed(project, clip, after)[after.nth - 1] ?? null;
}

type Passing = Extract<Awaited, { kind: 'passes' }>;
const known = new WeakMap<Project, Map<string, readonly number[]>>();

/** The frames at which a channel passes a value, in their order: read on whole frames, the moment itself by halving between two. */
export function momentsPassed(
  project: Project,
  clip: string,
  { channel, value, way }: Pick<Passing, 'channel' | 'value' | 'way'>,
): readonly number[] {
  let ofProject = known.get(project);
  if (!ofProject) known.set(project, (ofProject = new Map<string, readonly number[]>()));
  const key = `${clip} ${channel} ${value} ${way}`;
  let moments = ofProject.get(key);
  if (!moments) {
    const valueAt = reader(project, clip, channel);
    ofProject.set(key, (moments = valueAt ? crossings(project, valueAt, value, way) : []));
  }
  return moments;
}

/** A channel's value over the frames of a clip: by its curve alone where nothing drives it. */
function reader(project: Project, clip: string, channel: string): ((frame: number) => number) | null {
  const driven = project.drivers.some(({ target, muted }) => target === channel && !muted);
  const curve = project.clips.find(({ id }) => id === clip)?.curves.find((each) => each.channel === channel);
  if (!driven && curve && !curve.muted) {
    const context = { secondsPerFrame: secondsPerFrame(project.rate), gravity: project.gravity };
    const { part, property } = splitChannel(channel);
    const owner = partOf(project, part);
    const compiled = compileCurve(curve, (owner && restValue(owner, property)) ?? 0, context);
    return (frame) => curveValue(compiled, frame);
  }
  const program = compile(project, { clip });
  const slot = program.ok ? program.value.structure.slots.get(channel) : undefined;
  return program.ok && slot !== undefined ? (frame) => program.value.channelValue(slot, frame) : null;
}

function crossings(
  { range }: Project,
  valueAt: (frame: number) => number,
  value: number,
  way: Passing['way'],
): readonly number[] {
  const near = REACHED * Math.max(1, Math.abs(value));
  const isUp = (frame: number) => valueAt(frame) >= value - near;
  const isDown = (frame: number) => valueAt(frame) <= value + near;
  const found: number[] = [];
  const step = Math.max(1, Math.ceil((range.end - range.start) / MOST_FRAMES));
  for (let frame = range.start; frame < range.end; frame += step) {
    const next = Math.min(frame + step, range.end);
    if (way !== 'down' && !isUp(frame) && isUp(next)) found.push(firstOf(frame, next, isUp));
    else if (way !== 'up' && !isDown(frame) && isDown(next)) found.push(firstOf(frame, next, isDown));
  }
  return found;
}

/** The first moment between two frames at which something has come that has not at the first and has at the last. */
function firstOf(first: number, last: number, hasCome: (frame: number) => boolean): number {
  let [low, high] = [first, last];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (hasCome(middle)) high = middle;
    else low = middle;
  }
  return Math.abs(high - Math.round(high)) < 1e-6 ? Math.round(high) : high;
}
