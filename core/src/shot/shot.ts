import { channelName, greatestOf, type Project } from '../project';
import { channelCorners, matrixCorners, type Program } from '../evaluate';
import type { Jet } from '../law';
import { fitTrack, type FittedTrack } from './fit';
import { MatrixReader } from './matrix-reader';
import type { MovedMesh } from './moved-mesh';
import type { NodePath, Track } from './track';
import { largestGap, quaternionError, type Tolerance } from './track-errors';

/** What of a shot is wanted, and how well. */
export interface ShotSettings {
  readonly start: number;
  readonly end: number;
  /** Straight between keys, one on every whole frame at least. */
  readonly bake: boolean;
  /** Share of a track's range that may be off; turns get 100 times as many degrees. */
  readonly tolerance: number;
  /** This clip alone; undefined: the arrangement, or without one the active clip. */
  readonly clip?: string | undefined;
}

/** Errors add up along a chain of parents: a node gets this share of the tolerance. */
const NODE_SHARE = 0.1;
/** No more degrees between two keys of a turn: beyond 180 they would turn back. */
const MOST_TURN = 90;
/** Metres by which weights may move a point of a deformed mesh. */
const WEIGHT_ERROR = 1e-5;

/**
 * The finished shot, as tracks: of channels, of the matrices that constraints make, of meshes that are deformed. It knows nothing
 * of formats; they read from it what they can carry.
 */
export class Shot {
  readonly moving: ReadonlySet<string>;
  readonly tolerance: number;
  private readonly held: ReadonlySet<number>;
  private readonly ranges = new Map<string, number>();
  private readonly matrices = new Map<number, MatrixReader>();

  constructor(
    readonly project: Project,
    readonly program: Program,
    readonly settings: ShotSettings,
  ) {
    this.moving = new Set(program.moving);
    this.tolerance = settings.tolerance * NODE_SHARE;
    this.held = new Set(
      program.constraints.flatMap(({ part, bends }) => (bends >= 0 ? [part, bends] : [part])),
    );
  }

  /** Whether a part's matrix is made by constraints, not by its channels alone. */
  isHeld(part: number): boolean {
    return this.held.has(part);
  }

  /** The slot of a part's property. */
  slotOf(part: string, property: string): number {
    return this.program.structure.slots.get(channelName(part, property)) ?? -1;
  }

  /** Frames that a track of these channels must have keys on. */
  channelKnots(channels: readonly string[]): number[] {
    const { start, end } = this.settings;
    return this.inOrder(channels.flatMap((channel) => channelCorners(this.shotOf, channel, start, end)));
  }

  private get shotOf(): { readonly project: Project; readonly clip: string | undefined } {
    return { project: this.project, clip: this.settings.clip };
  }

  /** Frames in order, apart from each other; with `bake` every whole one among them. */
  inOrder(frames: readonly number[]): number[] {
    const { start, end, bake } = this.settings;
    const all = new Set(frames);
    if (bake) for (let frame = start; frame < end; frame++) all.add(frame);
    const sorted = [...all].sort((a, b) => a - b);
    return sorted.filter((frame, i) => i === 0 || frame - sorted[i - 1]! > 1e-7);
  }

  /** Greatest less least value of a channel over the span; 1 for a flat one. */
  channelRange(channel: string): number {
    let range = this.ranges.get(channel);
    if (range === undefined) {
      const slot = this.program.structure.slots.get(channel)!;
      let [low, high] = [Infinity, -Infinity];
      for (const frame of this.channelKnots([channel])) {
        const value = this.program.channelValue(slot, frame);
        low = Math.min(low, value);
        high = Math.max(high, value);
      }
      this.ranges.set(channel, (range = high > low ? high - low : 1));
    }
    return range;
  }

  /** A channel's jet per frame; the program gives it per second. */
  channelJet(slot: number, frame: number): Jet {
    const spf = this.program.context.secondsPerFrame;
    const [v, d1, d2, d3] = this.program.channelRates(slot, frame);
    return [v, d1 * spf, d2 * spf * spf, d3 * spf ** 3];
  }

  /** A track of a node's path that some channels of one part make. */
  channelTrack(path: NodePath, channels: readonly string[], jets: Track['jets']): Track {
    const knots = this.channelKnots(channels);
    const turning =
      path === 'rotation' ? { turned: (from: number, to: number) => this.turned(channels, from, to) } : {};
    return { knots, jets, error: this.errorFor(path, channels), ...turning };
  }

  private errorFor(path: NodePath, channels: readonly string[]): Tolerance {
    if (path === 'rotation') return (a, b) => quaternionError(a, b) / this.tolerance;
    if (path === 'scale') return (a, b) => largestGap(a, b) / this.tolerance;
    const range = Math.max(1e-6, Math.min(1, ...channels.map((channel) => this.channelRange(channel))));
    return (a, b) => Math.hypot(...a.map((v, i) => v - b[i]!)) / (this.tolerance * range);
  }

  /** Degrees turned between two frames, summed over the axes along the way. */
  private turned(channels: readonly string[], from: number, to: number): number {
    let sum = 0;
    for (const channel of channels) {
      const slot = this.program.structure.slots.get(channel)!;
      let last = this.program.channelValue(slot, from);
      for (let i = 1; i <= 8; i++) {
        const value = this.program.channelValue(slot, i === 8 ? to - 1e-6 : from + ((to - from) * i) / 8);
        sum += Math.abs(value - last);
        last = value;
      }
    }
    return sum;
  }

  /** How a part's finished matrix stands in its parent's finished one. */
  matrixOf(part: number): MatrixReader {
    let reader = this.matrices.get(part);
    if (!reader) {
      const { start, end } = this.settings;
      const { id } = this.program.structure.parts[part]!;
      const knots = this.inOrder(matrixCorners(this.shotOf, id, start, end));
      this.matrices.set(part, (reader = new MatrixReader(this.program, part, knots)));
    }
    return reader;
  }

  /** A track of a held part's node. */
  matrixTrack(part: number, path: NodePath): Track {
    const reader = this.matrixOf(part);
    const { knots } = reader;
    const jets = reader.jets(path);
    if (path !== 'rotation') return { knots, jets, error: (a, b) => largestGap(a, b) / this.tolerance };
    return {
      knots,
      jets,
      error: (a, b) => quaternionError(a, b) / this.tolerance,
      turned: (from, to) => reader.turned(from, to),
    };
  }

  /** The weights of a deformed mesh's targets: straight between frames on which they bend. */
  weightsTrack({ channels, bends, weights, targets }: MovedMesh): Track {
    const reach = targets.map(({ displacements }) => Math.max(1e-3, greatestOf(displacements.map(Math.abs))));
    return {
      knots: this.inOrder([...this.channelKnots(channels), ...bends]),
      jets: (frame) => weights(this.program, frame).map((weight): Jet => [weight, 0, 0, 0]),
      // A weight may be off by what moves no point further than half of a tenth of a millimetre.
      error: (a, b) => a.reduce((sum, v, i) => sum + Math.abs(v - b[i]!) * reach[i]!, 0) / WEIGHT_ERROR,
      straight: true,
    };
  }

  /** Keys that meet a track within its tolerance; null where the span is a single frame. */
  fit({ knots, jets, error, turned, straight }: Track): FittedTrack | null {
    if (knots.length < 2) return null;
    return fitTrack({
      knots,
      secondsPerFrame: this.program.context.secondsPerFrame,
      jets,
      error,
      linear: this.settings.bake || straight === true,
      ...(turned ? { tooLong: (from, to) => turned(from, to) > MOST_TURN } : {}),
    });
  }
}
