import { splitChannel, type Project } from '@kaizen/core';
import { groupBy } from '../../ui/group-by';
import { channelLabel } from './channel-label';
import { namedApart } from './named-apart';

/** So many parts are named in a sentence; of more it tells how many. */
const MOST_NAMED = 3;

/** Whether channels are of several parts, so that a sentence about some of them must say whose they are. */
export function ofSeveralParts(channels: readonly string[]): boolean {
  return new Set(channels.map((channel) => splitChannel(channel).part)).size > 1;
}

/**
 * Channels as a sentence lists them: by their own names (“place X, Y, turn Z”) where one part is spoken of, else under their
 * part's (“Wheel turn Y · Pump place X, Y”).
 */
export function channelsTold(project: Project, channels: readonly string[], withParts: boolean): string {
  if (!withParts) return propertiesTold(project, channels);
  const byPart = groupBy(channels, (channel) => splitChannel(channel).part);
  const names = new Map(namedApart(project.parts).map(({ id, name }) => [id, name]));
  const named = [...byPart]
    .slice(0, MOST_NAMED)
    .map(([part, own]) => `${names.get(part) ?? part} ${propertiesTold(project, own)}`);
  const more = byPart.size - named.length;
  if (more > 0) named.push(`${more} more ${more === 1 ? 'part' : 'parts'}`);
  return named.join(' · ');
}

/** Axes of one kind stand behind its name: “place X, Y”. */
function propertiesTold(project: Project, channels: readonly string[]): string {
  let before = '';
  return channels
    .map((channel) => {
      const { plain, short } = channelLabel(project, channel);
      const told = plain === before && short.startsWith(`${plain} `) ? short.slice(plain.length + 1) : short;
      before = plain;
      return told;
    })
    .join(', ');
}
