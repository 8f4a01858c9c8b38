import { NOT_FINITE } from '../project';
import { Machine } from '../wasm';
import {
  formulaRun,
  rowWidth,
  runCode,
  SHARED,
  type CompiledDriver,
  type FormulaCode,
  type FormulaRun,
} from '../drive';

/** What a lane does with what its formula gives. */
const REPLACES = 0;
const ADDS = 1;
const MUTED = 2;

/** Fewer formulas of one shape are not worth compiling them for the processor. */
const LEAST_COMPILED = 32;
/** Shapes whose compiled code is remembered. */
const MOST_SHAPES = 256;

/** Numbers that lie in the memory of compiled code at most; then all are laid there anew, as they are needed. */
const MOST_NUMBERS = 2 ** 20;

const machine = Machine.create();
/** How much of the memory is taken, and how often all of it was given up. */
let used = 0;
let generation = 0;
const runs = new Map<string, FormulaRun | null>();

function compiledRun(formula: FormulaCode): FormulaRun | null {
  if (!machine) return null;
  let run = runs.get(formula.shape);
  if (run === undefined) {
    if (runs.size >= MOST_SHAPES) runs.clear();
    runs.set(formula.shape, (run = formulaRun(machine, formula)));
  }
  return run;
}

/**
 * Formulas that are the same but for their numbers and channels, and do not read each other, side by side as lanes. Many of them run
 * as compiled code; few, or one formula by itself, operation by operation.
 */
export class FormulaLanes {
  /** The same lists typed, for running; made when it first runs. */
  private typed: TypedLanes | null = null;
  /** Where the rows lie in the memory of compiled code, as long as its generation is the one here. */
  private start = 0;
  private laidIn = -1;

  private constructor(
    private readonly formula: FormulaCode,
    /** Of each lane its inputs besides frame and seconds, then its constants. Plain lists: typed ones take ten times as long to copy. */
    private readonly rows: number[],
    private readonly slots: number[],
    private readonly targets: number[],
    private readonly acts: number[],
    private readonly numbers: Int32Array,
    private readonly registers: Float64Array,
    private readonly results: Float64Array,
  ) {}

  /** `drivers` have formulas of one shape; `numbers` are their places among all drivers, `muted` those that do nothing. */
  static of(
    drivers: readonly CompiledDriver[],
    numbers: readonly number[],
    muted: (number: number) => boolean,
  ): FormulaLanes {
    const count = drivers.length;
    const formula = drivers[0]!.formula!;
    const lanes = new FormulaLanes(
      formula,
      zeros(rowWidth(formula) * count),
      zeros((formula.inputs - SHARED) * count),
      zeros(count),
      zeros(count),
      Int32Array.from(numbers),
      new Float64Array(formula.registers),
      new Float64Array(count),
    );
    drivers.forEach((driver, lane) => lanes.lay(lane, driver, muted(numbers[lane]!)));
    return lanes;
  }

  /** The same lanes with another driver of the same shape in one of them. */
  with(lane: number, driver: CompiledDriver, muted: boolean): FormulaLanes {
    const { formula, rows, slots, targets, acts, numbers, registers, results } = this;
    const next = new FormulaLanes(
      formula,
      rows.slice(),
      slots.slice(),
      targets.slice(),
      acts.slice(),
      numbers,
      registers,
      results,
    );
    next.lay(lane, driver, muted);
    return next;
  }

  private lay(lane: number, { target, add, formula, slots }: CompiledDriver, muted: boolean): void {
    const given = formula!.inputs - SHARED;
    this.targets[lane] = target;
    this.acts[lane] = muted ? MUTED : add ? ADDS : REPLACES;
    const { constants } = formula!;
    const row = lane * rowWidth(formula!) + given;
    for (let n = 0; n < constants.length; n++) this.rows[row + n] = constants[n]!;
    for (let n = 0; n < given; n++) this.slots[lane * given + n] = slots[n]!;
  }

  /** Gives all their channels their values at a frame, and tells which are not finite. */
  run(frame: number, secondsPerFrame: number, channels: Float64Array, failed: Uint8Array): void {
    const { formula, rows } = this;
    const seconds = frame * secondsPerFrame;
    const lanes = this.targets.length;
    const compiled = lanes >= LEAST_COMPILED ? compiledRun(formula) : null;
    if (!compiled) {
      for (let lane = 0; lane < lanes; lane++) this.runLane(lane, frame, seconds, channels);
      this.give(this.results, 0, channels, failed);
      return;
    }
    const memory = this.inMemory();
    const { start } = this;
    const { slots } = this.typedLanes();
    const given = formula.inputs - SHARED;
    const width = rows.length / lanes;
    for (let n = 0; n < given; n++)
      for (let i = n, at = start + n; i < slots.length; i += given, at += width)
        memory[at] = channels[slots[i]!]!;
    const end = start + rows.length;
    compiled(start * 8, end * 8, end * 8, frame, seconds);
    this.give(memory, end, channels, failed);
  }

  /** The memory of compiled code, with the rows in it and room for the results behind them. */
  private inMemory(): Float64Array {
    const { rows, results } = this;
    if (this.laidIn === generation) return machine!.room(used);
    const size = rows.length + results.length;
    if (used + size > MOST_NUMBERS) {
      generation++;
      used = 0;
    }
    this.laidIn = generation;
    this.start = used;
    used += size;
    const memory = machine!.room(used);
    memory.set(rows, this.start);
    return memory;
  }

  /** One lane, operation by operation. */
  private runLane(lane: number, frame: number, seconds: number, channels: Float64Array): void {
    const { formula, rows, slots, registers } = this;
    const { inputs, constants } = formula;
    const given = inputs - SHARED;
    const row = lane * rowWidth(formula) + given;
    registers[0] = frame;
    registers[1] = seconds;
    for (let n = 0; n < given; n++) registers[SHARED + n] = channels[slots[lane * given + n]!]!;
    for (let n = 0; n < constants.length; n++) registers[inputs + n] = rows[row + n]!;
    runCode(formula.words, registers);
    this.results[lane] = registers[formula.result]!;
  }

  private typedLanes(): TypedLanes {
    return (this.typed ??= {
      slots: new Int32Array(this.slots),
      targets: new Int32Array(this.targets),
      acts: new Uint8Array(this.acts),
    });
  }

  /** Hands out the results that lie from `start` on. */
  private give(results: Float64Array, start: number, channels: Float64Array, failed: Uint8Array): void {
    const { numbers } = this;
    const { targets, acts } = this.typedLanes();
    for (let lane = 0; lane < targets.length; lane++) {
      const act = acts[lane]!;
      if (act === MUTED) continue;
      const value = results[start + lane]!;
      const target = targets[lane]!;
      const next = act === ADDS ? channels[target]! + value : value;
      // Only a finite number less itself is 0.
      const finite = next - next === 0;
      if (finite) channels[target] = next;
      failed[numbers[lane]!] = finite ? 0 : NOT_FINITE;
    }
  }
}

interface TypedLanes {
  readonly slots: Int32Array;
  readonly targets: Int32Array;
  readonly acts: Uint8Array;
}

function zeros(count: number): number[] {
  return new Array<number>(count).fill(0);
}
