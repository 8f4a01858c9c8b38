/**
 * Where frames go in an edit of time: knots from old to new frames, straight between them, whole shifts outside the first
 * and the last.
 */
interface TimeMap {
  readonly knots: readonly TimeKnot[];
}

export interface TimeKnot {
  readonly from: number;
  readonly to: number;
}

/** A frame that stands on so many decimals is meant to. */
const TIDY = 1e6;

/** A frame moved by a number of frames. Decimal frames stay decimal, so that going there and back gives the very same. */
export function shiftFrame(frame: number, by: number): number {
  const sum = frame + by;
  return isTidy(frame) && isTidy(by) ? Math.round(sum * TIDY) / TIDY : sum;
}

function isTidy(frame: number): boolean {
  return Math.round(frame * TIDY) / TIDY === frame;
}

/** Where a frame goes. */
export function mapFrame({ knots }: TimeMap, frame: number): number {
  const [first] = knots;
  const last = knots.at(-1);
  if (!first || !last) return frame;
  if (frame <= first.from) return shiftFrame(frame, first.to - first.from);
  if (frame >= last.from) return shiftFrame(frame, last.to - last.from);
  const i = knots.findIndex((knot) => knot.from > frame);
  const [a, b] = [knots[i - 1]!, knots[i]!];
  if (frame === a.from) return a.to;
  if (b.to - a.to === b.from - a.from) return shiftFrame(frame, a.to - a.from);
  return a.to + ((frame - a.from) * (b.to - a.to)) / (b.from - a.from);
}

/** Whether a map keeps the order of all frames: its knots rise on both sides. */
export function keepsOrder({ knots }: TimeMap): boolean {
  return knots.every((knot, i) => {
    const last = knots[i - 1];
    return !last || (knot.from > last.from && knot.to > last.to);
  });
}

/** Where a frame goes when a span is cut out: inside it, to its start. */
export function cutFrame(span: { readonly start: number; readonly end: number }, frame: number): number {
  if (frame >= span.end) return shiftFrame(frame, shiftFrame(span.start, -span.end));
  return Math.min(frame, span.start);
}
