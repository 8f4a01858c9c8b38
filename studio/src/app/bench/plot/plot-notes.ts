import {
  curveOf,
  secondsPerFrame,
  seamGaps,
  type Curve,
  type Limit,
  type Program,
  type Project,
  lastBefore,
  peakBeyond,
  type RateLine,
  limitBand,
} from '@kaizen/core';
import { decimalsOf, shownNumber, signedNumber } from '../../ui/amount';
import { legText } from '../stage/words';
import type { Strip } from './plot';

/** A leg that is not a curve, by name, from its key to the next. */
export interface LegNote {
  readonly from: number;
  readonly to: number;
  readonly text: string;
  readonly chosen: boolean;
}

/** How far what a strip draws jumps where a loop starts again: from one value to another. */
export interface GapNote {
  readonly frame: number;
  readonly before: number;
  readonly after: number;
  readonly text: string;
  readonly closed: boolean;
}

/** Where a rate is farthest beyond its limit. */
export interface BreachNote {
  readonly frame: number;
  readonly value: number;
  readonly text: string;
}

/** Below this a gap is none, in its unit. */
const CLOSED = 1e-6;

export function isClosed(gap: number): boolean {
  return Math.abs(gap) <= CLOSED;
}

/** The legs of a curve that are no curves and lie, in part, between two frames. */
export function legNotes(
  { keys }: Curve,
  from: number,
  to: number,
  isChosen: (frame: number) => boolean,
): readonly LegNote[] {
  return keys.slice(0, -1).flatMap((key, i): LegNote[] => {
    const next = keys[i + 1]!;
    if (key.leg.kind === 'curve' || next.frame < from || key.frame > to) return [];
    return [{ from: key.frame, to: next.frame, text: legText(key.leg), chosen: isChosen(key.frame) }];
  });
}

const GAPS = ['value', 'speed', 'acceleration', null] as const;

/** The gaps of one channel in what a strip of Rates draws, at the outer keys where it repeats. */
export function gapNotes(
  project: Project,
  program: Program,
  channel: string,
  strip: Pick<Strip, 'order' | 'unit'>,
  line: RateLine,
): readonly GapNote[] {
  const what = GAPS[strip.order];
  const slot = program.structure.slots.get(channel) ?? -1;
  const source = curveOf(project, channel);
  const compiled = program.curveAt(slot);
  if (!what || !source || !compiled || program.isDriven(slot)) return [];
  return seamGaps(source, compiled, secondsPerFrame(project.rate)).flatMap((gap): GapNote[] => {
    const before = lastBefore(line, strip.order, gap.frame);
    if (before === null) return [];
    const closed = isClosed(gap[what]);
    const text = closed ? 'gap 0' : `gap ${signedNumber(gap[what], decimalsOf(strip.unit))}`;
    return [{ frame: gap.frame, before, after: before + gap[what], text, closed }];
  });
}

/** Where a channel's rate is farthest beyond its limit between two frames; null where it stays within. */
export function breachNote(
  line: RateLine,
  strip: Pick<Strip, 'order' | 'unit' | 'told'>,
  limits: Limit | undefined,
  from: number,
  to: number,
): BreachNote | null {
  const band = strip.order > 0 ? limitBand(strip.order, limits) : null;
  const peak = band && peakBeyond(line, strip.order, band, from, to);
  return peak && { ...peak, text: `${shownNumber(peak.value, decimalsOf(strip.unit))} ${strip.told}` };
}
