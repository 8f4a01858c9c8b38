import { packedKeys, type Curve } from '@kaizen/core';

/** Whole frames are counted in a list where they lie no further apart than this: as many as a shot has, and more. */
const MOST_LISTED = 1_000_000;

/** How many keys stand on each frame. Nearly all keys are on whole frames near each other: these are counted in a list. */
export class FrameCounts {
  private listed = new Int32Array(0);
  /** The frame that the first number of the list counts. */
  private first = 0;
  private readonly others = new Map<number, number>();

  /** Counts the keys of a curve; by −1 takes them out again. */
  add(curve: Pick<Curve, 'keys'>, by: 1 | -1): void {
    const numbers = packedKeys(curve);
    if (numbers) for (let i = 0; i < numbers.length; i += 2) this.count(numbers[i]!, by);
    else for (const { frame } of curve.keys) this.count(frame, by);
  }

  /** The frames with a key, each once, rising. */
  frames(): Float64Array {
    const frames = [...this.others.keys()];
    for (let i = 0; i < this.listed.length; i++) if (this.listed[i]! > 0) frames.push(this.first + i);
    return Float64Array.from(frames).sort();
  }

  private count(frame: number, by: number): void {
    const place = frame - this.first;
    if (place >= 0 && place < this.listed.length && Number.isInteger(frame)) this.listed[place]! += by;
    else if (this.makeRoom(frame)) this.listed[frame - this.first]! += by;
    else {
      const sum = (this.others.get(frame) ?? 0) + by;
      if (sum > 0) this.others.set(frame, sum);
      else this.others.delete(frame);
    }
  }

  /** Makes the list long enough for a frame; false where it can't be. */
  private makeRoom(frame: number): boolean {
    if (!Number.isInteger(frame)) return false;
    const { listed } = this;
    const first = listed.length === 0 ? frame : this.first;
    // It grows to twice its length at least.
    const from = Math.min(first, frame - listed.length);
    const to = Math.max(first + listed.length, frame + listed.length, frame + 1);
    if (to - from > MOST_LISTED) return false;
    this.listed = new Int32Array(to - from);
    this.listed.set(listed, first - from);
    this.first = from;
    for (const [other, sum] of this.others) {
      if (!Number.isInteger(other) || other < from || other >= to) continue;
      this.listed[other - from] = sum;
      this.others.delete(other);
    }
    return true;
  }
}
