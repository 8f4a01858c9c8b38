import type { Driver, Fields } from '../project';
import type { Jet } from '../law';
import type { FormulaCode } from './expression/code';
import type { Mechanism } from './linkage/linkage';

/**
 * What a driver reads of the rest of the project: channels after all their drivers, and finished matrices, at the frame that is
 * computed or at any other.
 */
export interface Reader {
  readonly frame: number;
  readonly secondsPerFrame: number;
  /** A channel at this frame; it must be among the driver's `slots`. */
  channel(slot: number): number;
  channelAt(slot: number, frame: number): number;
  /** The output of a mechanism of the driver's own at this frame. */
  solved(mechanism: number, output: number): number;
  /** Why a mechanism has no outputs at this frame, or 0. */
  unsolved(mechanism: number): number;
  /** A finished world matrix at this frame, column-major; the part must be among the driver's `parts`. */
  worldOf(part: number): Float64Array;
  /** What is made once a program and kept with it, such as a follower with its checkpoints. */
  kept<T>(owner: object, make: () => T): T;
}

/** The same for rates: jets per frame, just after the frame. */
export interface JetReader {
  readonly frame: number;
  readonly secondsPerFrame: number;
  channel(slot: number): Jet;
  channelAt(slot: number, frame: number): Jet;
  solved(mechanism: number, output: number): Jet;
  /** The jet of any function of the reader, by differences. */
  differences(value: (read: Reader) => number): Jet;
  kept<T>(owner: object, make: (values: Reader) => T): T;
}

/** A driver with its channels turned into slots and its parts into places in the file. */
export interface CompiledDriver {
  readonly id: string;
  readonly target: number;
  readonly add: boolean;
  readonly slots: readonly number[];
  readonly parts: readonly number[];
  /** Slots that are read at other frames. */
  readonly late: readonly number[];
  readonly mechanism?: {
    readonly key: string;
    readonly slots: readonly number[];
    readonly make: () => Mechanism;
  };
  /** Its formula over `[frame, seconds, …slots]`, where it is one; all of a project's run as one code. */
  readonly formula?: FormulaCode;
  /**
   * The driver's result where it is no formula; not finite where its mathematics fails. `mechanism` is the place of its mechanism.
   */
  readonly value?: (read: Reader, mechanism: number) => number;
  readonly jet: (read: JetReader, mechanism: number) => Jet;
  /** Why the result is not finite, where that can be told. */
  readonly reason?: (read: Reader, mechanism: number) => number;
}

/** What a driver is compiled against: where its channels and parts lie. */
export interface DriverContext {
  readonly slot: (channel: string) => number;
  readonly part: (id: string) => number;
  readonly rest: (slot: number) => number;
  readonly pivot: (part: number) => readonly [number, number, number];
  readonly secondsPerFrame: number;
  readonly gravity: number;
}

export interface Refusal {
  readonly at: readonly (string | number)[];
  readonly message: string;
}

export type Made = Omit<CompiledDriver, 'id' | 'target' | 'add' | 'slots' | 'parts' | 'late'> &
  Partial<Pick<CompiledDriver, 'slots' | 'parts' | 'late'>>;

/** All there is to say of a kind of driver. */
export interface DriverKind<T extends Driver> {
  /** What it does, in a few words. */
  readonly says: string;
  /** Its own fields; every driver has an id, a target, a way to combine, and may be muted. */
  readonly fields: Fields;
  /** What of its fields can't stand together. */
  readonly refuse?: (driver: T) => Refusal | null;
  /** It came with the second edition of the format. */
  readonly edition?: (driver: T) => boolean;
  readonly make: (driver: T, context: DriverContext) => Made | Refusal;
  /** Its fields in an example. */
  readonly example: Readonly<Record<string, unknown>>;
}
