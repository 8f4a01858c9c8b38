import { curvesByChannel, curvesOfPart, type Part, type Project } from '@kaizen/core';
import type { BenchState } from '../../state/bench';
import { namesOf } from './channel-names';

/** The channels whose curves the plot shows: one alone, else the chosen ones, else those of the chosen parts, else all. */
export function plottedChannels(
  project: Project,
  driven: ReadonlySet<string>,
  bench: Pick<BenchState, 'only' | 'channels' | 'parts' | 'pinned'>,
): readonly string[] {
  const meant = meantChannels(project, driven, bench);
  const curves = curvesByChannel(project);
  const pinned = bench.pinned.filter((channel) => curves.has(channel) || driven.has(channel));
  return bench.only !== null || pinned.length === 0 ? meant : [...new Set([...pinned, ...meant])];
}

/** What the selection means; where only pinned channels are left to draw, nothing. */
function meantChannels(
  project: Project,
  driven: ReadonlySet<string>,
  bench: Pick<BenchState, 'only' | 'channels' | 'parts' | 'pinned'>,
): readonly string[] {
  const curves = curvesByChannel(project);
  const lives = (channel: string) => curves.has(channel) || driven.has(channel);
  if (bench.only !== null && lives(bench.only)) return [bench.only];
  const chosen = bench.channels.filter(lives);
  if (chosen.length > 0) return chosen;
  const picked = new Set(bench.parts);
  const ofParts = channelsThat(
    lives,
    project.parts.filter(({ id }) => picked.has(id)),
  );
  if (ofParts.length > 0) return ofParts;
  if (bench.pinned.some(lives)) return [];
  return project.parts.flatMap((part) => curvesOfPart(project, part).map(({ channel }) => channel));
}

/** Those channels of parts that a test lets through. */
function channelsThat(test: (channel: string) => boolean, parts: readonly Part[]): string[] {
  const channels: string[] = [];
  for (const part of parts) for (const { id } of namesOf(part)) if (test(id)) channels.push(id);
  return channels;
}
