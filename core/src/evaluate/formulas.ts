import { NOT_FINITE } from '../project';
import { runCode, WORDS, type CompiledDriver } from '../drive';

/** Registers that all formulas have: the frame and its seconds. */
const SHARED = 2;

/** What a lane does with what its formula gives. */
const REPLACES = 0;
const ADDS = 1;
const MUTED = 2;

/**
 * Formulas that are the same but for their numbers and channels, and do not read each other, side by side as lanes: an operation
 * is done for all of them before the next. One formula by itself is such a row of one lane.
 */
export class FormulaLanes {
  private constructor(
    private readonly words: Int32Array,
    private readonly registers: Float64Array,
    private readonly slots: Int32Array,
    private readonly result: number,
    private readonly targets: Int32Array,
    private readonly acts: Uint8Array,
    private readonly numbers: Int32Array,
  ) {}

  /** `drivers` have formulas of one shape; `numbers` are their places among all drivers, `muted` those that do nothing. */
  static of(
    drivers: readonly CompiledDriver[],
    numbers: readonly number[],
    muted: (number: number) => boolean,
  ): FormulaLanes {
    const count = drivers.length;
    const { inputs, words, registers, result } = drivers[0]!.formula!;
    const lanes = new FormulaLanes(
      words.map((word, i) => (i % WORDS === 0 ? word : word * count)),
      new Float64Array(registers * count),
      new Int32Array(Math.max(0, inputs - SHARED) * count),
      result * count,
      new Int32Array(count),
      new Uint8Array(count),
      Int32Array.from(numbers),
    );
    drivers.forEach((driver, lane) => lanes.lay(lane, driver, muted(numbers[lane]!)));
    return lanes;
  }

  /** The same lanes with another driver of the same shape in one of them. */
  with(lane: number, driver: CompiledDriver, muted: boolean): FormulaLanes {
    const { words, registers, slots, result, targets, acts, numbers } = this;
    const next = new FormulaLanes(
      words,
      registers.slice(),
      slots.slice(),
      result,
      targets.slice(),
      acts.slice(),
      numbers,
    );
    next.lay(lane, driver, muted);
    return next;
  }

  private lay(lane: number, { target, add, formula, slots }: CompiledDriver, muted: boolean): void {
    const lanes = this.targets.length;
    const { inputs, constants } = formula!;
    this.targets[lane] = target;
    this.acts[lane] = muted ? MUTED : add ? ADDS : REPLACES;
    for (let n = 0; n < constants.length; n++) this.registers[(inputs + n) * lanes + lane] = constants[n]!;
    for (let n = 0; n < inputs - SHARED; n++) this.slots[n * lanes + lane] = slots[n]!;
  }

  /** Gives all their channels their values at a frame, and tells which are not finite. */
  run(frame: number, secondsPerFrame: number, channels: Float64Array, failed: Uint8Array): void {
    const { targets, acts, numbers, registers, result, slots } = this;
    const lanes = targets.length;
    registers.fill(frame, 0, lanes);
    registers.fill(frame * secondsPerFrame, lanes, 2 * lanes);
    const loaded = SHARED * lanes;
    for (let i = 0; i < slots.length; i++) registers[loaded + i] = channels[slots[i]!]!;
    runCode(this.words, registers, lanes);
    for (let lane = 0; lane < lanes; lane++) {
      const act = acts[lane]!;
      if (act === MUTED) continue;
      const value = registers[result + lane]!;
      const target = targets[lane]!;
      const next = act === ADDS ? channels[target]! + value : value;
      // Only a finite number less itself is 0.
      const finite = next - next === 0;
      if (finite) channels[target] = next;
      failed[numbers[lane]!] = finite ? 0 : NOT_FINITE;
    }
  }
}
