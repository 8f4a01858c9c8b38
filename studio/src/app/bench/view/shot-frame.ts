/** Room around the frame of the shot, so that what comes into it is seen: the frame takes at most these shares of the view. */
const MOST_HEIGHT = 0.78;
const MOST_WIDTH = 0.94;

/** Where the frame of a shot lies in a view: in its middle, as shares of its width and height. */
export interface ShotFrame {
  /** How much more than the frame the view sees, in height. */
  readonly scale: number;
  readonly width: number;
  readonly height: number;
}

/** The frame of some width to height in a view of another: as large as it may be, whole in any case. */
export function frameIn(viewAspect: number, frameAspect: number): ShotFrame {
  const height = Math.min(MOST_HEIGHT, (MOST_WIDTH * viewAspect) / frameAspect);
  return { scale: 1 / height, width: (height * frameAspect) / viewAspect, height };
}
