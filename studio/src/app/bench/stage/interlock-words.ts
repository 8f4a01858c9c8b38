import { curveOf, keyEvent, keyIndexAt, type Awaited, type Interlock, type Project } from '@kaizen/core';
import { shownFrame } from '../../ui/amount';
import { channelLabel } from './channel-label';

const PASSES: Readonly<Record<Extract<Awaited, { kind: 'passes' }>['way'], string>> = {
  up: 'rises past',
  down: 'falls past',
  either: 'passes',
};

/** What a key waits for, in words: "Skip, place X stops at f 132". */
export function awaitedWords(project: Project, after: Awaited): string {
  const { full, unit } = channelLabel(project, after.channel);
  if (after.kind === 'passes') {
    const time = after.nth > 1 ? `, time ${after.nth}` : '';
    return `${full} ${PASSES[after.way]} ${`${shownFrame(after.value)} ${unit}`.trim()}${time}`;
  }
  const curve = curveOf(project, after.channel);
  const event = curve ? keyEvent(curve, keyIndexAt(curve, after.frame)) : 'passes';
  return `${full} ${event === 'passes' ? 'is' : event} at f ${shownFrame(after.frame)}`;
}

/** How long a key waits, in words: "6 f after", "at once when", "5 f before". */
export function gapWords({ gap, exact }: Pick<Interlock, 'gap' | 'exact'>): string {
  if (gap === 0) return exact ? 'just when' : 'once';
  const frames = `${shownFrame(Math.abs(gap))} f ${gap > 0 ? 'after' : 'before'}`;
  return exact ? `just ${frames}` : frames;
}

/** An interlock's rule in words, for the row of its thread. */
export function ruleWords(project: Project, lock: Interlock): string {
  return `${gapWords(lock)} ${awaitedWords(project, lock.after)}`;
}
