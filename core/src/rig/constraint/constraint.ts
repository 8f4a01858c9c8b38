import type { Constraint, Fields, Vec3 } from '../../project';

/**
 * What a constraint reads of the rest of the shot at the frame that is computed (contract §7): channels after their drivers,
 * finished matrices of other parts; and finished matrices at other frames.
 */
export interface PoseReader {
  readonly frame: number;
  readonly secondsPerFrame: number;
  /** A channel at this frame; it must be among the constraint's `slots`. */
  channel(slot: number): number;
  /** A finished world matrix, column-major; the part must be among the constraint's `parts`. */
  worldOf(part: number): Float64Array;
  /** The same at another frame, into `out`. */
  worldAt(part: number, frame: number, out: Float64Array): void;
  /** The matrix that constraint number `place` is given, at another frame, into `out`. */
  ownAt(place: number, frame: number, out: Float64Array): void;
  /** The local matrix of a part by its channels, which must be among the constraint's `slots`. */
  local(part: number, out: Float64Array): void;
  /** Turns a part below by radians about a direction of the world, before its own constraints. */
  bend(place: number, x: number, y: number, z: number, angle: number): void;
  /** What is made once a program and kept with it, such as a follower with its checkpoints. */
  kept<T>(owner: object, make: () => T): T;
}

/** The part that a constraint acts on, as the constraints before have left it; a constraint changes it in place. */
export interface Held {
  /** World matrix, column-major. */
  readonly world: Float64Array;
  /** 3×3: what stands outside the part's own turn, squash and size, that is the parent's axes as constraints have turned them. */
  readonly axes: Float64Array;
  /** The pivot in the part's own space. */
  readonly pivot: Vec3;
}

/** A constraint with its names turned into places in the file and slots. */
export interface CompiledConstraint {
  readonly id: string;
  readonly part: number;
  /** Parts whose finished matrices are read at this frame, and channels. */
  readonly parts: readonly number[];
  readonly slots: readonly number[];
  /** Parts that are read at other frames. */
  readonly late: readonly number[];
  /** The part below that a reach bends, or −1. */
  readonly bends: number;
  /** Acts on the part; gives 0, or why it could not or not wholly. `place` is the constraint's number among all. */
  readonly apply: (held: Held, read: PoseReader, place: number) => number;
}

export interface ConstraintContext {
  readonly slot: (channel: string) => number;
  readonly part: (id: string) => number;
  readonly pivot: (part: number) => Vec3;
  readonly parent: (part: number) => number;
  /** The slots that a part's local matrix is made of. */
  readonly transformSlots: (part: number) => readonly number[];
  readonly points: (part: number) => { readonly points: readonly Vec3[]; readonly closed: boolean } | null;
  readonly secondsPerFrame: number;
  readonly range: { readonly start: number; readonly end: number };
}

export interface ConstraintRefusal {
  readonly at: readonly (string | number)[];
  readonly message: string;
}

export type MadeConstraint = Pick<CompiledConstraint, 'apply'> &
  Partial<Pick<CompiledConstraint, 'parts' | 'slots' | 'late' | 'bends'>>;

/** All there is to say of a kind of constraint. */
export interface ConstraintKind<T extends Constraint> {
  /** What it does, in a few words; `{field}` stands for the name of what a field names. */
  readonly says: string;
  /** Its own fields; every constraint has an id, a part, and may be muted. */
  readonly fields: Fields;
  /** What of its fields can't stand together. */
  readonly refuse?: (constraint: T) => ConstraintRefusal | null;
  /** It came with the second edition of the format. */
  readonly edition?: (constraint: T) => boolean;
  /** The frames between which it acts, for drawing; left out where it always does. */
  readonly span?: (constraint: T) => { readonly start: number; readonly end: number | null };
  readonly make: (constraint: T, context: ConstraintContext) => MadeConstraint | ConstraintRefusal;
  readonly example: Readonly<Record<string, unknown>>;
}
