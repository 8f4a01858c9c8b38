import type { PlayMode } from '../../state/bench';

/** A playing playhead: a place in frames that need not be whole, and which way it runs. */
export interface Playing {
  readonly place: number;
  readonly direction: 1 | -1;
}

/** Frames that play, both included. */
export interface Span {
  readonly first: number;
  readonly last: number;
}

/** The place `frames` later, in a span, once, in a loop or forth and back; `done` at the end of playing once. */
export function advance(
  playing: Playing,
  frames: number,
  span: Span,
  mode: PlayMode,
): Playing & { readonly done: boolean } {
  const length = span.last - span.first + 1;
  const from = Math.min(Math.max(playing.place, span.first), span.first + length);
  if (mode === 'loop') {
    return {
      place: span.first + ((((from - span.first + frames) % length) + length) % length),
      direction: 1,
      done: false,
    };
  }
  if (mode === 'once') {
    const place = from + frames;
    const done = place >= span.last + 1;
    return { place: done ? span.last : place, direction: 1, done };
  }
  const reach = Math.max(1e-9, span.last - span.first);
  const along = (playing.direction === 1 ? from - span.first : 2 * reach - (from - span.first)) + frames;
  const turn = ((along % (2 * reach)) + 2 * reach) % (2 * reach);
  return turn < reach
    ? { place: span.first + turn, direction: 1, done: false }
    : { place: span.first + 2 * reach - turn, direction: -1, done: false };
}
