import type { Problem, Project, Result } from '../project';
import { LIMITS } from '../file';
import { compileDriver, type CompiledDriver, type DriverContext, type Mechanism } from '../drive';
import { compileConstraint, type CompiledConstraint, type ConstraintContext } from '../rig';
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
      const made = compileDriver(driver, i, context);
      if (!made.ok) this.problems.push(made.problem);
      else this.addDriver(made.value, i);
    });
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
      const made = compileConstraint(constraint, i, context);
      if (!made.ok) {
        this.problems.push(made.problem);
        return;
      }
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
      if (slot - structure.firstSlot[part]! < TRANSFORM_VALUES) listIn(reads, part).push(node);
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
const OPEN = 1;
const DONE = 2;
