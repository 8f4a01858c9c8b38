import { firstAfter } from '../project';
import { curveValue, LEG_HOLD, LEG_POLYNOMIAL, LEG_STRIDE, type CompiledCurve } from '../curve';

/**
 * Numbers a key has in `legs`: [start, end, length of the leg after it, value, k1, k2, k3, its place], value + τ(k1 + τ(k2 + τ·k3)).
 * A curve has the same numbers in `current`, those of the leg it was in last. Eight are one line of the processor's cache.
 */
const STRIDE = 8;
/** So many frames before the first key and after the last a hold lies flat too: more than any range has. */
const REACH = 2 ** 30;
/** A leg of this length is no polynomial: the curve itself is asked. */
const NOT_FLAT = 0;
/** Added to a held value it gives that very value: 0 would make 0 of −0. */
const NO_CHANGE = -0;

/**
 * Many curves in a few flat arrays, so that evaluating all of them at a frame walks through memory instead of jumping about:
 * each curve keeps the leg it was in last at hand, and while playing most curves stay in their leg from frame to frame.
 * Only legs that are polynomials in τ lie flat (holds, cubics of reach 1/3, linear, free fall), and the time outside the keys where
 * the curve holds; everything else is asked of the compiled curve.
 *
 * One store serves a project through all its edits: it belongs to one list of curves at a time, and where another list asks,
 * only the curves that differ are laid anew.
 */
export class FlatCurves {
  private laid: readonly CompiledCurve[] = [];
  private starts = new Int32Array(0);
  /** Legs of a curve, the time before its first key and after its last among them; 0 where it does not lie flat. */
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
      if (this.isIn(i, frame) || !this.enter(i, frame) || this.current[i * STRIDE + 2] === NOT_FLAT)
        channels[slots[i]!] = curveValue(curves[i]!, frame);
      else channels[slots[i]!] = this.legValue(i * STRIDE, frame);
    }
  }

  /** The values of all curves that are still in their leg, in a loop without a call; gives how many wait for more. */
  private inTheirLegs(slots: Int32Array, frame: number, channels: Float64Array): number {
    const { current, waiting } = this;
    const count = this.laid.length;
    let others = 0;
    for (let i = 0, at = 0; i < count; i++, at += STRIDE) {
      const since = frame - current[at]!;
      const length = current[at + 2]!;
      if (since >= 0 && since < length) {
        const tau = since / length;
        channels[slots[i]!] =
          current[at + 3]! + tau * (current[at + 4]! + tau * (current[at + 5]! + tau * current[at + 6]!));
      } else waiting[others++] = i;
    }
    return others;
  }

  /** Whether a frame is in the leg at hand: one that does not lie flat, where the curve waits. */
  private isIn(i: number, frame: number): boolean {
    const at = i * STRIDE;
    return frame >= this.current[at]! && frame < this.current[at + 1]!;
  }

  private legValue(at: number, frame: number): number {
    const { current } = this;
    const tau = (frame - current[at]!) / current[at + 2]!;
    return current[at + 3]! + tau * (current[at + 4]! + tau * (current[at + 5]! + tau * current[at + 6]!));
  }

  /** Takes the leg around a frame at hand; false where the curve does not lie flat or the frame is too far from its keys. */
  private enter(i: number, frame: number): boolean {
    const { times, legs, current } = this;
    const start = this.starts[i]!;
    const end = start + this.counts[i]!;
    const at = i * STRIDE;
    // Playing goes on in the next leg, which lies beside the last one; elsewhere the leg is looked for.
    const next = current[at + 7]! + 1;
    let leg = next * STRIDE;
    if (!(next > start && next < end && frame >= legs[leg]! && frame < legs[leg + 1]!)) {
      const after = firstAfter(times, frame, start, end);
      leg = (after - 1) * STRIDE;
      if (after === start || !(frame < legs[leg + 1]!)) return false;
    }
    for (let n = 0; n < STRIDE; n++) current[at + n] = legs[leg + n]!;
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
    const current = new Float64Array(count * STRIDE);
    current.set(this.current);
    this.current = current;
    if (!first) return;
    const total = curves.reduce((sum, curve) => sum + curve.keys.times.length + 1, 0);
    this.times = new Float64Array(total);
    this.legs = new Float64Array(total * STRIDE);
  }

  private layOne(curve: CompiledCurve, i: number): void {
    const { times, values, legs, kinds } = curve.keys;
    const count = times.length;
    this.current[i * STRIDE] = Infinity;
    if (curve.muted || curve.treated || count === 0) {
      this.counts[i] = 0;
      return;
    }
    if (count + 1 > this.room[i]!) this.place(i, count + 1);
    const start = this.starts[i]!;
    this.counts[i] = count + 1;
    const [first, last] = [times[0]!, times[count - 1]!];
    this.layHold(start, first - REACH, first, heldOutside(curve, first, 'before'));
    for (let key = 0; key < count - 1; key++) {
      const from = key * LEG_STRIDE;
      const kind = kinds[key]!;
      const polynomial = kind === LEG_POLYNOMIAL;
      const length = polynomial || kind === LEG_HOLD ? legs[from + 5]! : NOT_FLAT;
      const to = this.layLeg(start + 1 + key, times[key]!, times[key + 1]!, length, values[key]!);
      if (polynomial) for (let n = 0; n < 3; n++) this.legs[to + n] = legs[from + n]!;
    }
    this.layHold(start + count, last, last + REACH, heldOutside(curve, last, 'after'));
  }

  private layHold(place: number, start: number, end: number, value: number | null): void {
    this.layLeg(place, start, end, value === null ? NOT_FLAT : end - start, value ?? 0);
  }

  /** Lays a leg that stays at its value; gives where its k1 is. */
  private layLeg(place: number, start: number, end: number, length: number, value: number): number {
    const { legs } = this;
    const to = place * STRIDE;
    this.times[place] = start;
    legs[to] = start;
    legs[to + 1] = end;
    legs[to + 2] = length;
    legs[to + 3] = value;
    legs[to + 4] = legs[to + 5] = legs[to + 6] = NO_CHANGE;
    legs[to + 7] = place;
    return to + 4;
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

/** What a curve is beyond its outer key, where it stays there as it is at the key; else null. */
function heldOutside(curve: CompiledCurve, edge: number, side: 'before' | 'after'): number | null {
  const { keys } = curve;
  if (keys.times.length > 1 && keys[side].mode !== 'hold') return null;
  const value = curveValue(curve, side === 'before' ? edge - 1 : edge + 1);
  return Object.is(value, curveValue(curve, edge)) ? value : null;
}
