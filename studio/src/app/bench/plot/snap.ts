/** Within so many pixels a frame is drawn to a marker or a key of another row. */
const NEAR_PIXELS = 7;

export interface SnapTo {
  /** Whether frames are whole. */
  readonly whole: boolean;
  /** Frames that draw what is near to them: of markers, of keys of other rows. */
  readonly frames: readonly number[];
  readonly framesPerPixel: number;
}

/** Where a frame lands that was dragged: on the nearest target within reach, else on a whole frame, else on a thousandth. */
export function snapFrame(frame: number, { whole, frames, framesPerPixel }: SnapTo): number {
  let best: number | null = null;
  let reach = NEAR_PIXELS * framesPerPixel;
  for (const target of frames) {
    const distance = Math.abs(target - frame);
    if (distance <= reach) {
      reach = distance;
      best = target;
    }
  }
  if (best !== null) return best;
  return whole ? Math.round(frame) : Math.round(frame * 1000) / 1000;
}
