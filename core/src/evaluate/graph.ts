import {
  firstAtOrAfter,
  type Constraint,
  type Driver,
  type Problem,
  type Project,
  type Result,
} from '../project';
import { LIMITS } from '../file';
import {
  compileDriver,
  type CompiledDriver,
  type DriverContext,
  type DriverResult,
  type Mechanism,
} from '../drive';
import {
  compileConstraint,
  type CompiledConstraint,
  type ConstraintContext,
  type ConstraintResult,
} from '../rig';
import { FormulaLanes } from './formulas';
import { TRANSFORM_VALUES, type Structure } from './structure';

/**
 * What is computed at a frame, as nodes: the world matrix of each part, each channel that is driven, each mechanism. A node is a
 * number: first the parts in file order, then the driven channels, then the mechanisms. `order` has every node after all it reads.
 */
export interface Graph {
  readonly drivers: readonly CompiledDriver[];
  /** The place in the project's list of each driver that acts, and of each constraint. */
  readonly driverPlaces: readonly number[];
  readonly constraints: readonly CompiledConstraint[];
  readonly constraintPlaces: readonly number[];
  readonly mechanisms: readonly MechanismNode[];
  /** The formula of each driver by itself, made when it is first asked for. */
  readonly formulas: (FormulaLanes | undefined)[];
  /** What a whole run does, in order: a node, or, as −1 − n, all the nodes of `batches[n]` at once. */
  readonly steps: Int32Array;
  readonly batches: readonly FormulaLanes[];
  /** The mechanism of each driver, or −1. */
  readonly mechanismOf: Int32Array;
  /** Driven slots in the order of their nodes, and the node of each driven slot. */
  readonly drivenSlots: readonly number[];
  readonly nodeOfSlot: ReadonlyMap<number, number>;
  /** Drivers of each driven slot, in list order, by the slot's place in `drivenSlots`. */
  readonly driversOf: readonly (readonly number[])[];
  /** Constraints of each part that has some, and the reaches that bend it. */
  readonly constraintsOf: ReadonlyMap<number, readonly number[]>;
  readonly bentBy: ReadonlyMap<number, readonly number[]>;
  readonly order: Int32Array;
  /** Nodes that a node reads at the same frame, beyond a part's parent. */
  readonly reads: ReadonlyMap<number, readonly number[]>;
  /** Slots without drivers that a node reads, beyond a part's own transform. */
  readonly plain: ReadonlyMap<number, readonly number[]>;
}

export interface MechanismNode {
  readonly mechanism: Mechanism;
  readonly slots: readonly number[];
  /** Where its outputs lie among those of all mechanisms. */
  readonly at: number;
}

/** Compiles a project's drivers and constraints and puts all that is computed in order; a ring is a problem. */
export function buildGraph(project: Project, structure: Structure): Result<Graph> {
  const builder = new GraphBuilder(project, structure);
  builder.addDrivers();
  builder.addConstraints();
  return builder.finish();
}

class GraphBuilder {
  private readonly problems: Problem[] = [];
  private readonly drivers: CompiledDriver[] = [];
  private readonly driverPlaces: number[] = [];
  private readonly constraints: CompiledConstraint[] = [];
  private readonly constraintPlaces: number[] = [];
  private readonly mechanisms: MechanismNode[] = [];
  private readonly mechanismByKey = new Map<string, number>();
  private readonly mechanismOf: number[] = [];
  private readonly drivenSlots: number[] = [];
  private readonly driversOf: number[][] = [];
  private readonly placeOfSlot = new Map<number, number>();
  private readonly constraintsOf = new Map<number, number[]>();
  private readonly bentBy = new Map<number, number[]>();

  constructor(
    private readonly project: Project,
    private readonly structure: Structure,
  ) {}

  addDrivers(): void {
    const context = driverContext(this.project, this.structure);
    this.project.drivers.forEach((driver, i) => {
      if (driver.muted) return;
      const made = this.compiledDriver(driver, i, context);
      if (!made.ok) this.problems.push(made.problem);
      else this.addDriver(made.value, i);
    });
  }

  /** A driver as it was compiled before, where all it was compiled for is still so. */
  private compiledDriver(driver: Driver, i: number, context: DriverContext): DriverResult {
    const known = madeDrivers.get(driver);
    if (known && holds(known, this.structure, this.project)) return { ok: true, value: known.made };
    const made = compileDriver(driver, i, context);
    if (made.ok) madeDrivers.set(driver, madeFor(made.value, this.structure, this.project));
    return made;
  }

  private addDriver(driver: CompiledDriver, place: number): void {
    let at = this.placeOfSlot.get(driver.target);
    if (at === undefined) {
      at = this.drivenSlots.length;
      this.placeOfSlot.set(driver.target, at);
      this.drivenSlots.push(driver.target);
      this.driversOf.push([]);
    }
    this.driversOf[at]!.push(this.drivers.length);
    this.drivers.push(driver);
    this.driverPlaces.push(place);
    this.mechanismOf.push(driver.mechanism ? this.mechanismNode(driver.mechanism) : -1);
  }

  private mechanismNode({ key, slots, make }: NonNullable<CompiledDriver['mechanism']>): number {
    const known = this.mechanismByKey.get(key);
    if (known !== undefined) return known;
    const last = this.mechanisms.at(-1);
    const number = this.mechanisms.length;
    this.mechanisms.push({
      mechanism: make(),
      slots,
      at: last ? last.at + last.mechanism.outputs : 0,
    });
    this.mechanismByKey.set(key, number);
    return number;
  }

  addConstraints(): void {
    const context = constraintContext(this.project, this.structure);
    this.project.constraints.forEach((constraint, i) => {
      if (constraint.muted) return;
      const known = madeConstraints.get(constraint);
      const made: ConstraintResult =
        known && holds(known, this.structure, this.project)
          ? { ok: true, value: known.made }
          : compileConstraint(constraint, i, context);
      if (!made.ok) {
        this.problems.push(made.problem);
        return;
      }
      if (made.value !== known?.made)
        madeConstraints.set(constraint, madeFor(made.value, this.structure, this.project));
      const { part, bends } = made.value;
      const number = this.constraints.length;
      listIn(this.constraintsOf, part).push(number);
      if (bends >= 0) listIn(this.bentBy, bends).push(number);
      this.constraints.push(made.value);
      this.constraintPlaces.push(i);
    });
  }

  finish(): Result<Graph> {
    const { structure } = this;
    const parts = structure.parts.length;
    const nodeOfSlot = new Map(this.drivenSlots.map((slot, i) => [slot, parts + i]));
    const firstMechanism = parts + this.drivenSlots.length;
    const reads = new Map<number, number[]>();
    const plain = new Map<number, number[]>();
    const late = new Map<number, number[]>();
    const readSlot = (node: number, slot: number) => {
      const driven = nodeOfSlot.get(slot);
      if (driven === undefined) listIn(plain, node).push(slot);
      else if (driven !== node) listIn(reads, node).push(driven);
      else listIn(late, node).push(driven);
    };
    this.drivenSlots.forEach((slot, i) => {
      const node = parts + i;
      listIn(plain, node).push(slot);
      for (const number of this.driversOf[i]!) {
        const driver = this.drivers[number]!;
        const mechanism = this.mechanismOf[number]!;
        if (mechanism >= 0) listIn(reads, node).push(firstMechanism + mechanism);
        for (const read of driver.slots) if (mechanism < 0) readSlot(node, read);
        for (const part of driver.parts) listIn(reads, node).push(part);
        for (const read of driver.late) {
          const driven = nodeOfSlot.get(read);
          if (driven !== undefined) listIn(late, node).push(driven);
        }
      }
    });
    this.mechanisms.forEach(({ slots }, i) => {
      for (const slot of slots) readSlot(firstMechanism + i, slot);
    });
    for (const [slot, node] of nodeOfSlot) {
      const part = structure.partOfSlot(slot);
      const offset = slot - structure.firstSlot[part]!;
      // A rounded squash moves the mesh; the matrix does not read it.
      const isRead = offset < SQUASH || (offset === SQUASH && !structure.frames[part]!.rounded);
      if (isRead) listIn(reads, part).push(node);
    }
    for (const constraint of this.constraints) {
      for (const slot of constraint.slots) readSlot(constraint.part, slot);
      for (const part of constraint.parts) listIn(reads, constraint.part).push(part);
      for (const part of constraint.late) listIn(late, constraint.part).push(part);
    }
    const count = firstMechanism + this.mechanisms.length;
    const sorted = sortNodes(count, structure, reads, late);
    if (!sorted.ok) this.problems.push(this.ringProblem(sorted.ring, nodeOfSlot, firstMechanism));
    else if (sorted.lateDepth > LIMITS.lateDepth)
      this.problems.push({
        pointer: '/drivers',
        message: `drivers and constraints that look at other frames read each other ${sorted.lateDepth} deep; at most ${LIMITS.lateDepth} may`,
      });
    if (this.problems.length > 0 || !sorted.ok) return { ok: false, problems: this.problems };
    return {
      ok: true,
      value: {
        drivers: this.drivers,
        driverPlaces: this.driverPlaces,
        constraints: this.constraints,
        constraintPlaces: this.constraintPlaces,
        mechanisms: this.mechanisms,
        formulas: new Array<FormulaLanes | undefined>(this.drivers.length),
        ...this.inSteps(sorted.order, reads),
        mechanismOf: Int32Array.from(this.mechanismOf),
        drivenSlots: this.drivenSlots,
        nodeOfSlot,
        driversOf: this.driversOf,
        constraintsOf: this.constraintsOf,
        bentBy: this.bentBy,
        order: sorted.order,
        reads,
        plain,
      },
    };
  }

  /**
   * The order of a whole run, with formulas of one shape on one level put together: a level has all nodes that read only nodes of
   * levels before.
   */
  private inSteps(
    order: Int32Array,
    reads: ReadonlyMap<number, readonly number[]>,
  ): Pick<Graph, 'steps' | 'batches'> {
    const parts = this.structure.parts.length;
    if (this.drivers.filter(({ formula }) => formula).length < LEAST_BATCH)
      return { steps: order, batches: [] };
    const { parents } = this.structure.hierarchy;
    const levels = new Int32Array(order.length);
    for (const node of order) {
      let level = 0;
      if (node < parts && parents[node]! >= 0) level = levels[parents[node]!]! + 1;
      for (const read of reads.get(node) ?? NOTHING) level = Math.max(level, levels[read]! + 1);
      levels[node] = level;
    }
    const groups = new Map<string, number[]>();
    this.driversOf.forEach((list, i) => {
      const formula = list.length === 1 ? this.drivers[list[0]!]!.formula : undefined;
      if (formula) listIn(groups, `${levels[parts + i]!} ${formula.shape}`).push(i);
    });
    const batches: FormulaLanes[] = [];
    const batchOf = new Map<number, number>();
    for (const group of groups.values()) {
      if (group.length < LEAST_BATCH) continue;
      for (let at = 0; at < group.length; at += MOST_LANES) {
        const lanes = group.slice(at, at + MOST_LANES);
        const numbers = lanes.map((i) => this.driversOf[i]![0]!);
        for (const i of lanes) batchOf.set(parts + i, batches.length);
        const drivers = numbers.map((number) => this.drivers[number]!);
        batches.push(new FormulaLanes(drivers, numbers));
      }
    }
    if (batches.length === 0) return { steps: order, batches };
    const inLevels = [...order].sort((a, b) => levels[a]! - levels[b]!);
    const begun = new Set<number>();
    const steps = inLevels.flatMap((node) => {
      const batch = batchOf.get(node);
      if (batch === undefined) return [node];
      if (begun.has(batch)) return [];
      begun.add(batch);
      return [-1 - batch];
    });
    return { steps: Int32Array.from(steps), batches };
  }

  /** A ring in one sentence: the channels and parts on it in the order in which one drives the next. */
  private ringProblem(
    ring: readonly number[],
    nodeOfSlot: ReadonlyMap<number, number>,
    firstMechanism: number,
  ): Problem {
    const { structure } = this;
    const parts = structure.parts.length;
    const shown = ring.filter((node) => node < firstMechanism);
    if (shown[0] !== shown.at(-1)) shown.push(shown[0]!);
    const names = shown.map((node) =>
      node < parts ? structure.parts[node]!.id : structure.channels[this.drivenSlots[node - parts]!]!,
    );
    const driven = shown.find((node) => node >= parts);
    if (driven !== undefined && shown.every((node) => node >= parts)) {
      const first = this.driversOf[shown[0]! - parts]![0]!;
      return {
        pointer: `/drivers/${this.driverPlaces[first]!}`,
        message: `the drivers run in a ring: ${names.join(' → ')}; a channel must not drive itself`,
      };
    }
    const constraint = this.constraints.findIndex(({ part }) => shown.includes(part));
    const pointer =
      constraint >= 0
        ? `/constraints/${this.constraintPlaces[constraint]!}`
        : `/drivers/${this.driverPlaces[this.driversOf[driven! - parts]![0]!]!}`;
    return {
      pointer,
      message: `parts and channels run in a ring: ${names.join(' → ')}; none may depend on itself`,
    };
  }
}

/**
 * The graph of a project in which drivers and constraints were changed in their numbers alone: what reads what stays, and with it
 * the order. Null where more is another, or something can't be compiled.
 */
export function patchedGraph(
  graph: Graph,
  before: Project,
  project: Project,
  structure: Structure,
): Graph | null {
  const { drivers: oldDrivers, constraints: oldConstraints, range } = before;
  const sameRange = range.start === project.range.start && range.end === project.range.end;
  if (
    project.drivers.length !== oldDrivers.length ||
    project.constraints.length !== oldConstraints.length ||
    !sameRange
  )
    return null;
  const drivers = patched(
    oldDrivers,
    project.drivers,
    graph.driverPlaces,
    graph.drivers,
    (driver, i, old) => {
      const made = compileDriver(driver, i, driverContext(project, structure));
      return made.ok && driver.muted === oldDrivers[i]!.muted && isWiredAlike(made.value, old)
        ? made.value
        : null;
    },
  );
  const constraints = patched(
    oldConstraints,
    project.constraints,
    graph.constraintPlaces,
    graph.constraints,
    (constraint, i, old) => {
      const made = compileConstraint(constraint, i, constraintContext(project, structure));
      return made.ok && constraint.muted === oldConstraints[i]!.muted && isHeldAlike(made.value, old)
        ? made.value
        : null;
    },
  );
  if (!drivers || !constraints) return null;
  const batches = patchedBatches(graph.batches, graph.drivers, drivers);
  if (!batches) return null;
  const formulas = graph.formulas.map((formula, i) =>
    drivers[i] === graph.drivers[i] ? formula : undefined,
  );
  return { ...graph, drivers, constraints, batches, formulas };
}

/** What was compiled of a list with the changed entries compiled anew; null where one is muted now or wired another way. */
function patched<T extends { readonly muted: boolean }, C>(
  before: readonly T[],
  after: readonly T[],
  places: readonly number[],
  compiled: readonly C[],
  compileAnew: (entry: T, i: number, old: C) => C | null,
): readonly C[] | null {
  if (before === after) return compiled;
  let next: C[] | null = null;
  for (let i = 0; i < after.length; i++) {
    if (after[i] === before[i]) continue;
    if (after[i]!.muted && before[i]!.muted) continue;
    const number = firstAtOrAfter(places, i);
    if (places[number] !== i) return null;
    const made = compileAnew(after[i]!, i, compiled[number]!);
    if (!made) return null;
    (next ??= compiled.slice())[number] = made;
  }
  return next ?? compiled;
}

function isWiredAlike(a: CompiledDriver, b: CompiledDriver): boolean {
  return (
    a.target === b.target &&
    a.mechanism?.key === b.mechanism?.key &&
    isSameList(a.slots, b.slots) &&
    isSameList(a.parts, b.parts) &&
    isSameList(a.late, b.late)
  );
}

function isHeldAlike(a: CompiledConstraint, b: CompiledConstraint): boolean {
  return (
    a.part === b.part &&
    a.bends === b.bends &&
    isSameList(a.slots, b.slots) &&
    isSameList(a.parts, b.parts) &&
    isSameList(a.late, b.late)
  );
}

function isSameList(a: readonly number[], b: readonly number[]): boolean {
  return a.length === b.length && a.every((each, i) => each === b[i]);
}

/** Batches with those made anew of which a formula changed; null where one has another shape now. */
function patchedBatches(
  batches: readonly FormulaLanes[],
  before: readonly CompiledDriver[],
  after: readonly CompiledDriver[],
): readonly FormulaLanes[] | null {
  const changed = new Set<number>();
  if (before !== after) before.forEach((driver, i) => driver !== after[i] && changed.add(i));
  for (const i of changed) if (before[i]!.formula?.shape !== after[i]!.formula?.shape) return null;
  if (changed.size === 0) return batches;
  return batches.map((batch) =>
    batch.numbers.some((number) => changed.has(number))
      ? new FormulaLanes(
          Array.from(batch.numbers, (number) => after[number]!),
          [...batch.numbers],
        )
      : batch,
  );
}

/** Something compiled, and what it was compiled for. */
interface MadeFor<T> {
  readonly made: T;
  readonly firstSlot: Int32Array;
  readonly frames: Structure['frames'];
  readonly rest: Float64Array;
  readonly project: Project;
}
const madeDrivers = new WeakMap<Driver, MadeFor<CompiledDriver>>();
const madeConstraints = new WeakMap<Constraint, MadeFor<CompiledConstraint>>();

function madeFor<T>(made: T, { firstSlot, frames, rest }: Structure, project: Project): MadeFor<T> {
  return { made, firstSlot, frames, rest, project };
}

/** Whether what something was compiled for is still so: slots, rest values and frames of parts, the rate, gravity and range. */
function holds<T>(known: MadeFor<T>, structure: Structure, { rate, gravity, range }: Project): boolean {
  const { firstSlot, frames, rest, project } = known;
  const sameParts =
    (firstSlot === structure.firstSlot && frames === structure.frames && rest === structure.rest) ||
    (firstSlot === structure.grownFrom?.firstSlot &&
      frames === structure.grownFrom.frames &&
      rest === structure.grownFrom.rest);
  return (
    sameParts &&
    project.rate.frames === rate.frames &&
    project.rate.per === rate.per &&
    project.gravity === gravity &&
    project.range.start === range.start &&
    project.range.end === range.end
  );
}

function listIn<K>(map: Map<K, number[]>, key: K): number[] {
  let list = map.get(key);
  if (!list) map.set(key, (list = []));
  return list;
}

function driverContext(project: Project, structure: Structure): DriverContext {
  return {
    slot: (channel) => structure.slots.get(channel) ?? -1,
    part: (id) => structure.partIndex.get(id) ?? -1,
    rest: (slot) => structure.rest[slot] ?? 0,
    pivot: (part) => structure.parts[part]!.pivot,
    secondsPerFrame: project.rate.per / project.rate.frames,
    gravity: project.gravity,
  };
}

function constraintContext(project: Project, structure: Structure): ConstraintContext {
  return {
    slot: (channel) => structure.slots.get(channel) ?? -1,
    part: (id) => structure.partIndex.get(id) ?? -1,
    pivot: (part) => structure.parts[part]!.pivot,
    parent: (part) => structure.hierarchy.parents[part]!,
    transformSlots: (part) => {
      const first = structure.firstSlot[part]!;
      return Array.from({ length: TRANSFORM_VALUES }, (_, i) => first + i);
    },
    points: (part) => {
      const described = structure.parts[part]!;
      return described.kind === 'path' ? described.path : null;
    },
    secondsPerFrame: project.rate.per / project.rate.frames,
    range: project.range,
  };
}

type Sorted =
  | { readonly ok: true; readonly order: Int32Array; readonly lateDepth: number }
  | { readonly ok: false; readonly ring: readonly number[] };

const NOTHING: readonly number[] = [];

/**
 * Nodes in an order in which each comes after all it reads, or the ring that makes that impossible. Without a call stack of its
 * own: chains may be as long as a project.
 */
function sortNodes(
  count: number,
  structure: Structure,
  reads: ReadonlyMap<number, readonly number[]>,
  late: ReadonlyMap<number, readonly number[]>,
): Sorted {
  const { parents } = structure.hierarchy;
  const parts = structure.parts.length;
  const state = new Uint8Array(count);
  const lateDepths = late.size > 0 ? new Int32Array(count) : null;
  const order = new Int32Array(count);
  let placed = 0;
  let lateDepth = 0;
  const path: number[] = [];
  const nextOf = new Int32Array(count);
  const readOf = (node: number, i: number): number => {
    let at = i;
    if (node < parts) {
      const parent = parents[node]!;
      if (parent >= 0 && at-- === 0) return parent;
    }
    const list = reads.get(node) ?? NOTHING;
    if (at < list.length) return list[at]!;
    return (late.get(node) ?? NOTHING)[at - list.length] ?? -1;
  };
  const roots = [...structure.hierarchy.order];
  for (let node = parts; node < count; node++) roots.push(node);
  for (const root of roots) {
    if (state[root] !== 0) continue;
    state[root] = OPEN;
    path.push(root);
    while (path.length > 0) {
      const node = path[path.length - 1]!;
      const next = readOf(node, nextOf[node]!++);
      if (next < 0) {
        state[node] = DONE;
        order[placed++] = node;
        path.pop();
        if (lateDepths) lateDepth = Math.max(lateDepth, (lateDepths[node] = depthOf(node)));
      } else if (state[next] === OPEN) {
        const from = path.indexOf(next);
        return { ok: false, ring: [...path.slice(from), next].reverse() };
      } else if (state[next] === 0) {
        state[next] = OPEN;
        path.push(next);
      }
    }
  }
  return { ok: true, order, lateDepth };

  function depthOf(node: number): number {
    let depth = 0;
    if (node < parts && parents[node]! >= 0) depth = lateDepths![parents[node]!]!;
    for (const each of reads.get(node) ?? NOTHING) depth = Math.max(depth, lateDepths![each]!);
    for (const each of late.get(node) ?? NOTHING) depth = Math.max(depth, lateDepths![each]! + 1);
    return depth;
  }
}
/** From so many formulas of one shape on they are computed together. */
const LEAST_BATCH = 8;
/** No more at once: their registers have to stay near the processor. */
const MOST_LANES = 128;
/** Where the squash stands among a part's transform channels. */
const SQUASH = TRANSFORM_VALUES - 1;
const OPEN = 1;
const DONE = 2;
