import type { Clip, KeyedCurve, Weight } from './curve-types';

export * from './curve-types';

/**
 * The project as a value: the file of contract §2 with its defaults filled in. Everything is readonly;
 * an edit makes a new project that shares whatever did not change. Angles are degrees, lengths metres,
 * times frames.
 */
export type Vec3 = readonly [number, number, number];
export type Rgb = readonly [number, number, number];
export type Rgba = readonly [number, number, number, number];

export interface Rate {
  readonly frames: number;
  readonly per: number;
}

export interface Range {
  readonly start: number;
  readonly end: number;
  readonly loop: boolean;
}

export const TURN_ORDERS = ['XYZ', 'XZY', 'YXZ', 'YZX', 'ZXY', 'ZYX'] as const;
export type TurnOrder = (typeof TURN_ORDERS)[number];
export type Axis = 'x' | 'y' | 'z';

export interface Rest {
  readonly translate: Vec3;
  readonly rotate: Vec3;
  readonly scale: Vec3;
}

export interface Squash {
  readonly axis: Axis;
  readonly anchor: Vec3;
  readonly frame: 'part' | 'parent';
  /** The bounds, from the anchor along the axis in metres, between which the mesh itself bulges instead of being stretched. */
  readonly round?: { readonly from: number; readonly to: number };
}

export interface CustomChannel {
  readonly name: string;
  readonly value: number;
  readonly min?: number | null;
  readonly max?: number | null;
  readonly unit?: string;
}

export interface Limit {
  readonly min?: number | null;
  readonly max?: number | null;
  readonly speed?: number | null;
  readonly acceleration?: number | null;
  readonly jerk?: number | null;
}

export type Geometry =
  | { readonly shape: 'box'; readonly size: Vec3 }
  | {
      readonly shape: 'cylinder';
      readonly radius: number;
      readonly height: number;
      readonly topRadius?: number;
    }
  | { readonly shape: 'sphere'; readonly radius: number }
  | { readonly shape: 'torus'; readonly radius: number; readonly tube: number }
  | { readonly shape: 'plane'; readonly size: readonly [number, number] }
  | { readonly shape: 'lathe'; readonly profile: readonly (readonly [number, number])[] }
  | {
      readonly shape: 'extrude';
      readonly outline: readonly (readonly [number, number])[];
      readonly depth: number;
    }
  | {
      readonly shape: 'gear';
      readonly teeth: number;
      readonly module: number;
      readonly width: number;
      readonly bore?: number;
    }
  | AssetGeometry;

/** The mesh of a node of a model; `skin` names the parts that are its joints, in the order of the model's own skin. */
export interface AssetGeometry {
  readonly shape: 'asset';
  readonly asset: string;
  readonly node: string;
  readonly skin?: readonly string[];
}

export interface Material {
  readonly baseColor: Rgba;
  readonly roughness: number;
  readonly metallic: number;
  readonly emissive: Rgb;
}

/** One move of a made morph target: points within `radius` metres of `at` go by `by`, and away from it by `scale`. */
export interface MorphMove {
  readonly at: Vec3;
  readonly radius: number;
  readonly by: Vec3;
  readonly scale: number;
}

/** A morph target: made of moves, or, without them, one of the asset's own. */
export interface Morph {
  readonly name: string;
  readonly value: number;
  readonly moves?: readonly MorphMove[];
}

export interface CameraBlock {
  readonly focalLength: number;
  readonly sensorHeight: number;
  readonly focusDistance: number;
  readonly fStop: number;
  readonly near: number;
  readonly far: number;
}

export interface LightBlock {
  readonly type: 'directional' | 'point' | 'spot';
  readonly color: Rgb;
  readonly intensity: number;
  /** How bright the sky is, 0 to 1; a directional light that has it is the sun of the surroundings. */
  readonly sky?: number;
  readonly range?: number | null;
  readonly cone?: number | null;
}

export interface PathBlock {
  readonly points: readonly Vec3[];
  readonly closed: boolean;
}

interface PartBase {
  readonly id: string;
  readonly name: string;
  readonly parent: string | null;
  readonly rest: Rest;
  readonly pivot: Vec3;
  readonly turnOrder: TurnOrder;
  readonly squash?: Squash;
  readonly custom: readonly CustomChannel[];
  readonly limits: Readonly<Record<string, Limit>>;
  readonly visible: number;
}

export interface GroupPart extends PartBase {
  readonly kind: 'group';
}
export interface MeshPart extends PartBase {
  readonly kind: 'mesh';
  readonly geometry: Geometry;
  readonly material: Material;
  readonly morphs: readonly Morph[];
}
export interface CameraPart extends PartBase {
  readonly kind: 'camera';
  readonly camera: CameraBlock;
}
export interface LightPart extends PartBase {
  readonly kind: 'light';
  readonly light: LightBlock;
}
export interface PathPart extends PartBase {
  readonly kind: 'path';
  readonly path: PathBlock;
}
export type Part = GroupPart | MeshPart | CameraPart | LightPart | PathPart;

interface DriverBase {
  readonly id: string;
  readonly target: string;
  readonly combine: 'replace' | 'add';
  readonly muted: boolean;
}
export interface ExpressionDriver extends DriverBase {
  readonly kind: 'expression';
  readonly inputs: Readonly<Record<string, string>>;
  readonly expression: string;
}
export interface MapDriver extends DriverBase {
  readonly kind: 'map';
  readonly input: string;
  readonly curve: KeyedCurve;
}
export interface LinkageDriver extends DriverBase {
  readonly kind: 'linkage';
  readonly linkage: string;
  readonly inputs: Readonly<Record<string, string>>;
  readonly output: string;
  readonly params: Readonly<Record<string, unknown>>;
}
export interface EchoDriver extends DriverBase {
  readonly kind: 'echo';
  readonly input: string;
  readonly delay: number;
  readonly gain: number;
  readonly from: number | null;
  readonly to: number | null;
}
/** A damped spring that a value hangs on: `frequency` in Hz, `start` and `loop` in frames. */
export interface Spring {
  readonly frequency: number;
  readonly damping: number;
  readonly start: number;
  readonly loop: number | null;
}
export interface FollowDriver extends DriverBase, Spring {
  readonly kind: 'follow';
  readonly input: string;
}
export interface DistanceDriver extends DriverBase {
  readonly kind: 'distance';
  readonly of: string;
  readonly to: string;
  readonly axis: SignedAxis | null;
}
export type Driver =
  ExpressionDriver | MapDriver | LinkageDriver | EchoDriver | FollowDriver | DistanceDriver;

export const SIGNED_AXES = ['x', '-x', 'y', '-y', 'z', '-z'] as const;
export type SignedAxis = (typeof SIGNED_AXES)[number];

interface ConstraintBase {
  readonly id: string;
  readonly part: string;
  readonly muted: boolean;
}
/** The part rides along with its target from `start` to `end`, and stays where it was let go. */
export interface AttachConstraint extends ConstraintBase {
  readonly kind: 'attach';
  readonly target: string;
  readonly start: number;
  readonly end: number | null;
}
/** The pivot stays where it is at `start`, with `turn` the orientation too. */
export interface PlantConstraint extends ConstraintBase {
  readonly kind: 'plant';
  readonly start: number;
  readonly end: number;
  readonly fade: number;
  readonly turn: boolean;
}
export interface AimConstraint extends ConstraintBase {
  readonly kind: 'aim';
  readonly target: string;
  readonly axis: SignedAxis;
  readonly up: SignedAxis;
  readonly weight: number;
  readonly lag: Spring | null;
}
export interface ReachConstraint extends ConstraintBase {
  readonly kind: 'reach';
  readonly middle: string;
  readonly tip: string;
  readonly target: string;
  readonly axis: SignedAxis;
  readonly bend: 1 | -1;
  readonly weight: number;
}
export interface AlongConstraint extends ConstraintBase {
  readonly kind: 'along';
  readonly path: string;
  readonly distance: string;
  readonly orient: boolean;
}
export interface ChaseConstraint extends ConstraintBase {
  readonly kind: 'chase';
  readonly target: string;
  readonly offset: Vec3;
  readonly axes: string;
  readonly weight: number;
  readonly lag: Spring | null;
}
export interface HeadingConstraint extends ConstraintBase {
  readonly kind: 'heading';
  readonly axis: SignedAxis;
  readonly up: SignedAxis;
  readonly weight: number;
  readonly span: number;
}
export type Constraint =
  | AttachConstraint
  | PlantConstraint
  | AimConstraint
  | ReachConstraint
  | AlongConstraint
  | ChaseConstraint
  | HeadingConstraint;

/** A clip laid into the shot (contract §6). Times are frames; `weight` a factor or a curve over the shot's frames. */
export interface Placement {
  readonly id: string;
  readonly clip: string;
  readonly start: number;
  readonly from: number;
  readonly to: number;
  readonly speed: number;
  readonly repeats: number;
  readonly repeat: 'loop' | 'carry';
  readonly mode: 'replace' | 'add';
  readonly weight: Weight;
  readonly fadeIn: number;
  readonly fadeOut: number;
  readonly after: 'none' | 'hold';
  /** From the shot's frames to the clip's, in place of speed and repeats. */
  readonly time: KeyedCurve | null;
  readonly partMap: Readonly<Record<string, string>>;
  readonly muted: boolean;
}

export interface Asset {
  readonly id: string;
  readonly name: string;
  readonly type: string;
  readonly sha256: string;
  readonly uri: string;
  /** What was read, approximated and left out when it was brought, a sentence each. */
  readonly report?: readonly string[];
}

/** Which way a value passes another: rising, falling, or whichever. */
export const WAYS = ['up', 'down', 'either'] as const;
export type Way = (typeof WAYS)[number];

/** What a key waits for: a key of another channel, or the moment at which a channel passes a value for the `nth` time in the shot. */
export type Awaited =
  | { readonly kind: 'key'; readonly channel: string; readonly frame: number }
  | {
      readonly kind: 'passes';
      readonly channel: string;
      readonly value: number;
      readonly way: Way;
      readonly nth: number;
    };

/**
 * A tie in time: the key of `channel` at `frame` comes no sooner than `gap` frames after what it waits for, or, where it is `exact`,
 * just so many frames after it. Edits of the clip keep it.
 */
export interface Interlock {
  readonly id: string;
  readonly clip: string;
  readonly channel: string;
  readonly frame: number;
  readonly after: Awaited;
  readonly gap: number;
  readonly exact: boolean;
  readonly muted: boolean;
}

/** What a marker is for; it tells its colour. */
export const MARKER_KINDS = ['note', 'hold', 'camera', 'contact', 'sound'] as const;
export type MarkerKind = (typeof MARKER_KINDS)[number];

/** A named place on the ruler, or, with an `end`, a named span of it. In frames. */
export interface Marker {
  readonly id: string;
  readonly name: string;
  readonly kind: MarkerKind;
  readonly frame: number;
  readonly end: number | null;
}

/** A sound that plays in step with the shot; its first sample is heard at `start` (frames). `gain` is a factor. */
export interface Sound {
  readonly id: string;
  readonly asset: string;
  readonly start: number;
  readonly gain: number;
  readonly muted: boolean;
}

/** A pose on the shelf: a value for each of some channels, and a small picture as a data URI. */
export interface Pose {
  readonly id: string;
  readonly name: string;
  readonly values: Readonly<Record<string, number>>;
  readonly picture: string | null;
}

export interface Project {
  readonly format: 'kaizen';
  readonly version: 1;
  /** The edition of the format that the file needs. */
  readonly edition: number;
  readonly id: string;
  readonly name: string;
  readonly rate: Rate;
  readonly range: Range;
  readonly gravity: number;
  readonly floor: number;
  readonly parts: readonly Part[];
  readonly clips: readonly Clip[];
  readonly activeClip: string;
  readonly arrangement: readonly Placement[];
  readonly drivers: readonly Driver[];
  readonly constraints: readonly Constraint[];
  readonly interlocks: readonly Interlock[];
  readonly assets: readonly Asset[];
  readonly markers: readonly Marker[];
  readonly sounds: readonly Sound[];
  readonly poses: readonly Pose[];
}

/** Something wrong in a file: a JSON pointer, and one sentence with what is wrong and what would be right. */
export interface Problem {
  readonly pointer: string;
  readonly message: string;
}

export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problems: readonly Problem[] };
