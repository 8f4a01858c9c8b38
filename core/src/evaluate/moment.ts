import { NOT_FINITE } from '../project';
import type { Reader } from '../drive';
import {
  isUpright,
  localMatrix,
  moveUpright,
  multiplyAffine,
  turnAbout,
  turnAboutPivot,
  uprightMatrix,
  type Held,
  type PoseReader,
} from '../rig';
import type { BaseValues } from './base-values';
import { FormulaLanes } from './formulas';
import type { Graph } from './graph';
import { TRANSFORM_VALUES, type Structure } from './structure';

/** What a moment asks of the program it belongs to: other frames, and what is made once. */
export interface OtherFrames {
  readonly structure: Structure;
  readonly graph: Graph;
  readonly base: BaseValues;
  readonly secondsPerFrame: number;
  channelValue(slot: number, frame: number): number;
  worldMatrix(part: number, frame: number, out: Float64Array): void;
  /** The matrix a constraint is given at a frame: its part's, as the constraints before have left it. */
  givenMatrix(constraint: number, frame: number, out: Float64Array): void;
  kept<T>(owner: object, make: () => T): T;
}

/** What a run fills: one number a channel slot, sixteen a part, and why drivers and constraints failed. */
export interface FrameOutput {
  readonly channels: Float64Array;
  /** World matrices, column-major, one view a part, in file order. */
  readonly world: readonly Float64Array[];
  /** Why the driver of that place in `program.drivers` has no result at the frame, 0 where it has one (see FAILURES). */
  readonly failed: Uint8Array;
  /** The same for `program.constraints`. */
  readonly unmet: Uint8Array;
}

/** Numbers kept of the bend that each reach gives the part below it: an axis, and an angle in radians. */
const BEND = 4;
const NO_PARTS = new Int32Array(0);

/**
 * All values and matrices at one frame. A run fills a moment in the graph's order; elsewhere a moment is filled as far as is asked,
 * each node once. Nothing here allocates once a moment is made.
 */
export class Moment implements FrameOutput, Reader, PoseReader {
  frame = 0;
  secondsPerFrame = 1;
  channels = new Float64Array(0);
  world: readonly Float64Array[] = [];
  /** All world matrices in a row, which `world` looks into. */
  private matrices = new Float64Array(0);
  /** 1 for each part that nothing but a move has written to since its matrix was upright. */
  private upright = new Uint8Array(0);
  failed = new Uint8Array(0);
  unmet = new Uint8Array(0);
  /** In use further up: its values may not be given up. */
  busy = 0;
  private solvedValues = new Float64Array(0);
  private unsolvedReasons = new Uint8Array(0);
  private bends = new Float64Array(0);
  private inputs: readonly Float64Array[] = [];
  private readonly local16 = new Float64Array(16);
  private readonly before = new Float64Array(25);
  private readonly turn = new Float64Array(9);
  private readonly held = {
    world: new Float64Array(16) as Float64Array,
    axes: new Float64Array(9),
    pivot: [0, 0, 0] as Held['pivot'],
  };
  /** Which nodes hold for the frame: those stamped with the moment's epoch. */
  private stamps: Uint32Array | null = null;
  private epoch = 0;
  private path: number[] = [];

  constructor(private program: OtherFrames) {
    this.makeRoom(program.structure);
    this.makeRoomFor(program.graph);
  }

  /** Belongs to another program from now on, such as the next state of the project. */
  adopt(program: OtherFrames): void {
    if (program === this.program) return;
    const { structure, graph } = this.program;
    this.program = program;
    if (program.structure.firstSlot !== structure.firstSlot) this.makeRoom(program.structure);
    if (program.graph !== graph) this.makeRoomFor(program.graph);
    this.secondsPerFrame = program.secondsPerFrame;
  }

  private makeRoom({ parts, slotCount }: Structure): void {
    const matrices = new Float64Array(parts.length * 16);
    this.channels = new Float64Array(slotCount);
    this.matrices = matrices;
    this.upright = new Uint8Array(parts.length);
    this.world = parts.map((_, i) => matrices.subarray(i * 16, i * 16 + 16));
  }

  private makeRoomFor(graph: Graph): void {
    this.secondsPerFrame = this.program.secondsPerFrame;
    this.failed = new Uint8Array(graph.drivers.length);
    this.unmet = new Uint8Array(graph.constraints.length);
    const last = graph.mechanisms.at(-1);
    this.solvedValues = new Float64Array(last ? last.at + last.mechanism.outputs : 0);
    this.unsolvedReasons = new Uint8Array(graph.mechanisms.length);
    this.bends = new Float64Array(graph.constraints.length * BEND);
    this.inputs = graph.mechanisms.map(({ slots }) => new Float64Array(slots.length));
    this.stamps = null;
  }

  /** Fills everything at a frame; `instead` gives channels another value than their own, before the drivers run. */
  run(frame: number, instead?: ReadonlyMap<number, number>): void {
    const { structure, graph, base } = this.program;
    this.frame = frame;
    base.run(frame, this.channels);
    if (instead) for (const [slot, value] of instead) this.channels[slot] = value;
    const { steps, batches } = graph;
    const free = graph.constraints.length === 0 ? structure.standsFree : NO_PARTS;
    for (let i = 0; i < steps.length; i++) {
      const step = steps[i]!;
      if (step < 0) batches[-1 - step]!.run(frame, this.secondsPerFrame, this.channels, this.failed);
      else if (!this.isMoved(step, free, structure.firstSlot)) this.compute(step);
    }
  }

  /**
   * Whether a node is a part that may only be moved, as most are, and is in its place now: to ask for all there is of each of them
   * would take longer than to place them.
   */
  private isMoved(node: number, free: Int32Array, firstSlot: Int32Array): boolean {
    if (node >= free.length || free[node] !== 1) return false;
    const { channels, matrices, upright } = this;
    const slot = firstSlot[node]!;
    if (!isUpright(channels, slot)) return false;
    if (upright[node] === 1) moveUpright(matrices, node * 16, channels, slot);
    else uprightMatrix(matrices, node * 16, channels, slot);
    upright[node] = 1;
    return true;
  }

  private compute(node: number): void {
    const { partRoom, drivenSlots } = this.program.graph;
    if (node < partRoom) this.computePart(node);
    else if (node < partRoom + drivenSlots.length) this.computeSlot(node - partRoom);
    else this.computeMechanism(node - partRoom - drivenSlots.length);
  }

  private computeSlot(place: number): void {
    const { graph } = this.program;
    const slot = graph.drivenSlots[place]!;
    const list = graph.driversOf[place]!;
    for (let i = 0; i < list.length; i++) {
      const number = list[i]!;
      const driver = graph.drivers[number]!;
      if (driver.formula) {
        const formula = (graph.formulas[number] ??= FormulaLanes.of([driver], [number], () => false));
        formula.run(this.frame, this.secondsPerFrame, this.channels, this.failed);
        continue;
      }
      const mechanism = graph.mechanismOf[number]!;
      const result = driver.value!(this, mechanism);
      const next = driver.add ? this.channels[slot]! + result : result;
      if (Number.isFinite(next)) {
        this.channels[slot] = next;
        this.failed[number] = 0;
      } else this.failed[number] = driver.reason?.(this, mechanism) || NOT_FINITE;
    }
  }

  private computeMechanism(number: number): void {
    const { mechanism, slots, at } = this.program.graph.mechanisms[number]!;
    const inputs = this.inputs[number]!;
    for (let i = 0; i < slots.length; i++) inputs[i] = this.channels[slots[i]!]!;
    this.unsolvedReasons[number] = mechanism.solve(inputs, this.solvedValues, at);
  }

  private computePart(part: number): void {
    const { structure, graph } = this.program;
    const { frames, firstSlot, hierarchy } = structure;
    const parent = hierarchy.parents[part]!;
    const frame = frames[part]!;
    const slot = firstSlot[part]!;
    const world = this.world[part]!;
    this.upright[part] = 0;
    if (parent < 0) localMatrix(world, frame, this.channels, slot);
    else {
      localMatrix(this.local16, frame, this.channels, slot);
      multiplyAffine(world, this.world[parent]!, this.local16);
    }
    if (graph.constraints.length === 0) return;
    const constraints = graph.constraintsOf.get(part);
    const bent = graph.bentBy.get(part);
    if (constraints || bent) this.constrain(part, world, constraints?.length ?? 0);
  }

  /** Bends a part as reaches above want it, and lets the first of its constraints act on its matrix. */
  private constrain(part: number, world: Float64Array, count: number): void {
    const { structure, graph } = this.program;
    const { held } = this;
    const parent = structure.hierarchy.parents[part]!;
    held.world = world;
    held.pivot = structure.frames[part]!.pivot;
    linearOf(held.axes, parent < 0 ? null : this.world[parent]!);
    const bent = graph.bentBy.get(part);
    if (bent)
      for (let i = 0; i < bent.length; i++) {
        const at = bent[i]! * BEND;
        const angle = this.bends[at + 3]!;
        if (angle === 0) continue;
        turnAbout(this.turn, this.bends[at]!, this.bends[at + 1]!, this.bends[at + 2]!, angle);
        turnAboutPivot(held, this.turn);
      }
    const list = graph.constraintsOf.get(part);
    for (let i = 0; i < count; i++) {
      const number = list![i]!;
      this.before.set(world);
      this.before.set(held.axes, 16);
      const reason = graph.constraints[number]!.apply(held, this, number);
      if (world.every(Number.isFinite)) this.unmet[number] = reason;
      else {
        for (let n = 0; n < 16; n++) world[n] = this.before[n]!;
        for (let n = 0; n < 9; n++) held.axes[n] = this.before[16 + n]!;
        this.unmet[number] = reason || NOT_FINITE;
      }
    }
  }

  /** Takes another frame; nothing holds any more. */
  turnTo(frame: number): void {
    this.frame = frame;
    this.stamps ??= new Uint32Array(this.program.graph.nodes);
    this.epoch++;
  }

  /** Fills a node and all that it reads. */
  ensure(node: number): void {
    this.fill(node, true);
  }

  /** Fills all that a node reads, and the channels it is made of, not the node itself. */
  ensureReads(node: number): void {
    this.fill(node, false);
  }

  /** By a path of its own in place of calls within calls: chains may be as long as a project. */
  private fill(root: number, itself: boolean): void {
    const stamps = this.stamps!;
    const { path, epoch } = this;
    const { graph, structure } = this.program;
    const floor = path.length;
    if (itself && stamps[root] === epoch) return;
    path.push(root);
    while (path.length > floor) {
      const node = path[path.length - 1]!;
      const before = path.length;
      if (node < graph.partRoom) {
        const parent = structure.hierarchy.parents[node]!;
        if (parent >= 0 && stamps[parent] !== epoch) path.push(parent);
      }
      const reads = graph.reads.get(node);
      if (reads) for (let i = 0; i < reads.length; i++) if (stamps[reads[i]!] !== epoch) path.push(reads[i]!);
      if (path.length > before) continue;
      path.pop();
      if (stamps[node] === epoch) continue;
      this.fillPlain(node);
      if (node === root && !itself) return;
      this.compute(node);
      stamps[node] = epoch;
    }
  }

  /** Channels without drivers that a node reads. */
  private fillPlain(node: number): void {
    const { structure, graph, base } = this.program;
    if (node < graph.partRoom) {
      const first = structure.firstSlot[node]!;
      for (let slot = first; slot < first + TRANSFORM_VALUES; slot++)
        if (graph.nodeOfSlot.size === 0 || !graph.nodeOfSlot.has(slot))
          this.channels[slot] = base.value(slot, this.frame);
    }
    const plain = graph.plain.get(node);
    if (plain)
      for (let i = 0; i < plain.length; i++) this.channels[plain[i]!] = base.value(plain[i]!, this.frame);
  }

  /** The matrix that a constraint is given, once `ensureReads` of its part is done. */
  givenMatrix(constraint: number, out: Float64Array): void {
    const { structure, graph } = this.program;
    const { part } = graph.constraints[constraint]!;
    const parent = structure.hierarchy.parents[part]!;
    localMatrix(out, structure.frames[part]!, this.channels, structure.firstSlot[part]!);
    if (parent >= 0) multiplyAffine(out, this.world[parent]!, out);
    this.constrain(part, out, graph.constraintsOf.get(part)!.indexOf(constraint));
  }

  channel(slot: number): number {
    return this.channels[slot]!;
  }
  channelAt(slot: number, frame: number): number {
    return this.program.channelValue(slot, frame);
  }
  solved(mechanism: number, output: number): number {
    return this.solvedValues[this.program.graph.mechanisms[mechanism]!.at + output]!;
  }
  unsolved(mechanism: number): number {
    return this.unsolvedReasons[mechanism]!;
  }
  worldOf(part: number): Float64Array {
    return this.world[part]!;
  }
  worldAt(part: number, frame: number, out: Float64Array): void {
    this.program.worldMatrix(part, frame, out);
  }
  ownAt(place: number, frame: number, out: Float64Array): void {
    this.program.givenMatrix(place, frame, out);
  }
  local(part: number, out: Float64Array): void {
    const { frames, firstSlot } = this.program.structure;
    localMatrix(out, frames[part]!, this.channels, firstSlot[part]!);
  }
  bend(place: number, x: number, y: number, z: number, angle: number): void {
    const at = place * BEND;
    this.bends[at] = x;
    this.bends[at + 1] = y;
    this.bends[at + 2] = z;
    this.bends[at + 3] = angle;
  }
  kept<T>(owner: object, make: () => T): T {
    return this.program.kept(owner, make);
  }
}

/** Writes the 3×3 of a matrix; of none, the identity. */
function linearOf(out: Float64Array, world: Float64Array | null): void {
  for (let column = 0; column < 3; column++)
    for (let row = 0; row < 3; row++)
      out[column * 3 + row] = world ? world[column * 4 + row]! : row === column ? 1 : 0;
}
