import type { Project } from '../../project';
import { channelCorners, type Program } from '../../evaluate';
import type { GltfBuilder } from './builder';
import type { GltfAnimation } from './document';
import { fitTrack, type FittedTrack } from './fit';
import type { GltfOptions } from './options';
import { PointerWriter, type Track, type TrackWriter } from './pointer-writer';
import type { SceneWriter } from './scene-writer';
import { largestGap, quaternionError, type Tolerance } from './track-errors';

const DEFAULT_TOLERANCE = 1e-4;
/** A tenth of the tolerance goes to each node, as errors add up along a chain of parents. */
const NODE_SHARE = 0.1;
const MOST_TURN = 90;

/** Writes what a program moves as one animation: the tracks of the nodes, and by pointers what nodes don't have. */
export class AnimationWriter implements TrackWriter {
  readonly animation: GltfAnimation = { channels: [], samplers: [] };
  readonly moving: ReadonlySet<string>;
  readonly tolerance: number;

  constructor(
    readonly builder: GltfBuilder,
    private readonly project: Project,
    readonly program: Program,
    private readonly clip: string | undefined,
    private readonly scene: SceneWriter,
    readonly options: GltfOptions & { readonly start: number; readonly end: number },
  ) {
    this.moving = new Set(program.moving);
    this.tolerance = (options.tolerance ?? DEFAULT_TOLERANCE) * NODE_SHARE;
  }

  write(name: string): GltfAnimation | null {
    const pointers = new PointerWriter(this);
    for (const part of this.scene.parts) {
      part.chain.forEach(({ tracks }, depth) => {
        for (const track of tracks) {
          const channels = track.channels.filter((channel) => this.moving.has(channel));
          if (channels.length === 0) continue;
          const target = { node: part.indices[depth]!, path: track.path };
          const turns = track.path === 'rotation';
          this.track({
            target,
            type: turns ? 'VEC4' : 'VEC3',
            channels,
            jets: track.jets,
            error: this.errorFor(track.path, channels),
            ...(turns ? { turning: channels } : {}),
          });
        }
      });
      pointers.write(part);
    }
    return this.animation.channels.length > 0 ? { name, ...this.animation } : null;
  }

  private errorFor(path: string, channels: readonly string[]): Tolerance {
    if (path === 'rotation') return (a, b) => quaternionError(a, b) / this.tolerance;
    if (path === 'scale') return (a, b) => largestGap(a, b) / this.tolerance;
    const range = Math.max(1e-6, Math.min(1, ...channels.map((channel) => this.channelRange(channel))));
    return (a, b) => Math.hypot(...a.map((v, i) => v - b[i]!)) / (this.tolerance * range);
  }

  /** Greatest less least value of a channel over the span; 1 for a flat one. */
  channelRange(channel: string): number {
    const slot = this.program.structure.slots.get(channel)!;
    let [low, high] = [Infinity, -Infinity];
    for (const frame of this.knots([channel])) {
      const value = this.program.channelValue(slot, frame);
      low = Math.min(low, value);
      high = Math.max(high, value);
    }
    return high > low ? high - low : 1;
  }

  /** Frames that a track of these channels must have keys on. */
  knots(channels: readonly string[]): number[] {
    const { start, end } = this.options;
    const curves = this.project.clips.find((clip) => clip.id === this.clip)?.curves ?? [];
    const all = new Set(
      channels.flatMap((channel) => channelCorners(this.project, curves, channel, start, end)),
    );
    if (this.options.bake) for (let frame = start; frame < end; frame++) all.add(frame);
    const sorted = [...all].sort((a, b) => a - b);
    return sorted.filter((frame, i) => i === 0 || frame - sorted[i - 1]! > 1e-7);
  }

  /** Fits a track to a function and adds it. */
  track({ target, type, channels, jets, error, turning }: Track): void {
    const knots = this.knots(channels);
    if (knots.length < 2) return;
    const linear = this.options.bake === true;
    const spf = this.program.context.secondsPerFrame;
    const fitted = fitTrack({
      knots,
      secondsPerFrame: spf,
      jets,
      error,
      linear,
      ...(turning ? { tooLong: (from, to) => this.turnBetween(turning, from, to) > MOST_TURN } : {}),
    });
    const size = fitted.values[0]!.length;
    const output = linear ? fitted.values.flat() : cubicOutput(fitted);
    const sampler = this.animation.samplers.push({
      input: this.builder.floats(fitted.times, 'SCALAR', 1, { bounds: true }),
      output: this.builder.floats(output, type, size),
      interpolation: linear ? 'LINEAR' : 'CUBICSPLINE',
    });
    this.animation.channels.push({ sampler: sampler - 1, target });
  }

  /** Degrees turned between two frames, summed over the axes along the path. */
  private turnBetween(channels: readonly string[], from: number, to: number): number {
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
}

function cubicOutput({ inTangents, values, outTangents }: FittedTrack): number[] {
  return values.flatMap((value, i) => [...inTangents[i]!, ...value, ...outTangents[i]!]);
}
