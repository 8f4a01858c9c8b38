import { jsonPointer, splitChannel, type Interlock, type Problem, type Project } from '../project';
import { driverReads } from '../drive';
import { constraintReads } from '../rig';

/** Frames nearer than this are one. */
const SAME_FRAME = 1e-6;

/**
 * What is wrong with the interlocks of a project whose names are known to be right: a key that is not there, a key that waits for
 * one of its own channel, and rings, in which each waits for the next.
 */
export function interlockProblems(project: Project): Problem[] {
  const problems: Problem[] = [];
  project.interlocks.forEach(({ clip, channel, frame, after }, i) => {
    const at = jsonPointer('interlocks', i);
    if (!hasKey(project, clip, channel, frame))
      problems.push({ pointer: at + '/frame', message: noKey(channel, frame) });
    if (after.kind === 'key' && !hasKey(project, clip, after.channel, after.frame))
      problems.push({ pointer: at + '/after/frame', message: noKey(after.channel, after.frame) });
    if (after.channel === channel)
      problems.push({
        pointer: at + '/after/channel',
        message: `the key waits for its own channel, ${channel}; it must wait for another`,
      });
  });
  if (problems.length > 0) return problems;
  const ring = interlockRing(project);
  return ring ? [{ pointer: '/interlocks', message: ringMessage(ring) }] : [];
}

function noKey(channel: string, frame: number): string {
  return `${channel} has no key at frame ${frame} in the clip; an interlock ties keys that are there`;
}

function hasKey(project: Project, clip: string, channel: string, frame: number): boolean {
  const curves = project.clips.find(({ id }) => id === clip)?.curves;
  const keys = curves?.find((curve) => curve.channel === channel)?.keys;
  return keys?.some((key) => Math.abs(key.frame - frame) <= SAME_FRAME) ?? false;
}

/** A ring of interlocks in words: what waits for what. */
export function ringMessage(ring: readonly Interlock[]): string {
  const names = ring.map(({ channel, frame }) => `${channel} at frame ${frame}`);
  return `the interlocks run in a ring: ${[...names, names[0]!].join(' waits for ')}; none of them could ever begin`;
}

/**
 * The members of a ring among the interlocks, each waiting for the next; null where there is none. A key that waits takes the keys
 * after it along, up to the next one of its channel that waits, so these stand for one thing. A value that is passed hangs on all
 * keys of its channel and of what drives it.
 */
export function interlockRing(project: Project): readonly Interlock[] | null {
  const { interlocks } = project;
  const done = new Set<Interlock>();
  const upstream = new Map<string, ReadonlySet<string>>();
  const reads = (channel: string) => {
    let known = upstream.get(channel);
    if (!known) upstream.set(channel, (known = channelsBehind(project, channel)));
    return known;
  };
  const awaits = (lock: Interlock): readonly Interlock[] => {
    const { after, clip } = lock;
    const others = interlocks.filter((each) => each.clip === clip);
    if (after.kind === 'passes') return others.filter(({ channel }) => reads(after.channel).has(channel));
    const starts = others.filter((each) => each.channel === after.channel && each.frame <= after.frame);
    const last = Math.max(...starts.map(({ frame }) => frame));
    return starts.filter(({ frame }) => frame === last);
  };
  const walk = (lock: Interlock, path: readonly Interlock[]): readonly Interlock[] | null => {
    const at = path.indexOf(lock);
    if (at >= 0) return path.slice(at);
    if (done.has(lock)) return null;
    for (const next of awaits(lock)) {
      const ring = walk(next, [...path, lock]);
      if (ring) return ring;
    }
    done.add(lock);
    return null;
  };
  for (const lock of interlocks) {
    const ring = walk(lock, []);
    if (ring) return ring;
  }
  return null;
}

/** A channel with all whose keys can change its value: what its drivers read, and what drives and places that. */
function channelsBehind(project: Project, channel: string): ReadonlySet<string> {
  const seen = new Set<string>();
  const parts = new Set<string>();
  const visitPart = (id: string) => {
    if (parts.has(id)) return;
    parts.add(id);
    for (const clip of project.clips)
      for (const curve of clip.curves) if (splitChannel(curve.channel).part === id) visit(curve.channel);
    for (const driver of project.drivers) if (splitChannel(driver.target).part === id) visit(driver.target);
    for (const constraint of project.constraints)
      if (constraint.part === id) constraintReads(constraint).forEach(visitNaming);
    const parent = project.parts.find((part) => part.id === id)?.parent;
    if (parent) visitPart(parent);
  };
  const visitNaming = ({ names, id }: { readonly names: string; readonly id: string }) => {
    if (names === 'channel') visit(id);
    else if (names === 'part') visitPart(id);
  };
  const visit = (name: string) => {
    if (seen.has(name)) return;
    seen.add(name);
    for (const driver of project.drivers)
      if (driver.target === name) driverReads(driver).forEach(visitNaming);
  };
  visit(channel);
  return seen;
}
