import {
  greatestOf,
  leastOf,
  activeClip,
  curvesByChannel,
  curvesOfPart,
  keyedSpan,
  openChannels,
  type KeyRef,
  type Project,
  type Span,
} from '@kaizen/core';
import type { BenchState } from '../../state/bench';

/** What an edit of time touches: channels, the chosen keys among them, and the span from the first key to the last. */
export interface TimeScope {
  readonly channels: readonly string[];
  readonly refs: readonly KeyRef[];
  readonly span: Span | null;
  /** Channels that would be touched, but are locked. */
  readonly locked: number;
  /** Nothing is chosen, or all was asked for: every channel that has keys. */
  readonly all: boolean;
}

export type Chosen = Pick<BenchState, 'keys' | 'channels' | 'parts'>;

/** The channels that the selection means: those of the chosen keys, else the chosen ones, else all of the chosen parts. */
function chosenChannels(project: Project, bench: Chosen): readonly string[] {
  if (bench.keys.length > 0) return [...new Set(bench.keys.map(({ channel }) => channel))];
  const curves = curvesByChannel(project);
  const chosen = bench.channels.filter((channel) => curves.has(channel));
  if (chosen.length > 0) return chosen;
  return project.parts
    .filter(({ id }) => bench.parts.includes(id))
    .flatMap((part) => curvesOfPart(project, part).map(({ channel }) => channel));
}

export function timeScope(project: Project, bench: Chosen & Pick<BenchState, 'time'>): TimeScope {
  const chosen = bench.time.scope === 'chosen' ? chosenChannels(project, bench) : [];
  const all = chosen.length === 0;
  const named = all ? (activeClip(project)?.curves ?? []).map(({ channel }) => channel) : chosen;
  const channels = openChannels(project, named);
  const open = new Set(channels);
  const refs = all ? [] : bench.keys.filter(({ channel }) => open.has(channel));
  const frames = refs.map(({ frame }) => frame);
  const curves = curvesByChannel(project);
  const spanning = new Set(frames).size > 1;
  if (!spanning) {
    frames.length = 0;
    for (const channel of channels) {
      const { first, last } = keyedSpan(curves.get(channel)!)!;
      frames.push(first, last);
    }
  }
  const locked = named.filter((channel) => curves.get(channel)?.locked).length;
  const span = frames.length > 0 ? { start: leastOf(frames), end: greatestOf(frames) } : null;
  return { channels, refs, span, locked, all };
}
