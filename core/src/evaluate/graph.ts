import type { CompiledDriver, Mechanism } from '../drive';
import type { CompiledConstraint } from '../rig';
import type { FormulaLanes } from './formulas';

/**
 * What is computed at a frame, as nodes: the world matrix of each part, each channel that is driven, each mechanism. A node is a
 * number: first the parts in file order, with some numbers left free for parts to come, then the driven channels, then the mechanisms.
 * `order` has every node after all it reads. Muted drivers are in it with what they read, as far as they can be: to mute one or to let it
 * act again changes neither nodes nor order.
 */
export interface Graph {
  readonly drivers: readonly CompiledDriver[];
  /** Nodes that are kept for parts, as many as there are or more: the number of the first driven channel. */
  readonly partRoom: number;
  /** How many numbers nodes have. */
  readonly nodes: number;
  /** The place in the project's list of each of these drivers and constraints. */
  readonly driverPlaces: readonly number[];
  readonly constraints: readonly CompiledConstraint[];
  readonly constraintPlaces: readonly number[];
  readonly mechanisms: readonly MechanismNode[];
  /** The formula of each driver by itself, made when it is first asked for. */
  readonly formulas: (FormulaLanes | undefined)[];
  /** What a whole run does, in order: a node, or, as −1 − n, all the nodes of `batches[n]` at once. */
  readonly steps: Int32Array;
  readonly batches: readonly FormulaLanes[];
  /** Where a driver's formula lies among those of the batches, see `laneAt`; −1 where it is in none. */
  readonly lanes: Int32Array;
  /** The mechanism of each driver, or −1. */
  readonly mechanismOf: Int32Array;
  /** Driven slots in the order of their nodes, and the node of each driven slot. */
  readonly drivenSlots: readonly number[];
  readonly nodeOfSlot: ReadonlyMap<number, number>;
  /** Drivers of each driven slot that act, in list order, by the slot's place in `drivenSlots`. */
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
