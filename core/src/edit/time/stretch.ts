import type { Project } from '../../project';
import { retime, type SlopesKeep, type TimeEdit } from './retime';
import { keepsOrder, mapFrame, shiftFrame, type TimeKnot } from './time-map';

export interface Span {
  readonly start: number;
  readonly end: number;
}

/**
 * Stretches a span of time on some channels to another span. `rest`: what lies after goes along by as much as the end
 * moves, and what lies before by as much as the start, or both stay.
 */
export function stretch(
  project: Project,
  channels: readonly string[],
  from: Span,
  to: Span,
  rest: 'follows' | 'stays',
  slopes: SlopesKeep,
): TimeEdit {
  const knots = [
    { from: from.start, to: to.start },
    { from: from.end, to: to.end },
  ];
  if (!keepsOrder({ knots })) return { project, channels: 0, keys: 0, refused: channels };
  const inside = (frame: number) => frame >= from.start && frame <= from.end;
  return retime(
    project,
    channels,
    (frame) => (rest === 'follows' || inside(frame) ? mapFrame({ knots }, frame) : frame),
    slopes,
  );
}

/** The span that a span becomes by a factor about its start, or about a frame. */
export function scaledSpan(span: Span, factor: number, about: number = span.start): Span {
  const scale = (frame: number) => shiftFrame(about, (frame - about) * factor);
  return { start: scale(span.start), end: scale(span.end) };
}

/**
 * Stakes: fixed points of time, at least two, each with where it goes. Time is stretched between neighbours; what lies
 * before the first and after the last goes along by whole.
 */
export function moveStakes(
  project: Project,
  channels: readonly string[],
  stakes: readonly TimeKnot[],
  slopes: SlopesKeep,
): TimeEdit {
  const knots = [...stakes].sort((a, b) => a.from - b.from);
  if (knots.length < 2) return { project, channels: 0, keys: 0, refused: [] };
  if (!keepsOrder({ knots })) return { project, channels: 0, keys: 0, refused: channels };
  return retime(project, channels, (frame) => mapFrame({ knots }, frame), slopes);
}
