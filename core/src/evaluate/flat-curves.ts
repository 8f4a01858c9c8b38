import { firstAfter } from '../project';
import { curveValue, LEG_HOLD, LEG_POLYNOMIAL, LEG_STRIDE, type CompiledCurve } from '../curve';

/** Numbers a key has in `legs`: [length of the leg after it, value, k1, k2, k3], value + τ(k1 + τ(k2 + τ·k3)). */
const STRIDE = 5;
/** Numbers a curve has in `current`, the leg it was in last: [start, end, length, value, k1, k2, k3, key], one cache line. */
const CURRENT = 8;
/** A leg of this length is no polynomial: the curve itself is asked. */
const NOT_FLAT = 0;
/** Added to a held value it gives that very value: 0 would make 0 of −0. */
const NO_CHANGE = -0;

/**
 * Many curves in a few flat arrays, so that evaluating all of them at a frame walks through memory instead of jumping about:
 * each curve keeps the leg it was in last at hand, and while playing most curves stay in their leg from frame to frame.
 * Only legs that are polynomials in τ lie flat (holds, cubics of reach 1/3, linear, free fall); everything else, and what is
 * outside the keys or treated, is asked of the compiled curve.
 *
 * One store serves a project through all its edits: it belongs to one list of curves at a time, and where another list asks,
 * only the curves that differ are laid anew.
 */
export class FlatCurves {
  private laid: readonly CompiledCurve[] = [];
  private starts = new Int32Array(0);
  /** Keys of a curve, 0 where it does not lie flat. */
  private counts = new Int32Array(0);
  private room = new Int32Array(0);
  private current = new Float64Array(0);
  /** Curves that are not in their last leg at a frame. */
  private waiting = new Int32Array(0);
  private times = new Float64Array(0);
  private legs = new Float64Array(0);
  private used = 0;

  /** Writes the value of each curve at a frame into `channels` at its slot. */
  run(curves: readonly CompiledCurve[], slots: Int32Array, frame: number, channels: Float64Array): void {
    if (curves !== this.laid) this.lay(curves);
    const waiting = this.inTheirLegs(slots, frame, channels);
    for (let n = 0; n < waiting; n++) {
      const i = this.waiting[n]!;
      if (this.isIn(i, frame) || !this.enter(i, frame) || this.current[i * CURRENT + 2] === NOT_FLAT)
        channels[slots[i]!] = curveValue(curves[i]!, frame);
      else channels[slots[i]!] = this.legValue(i * CURRENT, frame);
    }
  }

  /** The values of all curves that are still in their leg, in a loop without a call; gives how many wait for more. */
  private inTheirLegs(slots: Int32Array, frame: number, channels: Float64Array): number {
    const { current, waiting } = this;
    const count = this.laid.length;
    let others = 0;
    for (let i = 0, at = 0; i < count; i++, at += CURRENT) {
      const start = current[at]!;
      const length = current[at + 2]!;
      if (frame >= start && frame < current[at + 1]! && length !== NOT_FLAT) {
        const tau = (frame - start) / length;
        channels[slots[i]!] =
          current[at + 3]! + tau * (current[at + 4]! + tau * (current[at + 5]! + tau * current[at + 6]!));
      } else waiting[others++] = i;
    }
    return others;
  }

  /** Whether a frame is in the leg at hand: one that does not lie flat, where the curve waits. */
  private isIn(i: number, frame: number): boolean {
    const at = i * CURRENT;
    return frame >= this.current[at]! && frame < this.current[at + 1]!;
  }

  private legValue(at: number, frame: number): number {
    const { current } = this;
    const tau = (frame - current[at]!) / current[at + 2]!;
    return current[at + 3]! + tau * (current[at + 4]! + tau * (current[at + 5]! + tau * current[at + 6]!));
  }

  /** Takes the leg around a frame at hand; false where the curve does not lie flat or the frame is outside its keys. */
  private enter(i: number, frame: number): boolean {
    const { times, legs, current } = this;
    const start = this.starts[i]!;
    const end = start + this.counts[i]! - 1;
    if (end <= start || !(frame >= times[start]! && frame < times[end]!)) return false;
    const at = i * CURRENT;
    // Playing goes on in the next leg, which lies beside the last one; elsewhere the leg is looked for.
    const next = current[at + 7]! + 1;
    const key =
      next > start && next < end && frame >= times[next]! && frame < times[next + 1]!
        ? next
        : firstAfter(times, frame, start, end) - 1;
    current[at + 7] = key;
    const leg = key * STRIDE;
    current[at] = times[key]!;
    current[at + 1] = times[key + 1]!;
    for (let n = 0; n < STRIDE; n++) current[at + 2 + n] = legs[leg + n]!;
    return true;
  }

  private lay(curves: readonly CompiledCurve[]): void {
    if (curves.length > this.starts.length) this.makeRoom(curves);
    for (let i = 0; i < curves.length; i++) {
      if (curves[i] !== this.laid[i]) this.layOne(curves[i]!, i);
    }
    this.laid = curves;
  }

  /** Room for so many curves and some more; what lies there stays. */
  private makeRoom(curves: readonly CompiledCurve[]): void {
    const first = this.starts.length === 0;
    const count = first ? curves.length : curves.length + (curves.length >> 2) + 8;
    const longer = (list: Int32Array): Int32Array<ArrayBuffer> => {
      const made = new Int32Array(count);
      made.set(list);
      return made;
    };
    this.starts = longer(this.starts);
    this.counts = longer(this.counts);
    this.room = longer(this.room);
    this.waiting = new Int32Array(count);
    const current = new Float64Array(count * CURRENT);
    current.set(this.current);
    this.current = current;
    if (!first) return;
    const total = curves.reduce((sum, curve) => sum + curve.keys.times.length, 0);
    this.times = new Float64Array(total);
    this.legs = new Float64Array(total * STRIDE);
  }

  private layOne(curve: CompiledCurve, i: number): void {
    const { times, values, legs, kinds } = curve.keys;
    const count = times.length;
    this.current[i * CURRENT + 1] = -Infinity;
    if (curve.muted || curve.treated || count < 2) {
      this.counts[i] = 0;
      return;
    }
    if (count > this.room[i]!) this.place(i, count);
    const start = this.starts[i]!;
    this.counts[i] = count;
    this.times.set(times, start);
    for (let key = 0; key < count - 1; key++) {
      const to = (start + key) * STRIDE;
      const from = key * LEG_STRIDE;
      const kind = kinds[key]!;
      const polynomial = kind === LEG_POLYNOMIAL;
      this.legs[to] = polynomial || kind === LEG_HOLD ? legs[from + 5]! : NOT_FLAT;
      this.legs[to + 1] = values[key]!;
      for (let n = 0; n < 3; n++) this.legs[to + 2 + n] = polynomial ? legs[from + n]! : NO_CHANGE;
    }
  }

  /** Gives a curve a place at the end, with room to grow; what it had stays unused. */
  private place(i: number, count: number): void {
    const room = this.room[i] === 0 ? count : count + (count >> 1) + 4;
    if (this.used + room > this.times.length) this.grow(this.used + room);
    this.starts[i] = this.used;
    this.room[i] = room;
    this.used += room;
  }

  private grow(least: number): void {
    const size = Math.max(least, this.times.length * 2);
    const times = new Float64Array(size);
    const legs = new Float64Array(size * STRIDE);
    times.set(this.times);
    legs.set(this.legs);
    this.times = times;
    this.legs = legs;
  }
}
