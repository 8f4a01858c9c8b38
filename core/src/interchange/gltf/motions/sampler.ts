import { LIMITS } from '../../../file';
import type { GltfAnimationSampler } from '../document';
import type { AccessorNumbers } from '../read-accessors';

export type Interpolation = GltfAnimationSampler['interpolation'];

/**
 * Keys of a glTF sampler: frames that rise, and one vector of `size` numbers a key. Of CUBICSPLINE also the tangents before and
 * after each key, in units per frame.
 */
export interface Keyed {
  readonly interpolation: Interpolation;
  readonly frames: Float64Array;
  readonly size: number;
  readonly values: Float64Array;
  readonly before: Float64Array;
  readonly after: Float64Array;
}

/** Times are put on a whole frame that is nearer than this: they were rounded to single precision, or to a ten-thousandth of a second. */
const SNAP_FRAMES = 2e-3;

/** What makes a sampler unreadable, in words; the rest of the file does not suffer from it. */
export type Unreadable = string;

/**
 * Reads a sampler whose keys have `size` numbers each. `framesPerSecond` and `start` turn its seconds into frames.
 */
export function readSampler(
  interpolation: Interpolation,
  input: AccessorNumbers,
  output: AccessorNumbers,
  size: number,
  framesPerSecond: number,
  start: number,
): Keyed | Unreadable {
  const count = input.array.length;
  const cubic = interpolation === 'CUBICSPLINE';
  if (count === 0) return 'it has no keys';
  if (output.array.length !== count * size * (cubic ? 3 : 1))
    return `it has ${output.array.length} numbers for ${count} keys of ${size}`;
  const frames = Float64Array.from(input.array, (seconds) => onFrame(start + seconds * framesPerSecond));
  for (let i = 0; i < count; i++) {
    if (!Number.isFinite(frames[i]!)) return 'its times are not finite';
    if (Math.abs(frames[i]! - start) > LIMITS.rangeFrames)
      return `it lasts longer than the ${LIMITS.rangeFrames} frames that a shot may have`;
    if (i > 0 && !(input.array[i]! > input.array[i - 1]!)) return 'its times do not rise';
  }
  for (let i = count - 2; i >= 0; i--) frames[i] = Math.min(frames[i]!, frames[i + 1]! - LEAST_GAP);
  const numbers = plain(output);
  if (!numbers.every(Number.isFinite)) return 'its values are not finite';
  const block = cubic ? 3 : 1;
  const take = (part: number, factor: number) => {
    const taken = new Float64Array(count * size);
    for (let i = 0; i < count; i++)
      for (let n = 0; n < size; n++) taken[i * size + n] = numbers[(i * block + part) * size + n]! * factor;
    return taken;
  };
  const none = new Float64Array(0);
  return {
    interpolation,
    frames,
    size,
    values: take(cubic ? 1 : 0, 1),
    before: cubic ? take(0, 1 / framesPerSecond) : none,
    after: cubic ? take(2, 1 / framesPerSecond) : none,
  };
}

/** Two keys that stand for a jump are apart by this: keys of a curve must be by a little less (contract §2). */
const LEAST_GAP = 4e-6;

function onFrame(frame: number): number {
  const whole = Math.round(frame);
  return Math.abs(frame - whole) <= SNAP_FRAMES ? whole + 0 : frame;
}

/** Whole numbers that stand for shares are made shares (glTF 2.0, 3.11). */
function plain({ array, normalized }: AccessorNumbers): Float64Array {
  const most = normalized ? MOST.get(array.constructor) : undefined;
  return most === undefined
    ? Float64Array.from(array)
    : Float64Array.from(array, (n) => Math.max(-1, n / most));
}

const MOST: ReadonlyMap<unknown, number> = new Map<unknown, number>([
  [Int8Array, 127],
  [Uint8Array, 255],
  [Int16Array, 32767],
  [Uint16Array, 65535],
]);

const RATES = [24, 25, 30, 48, 50, 60] as const;

/** The rate at which every time of a file lies on a whole frame, the usual ones in order; the first where none does. */
export function rateOfTimes(times: readonly ArrayLike<number>[]): number {
  const fits = (rate: number) =>
    times.every((list) =>
      Array.prototype.every.call(list, (seconds: number) => {
        const frame = seconds * rate;
        return Math.abs(frame - Math.round(frame)) <= SNAP_FRAMES;
      }),
    );
  return RATES.find(fits) ?? RATES[0];
}
