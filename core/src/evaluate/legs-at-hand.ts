import { Machine } from '../wasm';
import { BYTES, K1, K2, K3, LENGTH, legsInPairs, PAIR, START, VALUE } from './legs-in-pairs';

/**
 * Numbers a leg has among all: [start, end, length, value, k1, k2, k3], value + τ(k1 + τ(k2 + τ·k3)), and one that is not used: eight
 * are one line of the processor's cache.
 */
export const LEG_NUMBERS = 8;
/** Fewer curves are not worth the way into WebAssembly. */
const LEAST_COMPILED = 256;
const NONE = -1;

const machine = Machine.create();
const compiled = machine && legsInPairs(machine);

/**
 * Of many curves the leg that each was in last. While playing most stay in it from frame to frame, so that to give them their values is
 * one walk through memory, without a call; many curves are computed two at a time by WebAssembly, in its memory, which belongs to
 * whoever used it last. There lie, one after the other: the pairs, where the value of each curve goes, the curves that wait, and all
 * channels, those without a curve as they rest.
 */
export class LegsAtHand {
  private readonly pairs: number;
  private numbers: Float64Array<ArrayBuffer>;
  private channels: Float64Array<ArrayBuffer> = new Float64Array(0);
  /** Curves that were in no leg at hand at the last frame. */
  private waiting: Int32Array;
  /** The place of the leg of each curve among all legs. */
  private readonly places: Int32Array;
  private slotBytes = new Int32Array(0);
  private rest = new Float64Array(0);

  constructor(count: number) {
    this.pairs = (count + 1) >> 1;
    this.places = new Int32Array(2 * this.pairs).fill(NONE);
    const isSmall = !this.isCompiled();
    this.numbers = new Float64Array(isSmall ? this.pairs * PAIR : 0).fill(Infinity);
    this.waiting = new Int32Array(isSmall ? 2 * this.pairs : 0);
  }

  private isCompiled(): boolean {
    return compiled !== null && 2 * this.pairs >= LEAST_COMPILED;
  }

  /** To be called before anything else at a frame, with the slots of the curves and the rest values of all slots. */
  hold(slots: Int32Array, rest: Float64Array<ArrayBuffer>): void {
    const isOwn = machine?.owner === this || !this.isCompiled();
    if (isOwn && rest === this.rest) return;
    this.rest = rest;
    if (this.isCompiled()) this.layMemory(slots, isOwn);
  }

  private layMemory(slots: Int32Array, isOwn: boolean): void {
    const { pairs, rest } = this;
    const memory = machine!.room(pairs * (PAIR + 2) + rest.length + 1);
    machine!.owner = this;
    this.numbers = memory.subarray(0, pairs * PAIR);
    this.slotBytes = new Int32Array(memory.buffer, this.placesAt(), 2 * pairs);
    for (let i = 0; i < 2 * pairs; i++) this.slotBytes[i] = this.bytesOf(slots[i] ?? NONE);
    this.waiting = new Int32Array(memory.buffer, this.placesAt() + pairs * BYTES, 2 * pairs);
    this.channels = memory.subarray(pairs * (PAIR + 2), pairs * (PAIR + 2) + rest.length);
    this.channels.set(rest);
    if (isOwn) return;
    this.numbers.fill(Infinity);
    this.places.fill(NONE);
  }

  /** Where the value of a slot lies; that of a curve without one, such as the second of a pair that is one curve, behind all others. */
  private bytesOf(slot: number): number {
    return (slot === NONE ? this.rest.length : slot) * BYTES;
  }

  /** Says where the value of a curve goes from now on. */
  private point(curve: number, slot: number): void {
    const was = this.slotBytes[curve]! / BYTES;
    if (was < this.rest.length) this.channels[was] = this.rest[was]!;
    this.slotBytes[curve] = this.bytesOf(slot);
  }

  private placesAt(): number {
    return this.pairs * PAIR * BYTES;
  }

  /** The leg that a curve is in, or −1. */
  placeOf(curve: number): number {
    return this.places[curve]!;
  }

  /** A curve is in no leg, and its value goes to a slot, or nowhere where it is −1. */
  forget(curve: number, slot: number): void {
    this.places[curve] = NONE;
    this.numbers[at(curve)] = Infinity;
    if (this.isCompiled()) this.point(curve, slot);
  }

  /** Takes a leg at hand. */
  take(curve: number, legs: Float64Array, place: number): void {
    const { numbers } = this;
    const to = at(curve);
    const from = place * LEG_NUMBERS;
    this.places[curve] = place;
    numbers[to + START] = legs[from]!;
    numbers[to + LENGTH] = legs[from + 2]!;
    numbers[to + VALUE] = legs[from + 3]!;
    numbers[to + K1] = legs[from + 4]!;
    numbers[to + K2] = legs[from + 5]!;
    numbers[to + K3] = legs[from + 6]!;
  }

  /**
   * Writes the values of the first `count` curves that are still in their leg to their slots, and to all other slots what they rest at;
   * gives how many curves wait for more, which `waitingAt` tells.
   */
  run(count: number, frame: number, slots: Int32Array, channels: Float64Array): number {
    if (!this.isCompiled()) return this.runEach(count, frame, slots, channels);
    const end = ((count + 1) >> 1) * PAIR * BYTES;
    const placesAt = this.placesAt();
    const waitingAt = placesAt + this.pairs * BYTES;
    const others = compiled!(end, frame, placesAt, waitingAt + this.pairs * BYTES, waitingAt);
    channels.set(this.channels);
    // Where the number is odd, the last pair is one curve and nothing.
    return others > 0 && this.waiting[others - 1] === count ? others - 1 : others;
  }

  waitingAt(n: number): number {
    return this.waiting[n]!;
  }

  private runEach(count: number, frame: number, slots: Int32Array, channels: Float64Array): number {
    const { numbers, waiting } = this;
    channels.set(this.rest);
    let others = 0;
    for (let i = 0; i < count; i++) {
      const leg = at(i);
      const since = frame - numbers[leg + START]!;
      const length = numbers[leg + LENGTH]!;
      if (since >= 0 && since < length) channels[slots[i]!] = this.valueOf(leg, since / length);
      else waiting[others++] = i;
    }
    return others;
  }

  /** The value of a curve in its leg at a frame. */
  value(curve: number, frame: number): number {
    const leg = at(curve);
    return this.valueOf(leg, (frame - this.numbers[leg + START]!) / this.numbers[leg + LENGTH]!);
  }

  private valueOf(leg: number, tau: number): number {
    const { numbers } = this;
    return (
      numbers[leg + VALUE]! +
      tau * (numbers[leg + K1]! + tau * (numbers[leg + K2]! + tau * numbers[leg + K3]!))
    );
  }
}

/** Where the numbers of a curve's leg begin; one of each kind is two further. */
function at(curve: number): number {
  return (curve >> 1) * PAIR + (curve & 1);
}
