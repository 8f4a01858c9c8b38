import type { Jet } from './law';
import { forgetting, springStep, takeStep, type SpringStep } from './spring';

/** A spring in frames: frequency in Hz, `start` and `loop` in frames. */
export interface FollowerSpring {
  readonly frequency: number;
  readonly damping: number;
  readonly start: number;
  readonly loop: number | null;
}

/** Gives x at a frame into `out`, one number a coordinate. */
export type Lead = (frame: number, out: Float64Array) => void;

/** Frames in a block; where each block begins is kept, and the frames of the blocks used last. */
const BLOCK = 64;
const MOST_BLOCKS = 40;
/** So many blocks back a spring is begun anew rather than carried from its start: what it began with is forgotten by then. */
const MOST_BLOCKS_BACK = 20;

interface Block {
  /** x at each frame of the block and the one after it, coordinate by coordinate. */
  readonly x: Float64Array;
  /** Places and speeds per second at each frame; empty until asked for. */
  y: Float64Array;
  v: Float64Array;
}

/**
 * The law of the driver `follow` and of a constraint's lag for some coordinates at once, at any frame. It is a pure function of
 * the frame: blocks of 64 frames each begin with a state that does not depend on what was asked before. A jump to a far frame
 * costs no more than the blocks that the spring remembers.
 */
export class Follower {
  private readonly blocks = new Map<number, Block>();
  private readonly begun = new Map<number, Float64Array>();
  private readonly step: SpringStep;
  private readonly back: number;
  private readonly reading: Float64Array;
  private readonly after = { place: 0, speed: 0 };
  /** How the loop begins; null where it is not known yet, false where there is no periodic solution. */
  private periodic: Float64Array | false | null = null;

  constructor(
    private readonly spring: FollowerSpring,
    private readonly count: number,
    private readonly secondsPerFrame: number,
    private readonly lead: Lead,
  ) {
    this.step = springStep(spring.frequency, spring.damping, secondsPerFrame);
    const seconds = forgetting(spring.frequency, spring.damping);
    this.back = Math.ceil(seconds / secondsPerFrame / BLOCK);
    this.reading = new Float64Array(count);
  }

  /** Places at a frame into `places`, speeds per second into `speeds`; false where a loop never settles. */
  at(frame: number, places: Float64Array, speeds: Float64Array): boolean {
    const { start, loop } = this.spring;
    let since = frame - start;
    if (loop !== null) since -= loop * Math.floor(since / loop);
    else if (since <= 0) {
      speeds.fill(0);
      this.lead(start, places);
      return true;
    }
    const number = Math.floor(since / BLOCK);
    const block = this.block(number);
    if (!block) return false;
    const inBlock = Math.min(BLOCK - 1, Math.floor(since - number * BLOCK));
    const rest = (since - number * BLOCK - inBlock) * this.secondsPerFrame;
    const part = rest === 0 ? null : springStep(this.spring.frequency, this.spring.damping, rest);
    for (let c = 0; c < this.count; c++) {
      const k = c * (BLOCK + 1) + inBlock;
      if (!part) {
        places[c] = block.y[k]!;
        speeds[c] = block.v[k]!;
      } else {
        takeStep(part, block.x[k]!, this.slope(block, k), block.y[k]!, block.v[k]!, this.after);
        places[c] = this.after.place;
        speeds[c] = this.after.speed;
      }
    }
    return true;
  }

  /** One coordinate with its derivatives per frame, just after the frame; not finite where `at` gives false. */
  jet(frame: number, coordinate = 0): Jet {
    const places = new Float64Array(this.count);
    const speeds = new Float64Array(this.count);
    if (!this.at(frame, places, speeds)) return [Number.NaN, Number.NaN, Number.NaN, Number.NaN];
    const { start, loop } = this.spring;
    let since = frame - start;
    if (loop !== null) since -= loop * Math.floor(since / loop);
    else if (since < 0) return [places[coordinate]!, 0, 0, 0];
    const number = Math.floor(since / BLOCK);
    const block = this.block(number)!;
    const inBlock = Math.min(BLOCK - 1, Math.floor(since - number * BLOCK));
    const k = coordinate * (BLOCK + 1) + inBlock;
    const slope = this.slope(block, k);
    const x = block.x[k]! + slope * (since - number * BLOCK - inBlock) * this.secondsPerFrame;
    const { omega, damping } = this.step;
    const [y, v] = [places[coordinate]!, speeds[coordinate]!];
    const pull = omega * omega * (x - y) - 2 * damping * omega * v;
    const jerk = omega * omega * (slope - v) - 2 * damping * omega * pull;
    const s = this.secondsPerFrame;
    return [y, v * s, pull * s * s, jerk * s ** 3];
  }

  /** The slope of x after an entry of a block, per second. */
  private slope(block: Block, k: number): number {
    return (block.x[k + 1]! - block.x[k]!) / this.secondsPerFrame;
  }

  private block(number: number): Block | null {
    const begin = this.beginOf(number);
    if (!begin) return null;
    const block = this.read(number);
    if (block.y.length === 0) {
      block.y = new Float64Array(block.x.length);
      block.v = new Float64Array(block.x.length);
      this.run(block, begin.slice(), block);
    }
    return block;
  }

  /** The block with its x; the oldest block is given up where there are many. */
  private read(number: number): Block {
    const known = this.blocks.get(number);
    if (known) return known;
    const x = new Float64Array((BLOCK + 1) * this.count);
    for (let k = 0; k <= BLOCK; k++) {
      const { start, loop } = this.spring;
      const since = number * BLOCK + k;
      const frame = start + (loop === null ? since : since - loop * Math.floor(since / loop));
      this.lead(frame, this.reading);
      for (let c = 0; c < this.count; c++) x[c * (BLOCK + 1) + k] = this.reading[c]!;
    }
    if (this.blocks.size >= MOST_BLOCKS) this.blocks.delete(this.blocks.keys().next().value!);
    const block = { x, y: NONE, v: NONE };
    this.blocks.set(number, block);
    return block;
  }

  /** Places, then speeds, with which a block begins. */
  private beginOf(number: number): Float64Array | null {
    const known = this.begun.get(number);
    if (known) return known;
    const fromStart = this.spring.loop !== null || this.back > MOST_BLOCKS_BACK;
    let at = fromStart ? number : Math.max(0, number - this.back);
    while (fromStart && at > 0 && !this.begun.has(at)) at--;
    const state = at === 0 ? this.beginning() : fromStart ? this.begun.get(at)!.slice() : this.still(at);
    if (!state) return null;
    for (; at < number; at++) {
      if (fromStart) this.begun.set(at, state.slice());
      this.run(this.read(at), state);
    }
    this.begun.set(number, state);
    return state;
  }

  /** Standing at x, as at a block's first frame. */
  private still(number: number): Float64Array {
    const state = new Float64Array(2 * this.count);
    const { x } = this.read(number);
    for (let c = 0; c < this.count; c++) state[c] = x[c * (BLOCK + 1)]!;
    return state;
  }

  private beginning(): Float64Array | null {
    const { loop } = this.spring;
    if (loop === null) return this.still(0);
    if (this.periodic === null) this.periodic = this.settled(loop);
    return this.periodic === false ? null : this.periodic.slice();
  }

  /** The state at the start that is there again after a loop: (1 − Φ)·s = what one loop from standing at 0 gives. */
  private settled(loop: number): Float64Array | false {
    const whole = springStep(this.spring.frequency, this.spring.damping, loop * this.secondsPerFrame);
    const [a, b] = [1 - whole.placeByPlace, -whole.placeBySpeed];
    const [c, d] = [-whole.speedByPlace, 1 - whole.speedBySpeed];
    const determinant = a * d - b * c;
    if (!(Math.abs(determinant) > 1e-12)) return false;
    const state = new Float64Array(2 * this.count);
    for (let at = 0; at * BLOCK < loop; at++) this.run(this.read(at), state, undefined, loop - at * BLOCK);
    for (let n = 0; n < this.count; n++) {
      const place = state[n]!;
      const speed = state[this.count + n]!;
      state[n] = (d * place - b * speed) / determinant;
      state[this.count + n] = (a * speed - c * place) / determinant;
    }
    return state;
  }

  /** Carries a state through a block, or its first frames; with `keep`, the state at each frame is written there. */
  private run(block: Block, state: Float64Array, keep?: Block, most = BLOCK): void {
    const frames = Math.min(BLOCK, most);
    for (let c = 0; c < this.count; c++) {
      let place = state[c]!;
      let speed = state[this.count + c]!;
      for (let n = 0; n <= frames; n++) {
        const k = c * (BLOCK + 1) + n;
        if (keep) {
          keep.y[k] = place;
          keep.v[k] = speed;
        }
        if (n === frames) break;
        takeStep(this.step, block.x[k]!, this.slope(block, k), place, speed, this.after);
        place = this.after.place;
        speed = this.after.speed;
      }
      state[c] = place;
      state[this.count + c] = speed;
    }
  }
}

const NONE = new Float64Array(0);
