import {
  channelKind,
  channelName,
  curveOf,
  isOnOff,
  keyAtFrame,
  partProperties,
  splitChannel,
  withDescendants,
  type ChannelKind,
  type Curve,
  type Part,
  type Project,
} from '@kaizen/core';
import type { BenchState, NewKeys } from '../../state/bench';
import type { LooseEdit } from '../../state/document';

/**
 * What Key here keys: what is chosen (see `channelsToKey`), one kind of the chosen parts, all of them, with all below them, what is animated of
 * them and below, or only keys that stand at the playhead already.
 */
export type KeyWhich = 'chosen' | ChannelKind | 'part' | 'below' | 'animated' | 'existing';

const POSED: readonly ChannelKind[] = ['place', 'turn', 'size'];

/** The channels that Key here keys at a frame. */
export function channelsToKey(
  project: Project,
  bench: Pick<BenchState, 'channels' | 'parts'>,
  loose: readonly LooseEdit[],
  frame: number,
  which: KeyWhich,
): readonly string[] {
  const parts = chosenParts(project, bench, which === 'below' || which === 'animated');
  const of = channelsOf(parts);
  const animated = (channel: string) => curveOf(project, channel) !== undefined;
  switch (which) {
    case 'chosen':
      return chosen(project, bench, loose, frame, of);
    case 'part':
    case 'below':
      return of.filter(
        (channel) =>
          POSED.includes(kindOf(channel)) || isOnOff(splitChannel(channel).property) || animated(channel),
      );
    case 'animated':
      return of.filter(animated);
    case 'existing':
      return of.filter((channel) => {
        const curve = curveOf(project, channel);
        return curve && keyAtFrame(curve, frame);
      });
    case 'place':
    case 'turn':
    case 'size':
    case 'squash':
    case 'look':
    case 'custom':
      return of.filter((channel) => kindOf(channel) === which);
  }
}

/** The chosen channels, else the loose ones at the playhead, else what is animated of the chosen parts, else their place and turn. */
function chosen(
  project: Project,
  { channels, parts }: Pick<BenchState, 'channels' | 'parts'>,
  loose: readonly LooseEdit[],
  frame: number,
  of: readonly string[],
): readonly string[] {
  if (channels.length > 0) return channels;
  const waiting = loose.filter(
    (edit) => edit.frame === frame && (parts.length === 0 || parts.includes(splitChannel(edit.channel).part)),
  );
  if (waiting.length > 0) return waiting.map(({ channel }) => channel);
  const animated = of.filter((channel) => curveOf(project, channel));
  return animated.length > 0 ? animated : of.filter((channel) => ['place', 'turn'].includes(kindOf(channel)));
}

function kindOf(channel: string): ChannelKind {
  return channelKind(splitChannel(channel).property);
}

/** The chosen parts, or those of the chosen channels; with all below them where asked. */
function chosenParts(
  project: Project,
  { channels, parts }: Pick<BenchState, 'channels' | 'parts'>,
  below: boolean,
): readonly Part[] {
  const named = parts.length > 0 ? parts : channels.map((channel) => splitChannel(channel).part);
  const wanted = new Set(below ? named.flatMap((id) => withDescendants(project.parts, id)) : named);
  return project.parts.filter(({ id }) => wanted.has(id));
}

function channelsOf(parts: readonly Part[]): readonly string[] {
  return parts.flatMap((part) => partProperties(part).map(({ property }) => channelName(part.id, property)));
}

/** Whether a new key is made as new keys are asked to be: outside the keys, and between them where that is anything special. */
export function takesStyle(curve: Curve | undefined, frame: number, { mode, leg }: NewKeys): boolean {
  const [first, last] = [curve?.keys[0], curve?.keys.at(-1)];
  const inside = first && last && frame >= first.frame && frame <= last.frame;
  return !inside || mode !== 'smooth' || leg.kind !== 'curve';
}
