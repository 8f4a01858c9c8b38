import { NOT_FINITE } from '../project';
import { runCode, WORDS, type CompiledDriver } from '../drive';

/** Registers that all formulas have: the frame and its seconds. */
const SHARED = 2;

/**
 * Formulas that are the same but for their numbers and channels, and do not read each other, side by side as lanes: an operation
 * is done for all of them before the next. One formula by itself is such a row of one lane.
 */
export class FormulaLanes {
  private readonly words: Int32Array;
  private readonly registers: Float64Array;
  private readonly slots: Int32Array;
  private readonly result: number;
  private readonly targets: Int32Array;
  private readonly adds: Uint8Array;
  readonly numbers: Int32Array;

  /** `drivers` have formulas of one shape; `numbers` are their places among all drivers. */
  constructor(drivers: readonly CompiledDriver[], numbers: readonly number[]) {
    const lanes = drivers.length;
    this.targets = Int32Array.from(drivers, ({ target }) => target);
    this.adds = Uint8Array.from(drivers, ({ add }) => (add ? 1 : 0));
    this.numbers = Int32Array.from(numbers);
    const { inputs, words, registers, result } = drivers[0]!.formula!;
    this.registers = new Float64Array(registers * lanes);
    drivers.forEach(({ formula }, lane) =>
      formula!.constants.forEach((value, n) => (this.registers[(inputs + n) * lanes + lane] = value)),
    );
    const loads = Math.max(0, inputs - SHARED);
    this.slots = new Int32Array(loads * lanes);
    for (let n = 0; n < loads; n++)
      drivers.forEach(({ slots }, lane) => (this.slots[n * lanes + lane] = slots[n]!));
    this.words = words.map((word, i) => (i % WORDS === 0 ? word : word * lanes));
    this.result = result * lanes;
  }

  /** Gives all their channels their values at a frame, and tells which are not finite. */
  run(frame: number, secondsPerFrame: number, channels: Float64Array, failed: Uint8Array): void {
    const { targets, adds, numbers, registers, result, slots } = this;
    const lanes = targets.length;
    registers.fill(frame, 0, lanes);
    registers.fill(frame * secondsPerFrame, lanes, 2 * lanes);
    const loaded = SHARED * lanes;
    for (let i = 0; i < slots.length; i++) registers[loaded + i] = channels[slots[i]!]!;
    runCode(this.words, registers, lanes);
    for (let lane = 0; lane < lanes; lane++) {
      const target = targets[lane]!;
      const value = registers[result + lane]!;
      const next = adds[lane] === 1 ? channels[target]! + value : value;
      const finite = Number.isFinite(next);
      if (finite) channels[target] = next;
      failed[numbers[lane]!] = finite ? 0 : NOT_FINITE;
    }
  }
}
