import type { FittedTrack, Shot, Track } from '../../shot';
import type { GltfBuilder } from './builder';
import type { GltfAnimation } from './document';
import { PointerWriter } from './pointer-writer';
import type { PartNodes, SceneWriter } from './scene-writer';

/** Writes what a shot moves as one animation: the tracks of the nodes, and by pointers what nodes don't have. */
export class AnimationWriter {
  readonly animation: GltfAnimation = { channels: [], samplers: [] };

  constructor(
    readonly builder: GltfBuilder,
    readonly shot: Shot,
    private readonly scene: SceneWriter,
    /** The finished shot, not a clip alone. */
    private readonly isFinished: boolean,
  ) {}

  write(name: string): GltfAnimation | null {
    const pointers = new PointerWriter(this);
    for (const part of this.scene.parts) {
      this.nodes(part);
      this.weights(part);
      pointers.write(part);
    }
    return this.animation.channels.length > 0 ? { name, ...this.animation } : null;
  }

  private nodes({ chain, indices, place }: PartNodes): void {
    chain.forEach(({ tracks }, depth) => {
      for (const track of tracks) {
        const { path } = track;
        const target = { node: indices[depth]!, path };
        const type = path === 'rotation' ? 'VEC4' : 'VEC3';
        if (track.held) this.track(target, type, this.shot.matrixTrack(place, path));
        else {
          const channels = track.channels.filter((channel) => this.shot.moving.has(channel));
          if (channels.length > 0)
            this.track(target, type, this.shot.channelTrack(path, channels, track.jets));
        }
      }
    });
  }

  /** The weights of a deformed mesh's targets, all in one sampler. */
  private weights({ moved, indices }: PartNodes): void {
    if (!moved || (moved.ofShotOnly && !this.isFinished)) return;
    if (!moved.channels.some((channel) => this.shot.moving.has(channel))) return;
    const target = { node: indices.at(-1)!, path: 'weights' };
    this.track(target, 'SCALAR', this.shot.weightsTrack(moved));
  }

  /** Fits a track and adds it. */
  track(target: GltfAnimation['channels'][number]['target'], type: string, track: Track): void {
    const fitted = this.shot.fit(track);
    if (!fitted) return;
    const size = type === 'SCALAR' ? 1 : fitted.values[0]!.length;
    const straight = this.shot.settings.bake || track.straight === true;
    const sampler = this.animation.samplers.push({
      input: this.builder.floats(fitted.times, 'SCALAR', 1, { bounds: true }),
      output: this.builder.floats(straight ? fitted.values.flat() : cubicOutput(fitted), type, size),
      interpolation: straight ? 'LINEAR' : 'CUBICSPLINE',
    });
    this.animation.channels.push({ sampler: sampler - 1, target });
  }
}

function cubicOutput({ inTangents, values, outTangents }: FittedTrack): number[] {
  return values.flatMap((value, i) => [...inTangents[i]!, ...value, ...outTangents[i]!]);
}
