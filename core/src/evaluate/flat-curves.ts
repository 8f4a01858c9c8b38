import { firstAfter } from '../project';
import { curveValue, LEG_HOLD, LEG_POLYNOMIAL, LEG_STRIDE, type CompiledCurve } from '../curve';
import { LEG_NUMBERS, LegsAtHand } from './legs-at-hand';
import { longer } from './lists';

/** So many frames before the first key and after the last a hold lies flat too: more than any range has. */
const REACH = 2 ** 30;
/** A leg of this length is no polynomial: the curve itself is asked. */
const NOT_FLAT = 0;
const NO_SLOT = -1;
/** A curve that is not laid yet has so many legs. */
const NOT_LAID = -1;
/** So many curves are laid at a frame at most: a millisecond. */
const LAID_A_RUN = 250;
/** Added to a held value it gives that very value: 0 would make 0 of −0. */
const NO_CHANGE = -0;

/**
 * Many curves in a few flat arrays, so that evaluating all of them at a frame walks through memory instead of jumping about:
 * each curve keeps the leg it was in last at hand, and while playing most curves stay in their leg from frame to frame.
 * Only legs that are polynomials in τ lie flat (holds, cubics of reach 1/3, linear, free fall), and the time outside the keys where
 * the curve holds; everything else is asked of the compiled curve.
 */
export class FlatCurves {
  /** Curves that are others than at the last frame; null where all are. */
  private changed: number[] | null = null;
  /** Curves to be laid at a frame at which none has changed; until then they are asked themselves. */
  private toLay: number[] = [];
  private starts = new Int32Array(0);
  /** Legs of a curve, the time before its first key and after its last among them; 0 where it does not lie flat, −1 where it is not laid yet. */
  private counts = new Int32Array(0);
  private room = new Int32Array(0);
  private atHand = new LegsAtHand(0);
  private times = new Float64Array(0);
  private legs = new Float64Array(0);
  private used = 0;

  /** The curve at a place, or its slot, is another from now on, or there is none any more. */
  change(place: number): void {
    this.changed?.push(place);
    if (this.changed && this.changed.length > this.starts.length) this.changed = null;
  }

  /** Writes the value of each curve at a frame into `channels` at its slot, and to all other slots what they rest at. */
  run(
    curves: readonly CompiledCurve[],
    slots: Int32Array<ArrayBuffer>,
    rest: Float64Array<ArrayBuffer>,
    frame: number,
    channels: Float64Array,
  ): void {
    if (curves.length > this.starts.length) this.makeRoom(curves);
    const { atHand } = this;
    atHand.hold(slots, rest);
    if (this.changed?.length === 0) this.laySome(curves);
    else this.forgetChanged(curves, slots);
    const waiting = atHand.run(curves.length, frame, slots, channels);
    for (let n = 0; n < waiting; n++) {
      const i = atHand.waitingAt(n);
      channels[slots[i]!] = this.enter(i, frame) ? atHand.value(i, frame) : curveValue(curves[i]!, frame);
    }
  }

  /** Takes the leg around a frame at hand; false where it does not lie flat or the frame is too far from the keys. */
  private enter(i: number, frame: number): boolean {
    const { legs, atHand } = this;
    const count = this.counts[i]!;
    if (count <= 0) return false;
    const start = this.starts[i]!;
    const end = start + count;
    const last = atHand.placeOf(i);
    // Playing goes on in the next leg, which lies beside the last one, or stays in one that does not lie flat; elsewhere it is looked for.
    let place = last + 1;
    if (place <= start || place >= end || !this.isAround(place, frame)) {
      if (this.isAround(last, frame)) return legs[last * LEG_NUMBERS + 2] !== NOT_FLAT;
      place = firstAfter(this.times, frame, start, end) - 1;
      if (place < start || !this.isAround(place, frame)) return false;
    }
    atHand.take(i, legs, place);
    return legs[place * LEG_NUMBERS + 2] !== NOT_FLAT;
  }

  /** Whether a frame is in the leg at a place. */
  private isAround(place: number, frame: number): boolean {
    const at = place * LEG_NUMBERS;
    return place >= 0 && frame >= this.legs[at]! && frame < this.legs[at + 1]!;
  }

  private forgetChanged(curves: readonly CompiledCurve[], slots: Int32Array): void {
    const places = this.changed ?? Array.from(curves.keys());
    this.changed = [];
    for (const i of places) {
      this.atHand.forget(i, curves[i] ? slots[i]! : NO_SLOT);
      if (this.counts[i] !== NOT_LAID) this.toLay.push(i);
      this.counts[i] = NOT_LAID;
    }
  }

  private laySome(curves: readonly CompiledCurve[]): void {
    const { toLay } = this;
    for (let room = LAID_A_RUN; room > 0 && toLay.length > 0; room--) {
      const i = toLay.pop()!;
      const curve = curves[i];
      if (curve) this.layOne(curve, i);
      else this.counts[i] = 0;
    }
  }

  /** Room for so many curves and some more; what lies there stays. */
  private makeRoom(curves: readonly CompiledCurve[]): void {
    const first = this.starts.length === 0;
    this.starts = longer(this.starts, curves.length, 0);
    this.counts = longer(this.counts, curves.length, 0);
    this.room = longer(this.room, curves.length, 0);
    this.atHand = new LegsAtHand(this.starts.length);
    if (!first) return;
    const total = curves.reduce((sum, curve) => sum + curve.keys.times.length + 1, 0);
    this.times = new Float64Array(total);
    this.legs = new Float64Array(total * LEG_NUMBERS);
  }

  private layOne(curve: CompiledCurve, i: number): void {
    const { times, values, legs, kinds } = curve.keys;
    const count = times.length;
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
    const to = place * LEG_NUMBERS;
    this.times[place] = start;
    legs[to] = start;
    legs[to + 1] = end;
    legs[to + 2] = length;
    legs[to + 3] = value;
    legs[to + 4] = legs[to + 5] = legs[to + 6] = NO_CHANGE;
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
    const legs = new Float64Array(size * LEG_NUMBERS);
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
