import type { Part } from '../../project';
import { channelName } from '../../project';
import { atanJet, reciprocalJet, scaleJet, type Jet } from '../../law';
import { largestGap, type Shot, type Tolerance, type Track } from '../../shot';
import type { GltfBuilder } from './builder';
import { UNSIGNED_BYTE, type GltfAnimation } from './document';
import type { PartNodes } from './scene-writer';

/** What writes fitted tracks into one animation. */
export interface TrackWriter {
  readonly builder: GltfBuilder;
  readonly shot: Shot;
  readonly animation: GltfAnimation;
  /** Fits a track and adds it; `type` is the accessor's: SCALAR, VEC3, VEC4. */
  track(target: GltfAnimation['channels'][number]['target'], type: string, track: Track): void;
}

/** Writes tracks of what no node has: lens, light, material and visibility, by KHR_animation_pointer. */
export class PointerWriter {
  private readonly shot: Shot;

  constructor(private readonly tracks: TrackWriter) {
    this.shot = tracks.shot;
  }

  write({ part, indices, camera, light, material }: PartNodes): void {
    const jet = (property: string) => {
      const slot = this.shot.slotOf(part.id, property);
      return (frame: number) => this.shot.channelJet(slot, frame);
    };
    if (part.kind === 'camera' && camera !== null) {
      const focal = jet('camera.focalLength');
      const yfov = (frame: number): Jet[] => [
        scaleJet(atanJet(scaleJet(reciprocalJet(focal(frame)), part.camera.sensorHeight / 2)), 2),
      ];
      this.pointer(`/cameras/${camera}/perspective/yfov`, 'SCALAR', part, ['camera.focalLength'], yfov);
    }
    if (light !== null) {
      const at = `/extensions/KHR_lights_punctual/lights/${light}`;
      this.plainPointer(`${at}/intensity`, 'SCALAR', part, ['light.intensity'], jet);
      this.plainPointer(
        `${at}/color`,
        'VEC3',
        part,
        ['r', 'g', 'b'].map((c) => `light.color.${c}`),
        jet,
      );
    }
    if (part.kind === 'mesh' && material !== null) {
      const at = `/materials/${material}`;
      this.plainPointer(
        `${at}/pbrMetallicRoughness/baseColorFactor`,
        'VEC4',
        part,
        ['r', 'g', 'b', 'a'].map((c) => `material.baseColor.${c}`),
        jet,
      );
      this.plainPointer(
        `${at}/pbrMetallicRoughness/roughnessFactor`,
        'SCALAR',
        part,
        ['material.roughness'],
        jet,
      );
      this.plainPointer(
        `${at}/pbrMetallicRoughness/metallicFactor`,
        'SCALAR',
        part,
        ['material.metallic'],
        jet,
      );
      this.plainPointer(
        `${at}/emissiveFactor`,
        'VEC3',
        part,
        ['r', 'g', 'b'].map((c) => `material.emissive.${c}`),
        jet,
      );
    }
    this.visibility(part, indices[0]!);
  }

  private plainPointer(
    pointer: string,
    type: string,
    part: Part,
    properties: readonly string[],
    jet: (property: string) => (frame: number) => Jet,
  ): void {
    const jets = properties.map(jet);
    this.pointer(pointer, type, part, properties, (frame) => jets.map((read) => read(frame)));
  }

  private pointer(
    pointer: string,
    type: string,
    part: Part,
    properties: readonly string[],
    jets: (frame: number) => readonly Jet[],
  ): void {
    const channels = properties
      .map((property) => channelName(part.id, property))
      .filter((channel) => this.shot.moving.has(channel));
    if (channels.length === 0) return;
    this.tracks.builder.use('KHR_animation_pointer');
    const target = { path: 'pointer', extensions: { KHR_animation_pointer: { pointer } } };
    const range = Math.max(1e-3, Math.min(1, ...channels.map((channel) => this.shot.channelRange(channel))));
    const error: Tolerance = (a, b) => largestGap(a, b) / (this.shot.tolerance * range);
    this.tracks.track(target, type, { knots: this.shot.channelKnots(channels), jets, error });
  }

  private visibility(part: Part, node: number): void {
    const channel = channelName(part.id, 'visible');
    if (!this.shot.moving.has(channel)) return;
    const slot = this.shot.program.structure.slots.get(channel)!;
    const { start } = this.shot.settings;
    const shown = (frame: number) => this.shot.program.channelValue(slot, frame) >= 0.5;
    const flips = visibleFlips(shown, this.shot.channelKnots([channel]));
    const times = flips.map((frame) =>
      Math.fround((frame - start) * this.shot.program.context.secondsPerFrame),
    );
    const kept = times
      .map((time, i) => ({ time, visible: shown(flips[i]!) }))
      .filter(({ time }, i) => i === 0 || time > times[i - 1]!);
    this.tracks.builder.use('KHR_animation_pointer');
    const sampler = this.tracks.animation.samplers.push({
      input: this.tracks.builder.floats(
        kept.map(({ time }) => time),
        'SCALAR',
        1,
        { bounds: true },
      ),
      output: this.tracks.builder.bytes(
        kept.map(({ visible }) => (visible ? 1 : 0)),
        UNSIGNED_BYTE,
      ),
      interpolation: 'STEP',
    });
    const pointer = `/nodes/${node}/extensions/KHR_node_visibility/visible`;
    this.tracks.animation.channels.push({
      sampler: sampler - 1,
      target: { path: 'pointer', extensions: { KHR_animation_pointer: { pointer } } },
    });
  }
}

/** The start, every frame where it comes or goes, and the end. */
function visibleFlips(shown: (frame: number) => boolean, knots: readonly number[]): number[] {
  const flips = [knots[0]!];
  for (let i = 1; i < knots.length; i++) {
    const [a, b] = [knots[i - 1]!, knots[i]!];
    const steps = Math.max(8, Math.ceil((b - a) * 2));
    for (let s = 1; s <= steps; s++) {
      let low = a + ((b - a) * (s - 1)) / steps;
      let high = a + ((b - a) * s) / steps;
      if (shown(low) === shown(high)) continue;
      for (let halving = 0; halving < 40; halving++) {
        const middle = (low + high) / 2;
        if (shown(middle) === shown(high)) high = middle;
        else low = middle;
      }
      flips.push(high);
    }
  }
  flips.push(knots.at(-1)!);
  return flips;
}
