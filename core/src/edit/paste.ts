import { leastOf, channelName, partOf, restValue, splitChannel, type Key, type Project } from '../project';
import { changeCurves, curveOf, framesByChannel, withKeys, type KeyRef } from './curves';
import { scaledSide } from './scaled-side';

/** Keys taken to be put elsewhere: frames relative to the first of all. */
export interface CopiedKeys {
  readonly curves: readonly { readonly channel: string; readonly keys: readonly Key[] }[];
}

/** Takes keys to be put elsewhere. */
export function copyKeys(project: Project, refs: readonly KeyRef[]): CopiedKeys {
  const frames = framesByChannel(refs);
  const first = leastOf(refs.map((ref) => ref.frame));
  const curves = [...frames].map(([channel, named]) => ({
    channel,
    keys: (curveOf(project, channel)?.keys ?? [])
      .filter((key) => named.has(key.frame))
      .map((key) => ({ ...key, frame: key.frame - first })),
  }));
  return { curves };
}

/** How copied keys are put down: as they are, or changed first. */
export interface PasteChange {
  /** Values and slopes multiplied by it; −1 negates them. */
  readonly times?: number;
  /** The value each channel's first pasted key gets, the others along with it; null where the channel keeps the copied values. */
  readonly startAt?: (channel: string) => number | null;
}

/** One channel's keys that go to the channel named. */
type Lists = readonly { readonly channel: string; readonly keys: readonly Key[] }[];

/** Puts copied keys at a frame, on their own channels or, for one channel's keys, on those of `targets`. */
export function pasteKeys(
  project: Project,
  copied: CopiedKeys,
  frame: number,
  targets: readonly string[] = [],
  change: PasteChange = {},
): { readonly project: Project; readonly refs: readonly KeyRef[] } {
  const single = copied.curves.length === 1 ? copied.curves[0] : undefined;
  const lists: Lists =
    single && targets.length > 0 ? targets.map((channel) => ({ channel, keys: single.keys })) : copied.curves;
  return putDown(project, lists, frame, change);
}

/** Puts the copied keys of parts on other parts: each target gets all channels of the copied part that it has too. */
export function pasteOntoParts(
  project: Project,
  copied: CopiedKeys,
  frame: number,
  parts: readonly string[],
  change: PasteChange = {},
): { readonly project: Project; readonly refs: readonly KeyRef[] } {
  const [first] = copied.curves;
  const source = first && splitChannel(first.channel).part;
  const own = copied.curves.map((curve) => ({ ...curve, ...splitChannel(curve.channel) }));
  const lists = project.parts
    .filter(({ id }) => parts.includes(id))
    .flatMap((part) =>
      own
        .filter((curve) => curve.part === source && restValue(part, curve.property) !== null)
        .map(({ property, keys }) => ({ channel: channelName(part.id, property), keys })),
    );
  return putDown(project, lists, frame, change);
}

/** Whether a channel is there still, and not locked. */
function takesKeys(project: Project, channel: string): boolean {
  const { part: id, property } = splitChannel(channel);
  const part = partOf(project, id);
  return part !== undefined && restValue(part, property) !== null && !curveOf(project, channel)?.locked;
}

function putDown(project: Project, lists: Lists, frame: number, { times = 1, startAt }: PasteChange) {
  const refs: KeyRef[] = [];
  const pasted = lists.reduce((at, { channel, keys }) => {
    if (!takesKeys(at, channel)) return at;
    const first = (keys[0]?.value ?? 0) * times;
    const shift = (startAt?.(channel) ?? first) - first;
    const moved = keys.map((key): Key => {
      const own = times === 1 ? key : scaled(key, times);
      return { ...own, frame: key.frame + frame, value: own.value + shift };
    });
    refs.push(...moved.map((key) => ({ channel, frame: key.frame })));
    return changeCurves(at, [channel], (curve) => withKeys(curve, [...curve.keys, ...moved]));
  }, project);
  return { project: pasted, refs };
}

function scaled(key: Key, times: number): Key {
  return {
    ...key,
    value: key.value * times,
    in: scaledSide(key.in, times),
    out: scaledSide(key.out, times),
  };
}
