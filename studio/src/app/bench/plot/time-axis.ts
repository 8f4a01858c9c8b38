/** The frames a Chart shows, from its left edge to its right. */
export interface TimeAxis {
  readonly first: number;
  readonly last: number;
}

const LEAST_SPAN = 0.5;
const MOST_SPAN = 1e7;

/** Zooms about a frame that stays where it is; `factor` below 1 shows more. */
export function zoomAxis(axis: TimeAxis, at: number, factor: number): TimeAxis {
  const span = Math.min(MOST_SPAN, Math.max(LEAST_SPAN, (axis.last - axis.first) / factor));
  const share = (at - axis.first) / (axis.last - axis.first);
  return { first: at - share * span, last: at + (1 - share) * span };
}

export function panAxis(axis: TimeAxis, frames: number): TimeAxis {
  return { first: axis.first + frames, last: axis.last + frames };
}

/** Shows a span of frames with some room on both sides, more at the left, where the names and numbers of the strips stand. */
export function fitAxis(first: number, last: number): TimeAxis {
  const span = last - first;
  return { first: first - Math.max(1, span * 0.1), last: last + Math.max(1, span * 0.06) };
}

/** Steps for ruler marks that stay readable: 1, 2, 5, 10 frames, then whole and half seconds. */
export function rulerStep(
  axis: TimeAxis,
  width: number,
  framesPerSecond: number,
  leastPixels: number,
): number {
  const perPixel = (axis.last - axis.first) / Math.max(1, width);
  const second = Math.max(1, Math.round(framesPerSecond));
  const steps = [1, 2, 5, 10].filter((step) => step < second / 2);
  for (let seconds = 0.5; seconds < 1e6; seconds *= 2) steps.push(Math.max(1, Math.round(second * seconds)));
  return steps.find((step) => step / perPixel >= leastPixels) ?? steps.at(-1)!;
}
