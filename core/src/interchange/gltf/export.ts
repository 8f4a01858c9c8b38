import type { Part, Project, Result } from '../../project';
import { activeClip, channelName, secondsPerFrame, writeProject } from '../../project';
import { channelCorners, compile, type Program } from '../../evaluate';
import { atanJet, reciprocalJet, scaleJet, type Jet } from '../../law';
import { AssetMeshes } from './asset-meshes';
import { GltfBuilder } from './builder';
import { gltfDigest } from './digest';
import type { GltfAnimation, GltfDocument, GltfNode } from './document';
import { fitTrack, type FittedTrack } from './fit';
import { uniqueNames } from './names';
import { addCamera, addLight, addMesh, assetSources } from './part-content';
import { framesJet, partChain, type ChainNode } from './part-nodes';
import { UNSIGNED_BYTE } from './document';

export interface GltfOptions {
  /** Plain sampled keys, straight between, that every reader shows alike. */
  readonly bake?: boolean;
  readonly start?: number;
  readonly end?: number;
  /** The first animation shows this clip alone. */
  readonly clip?: string;
  /** Share of a track's range that may be off; default 1e-4. Turns get 0.01° at that. */
  readonly tolerance?: number;
}

const DEFAULT_TOLERANCE = 1e-4;
/** A tenth of the tolerance goes to each node, as errors add up along a chain of parents. */
const NODE_SHARE = 0.1;
const MOST_TURN = 90;

/**
 * The project as glTF 2.0: parts as chains of plain nodes, materials, cameras, lights; the shot over the range as
 * the first animation, then one animation a clip (contract §10). Times are seconds from the range's start.
 */
export function exportGltf(project: Project, options: GltfOptions = {}): Result<GltfDocument> {
  const shot = compile(project, options.clip === undefined ? {} : { clip: options.clip });
  if (!shot.ok) return shot;
  const builder = new GltfBuilder();
  const scene = new SceneWriter(builder, project, shot.value);
  scene.write();
  const span = { start: options.start ?? project.range.start, end: options.end ?? project.range.end };
  const shotClip = options.clip ?? activeClip(project)?.id;
  const animate = (name: string, program: Program, clip: string | undefined) =>
    new AnimationWriter(builder, project, program, clip, scene, { ...options, ...span }).write(name);
  const first = animate(project.name, shot.value, shotClip);
  if (first) builder.add('animations', first);
  for (const clip of project.clips) {
    if (!first) break;
    if (clip.id === shotClip) {
      builder.add('animations', { ...first, name: clip.name });
      continue;
    }
    const alone = compile(project, { clip: clip.id });
    const animation = alone.ok ? animate(clip.name, alone.value, clip.id) : null;
    if (animation) builder.add('animations', animation);
  }
  const made = builder.finish();
  made.json.asset.extras = {
    kaizen: {
      version: 1,
      digest: gltfDigest(made),
      project: JSON.parse(writeProject(project)) as unknown,
      start: span.start,
      secondsPerFrame: secondsPerFrame(project.rate),
    },
  };
  return { ok: true, value: made };
}

interface PartNodes {
  readonly part: Part;
  readonly chain: readonly ChainNode[];
  readonly indices: readonly number[];
  readonly material: number | null;
  readonly camera: number | null;
  readonly light: number | null;
}

class SceneWriter {
  readonly parts: PartNodes[] = [];
  private readonly lights: unknown[] = [];

  constructor(
    private readonly builder: GltfBuilder,
    private readonly project: Project,
    private readonly program: Program,
  ) {}

  write(): void {
    const { builder, project } = this;
    const names = uniqueNames(project.parts.map((part) => part.id));
    const assets = new AssetMeshes(builder, assetSources(project));
    const roots: number[] = [];
    const last = new Map<string, GltfNode>();
    project.parts.forEach((part, i) => {
      const chain = partChain(project, this.program, part);
      const indices = chain.map(({ node }, depth) => {
        node.name =
          depth === 0 ? names[i]! : `${names[i]!}_${depth === chain.length - 1 ? 'body' : 'squash'}`;
        return builder.add('nodes', node);
      });
      chain.slice(1).forEach((_, depth) => (chain[depth]!.node.children = [indices[depth + 1]!]));
      const bearer = chain.at(-1)!.node;
      last.set(part.id, bearer);
      const content = this.content(part, bearer, assets);
      const first = chain[0]!.node;
      first.extras = { kaizen: { id: part.id, name: part.name, kind: part.kind } };
      if (part.visible < 0.5 || this.program.moving.includes(channelName(part.id, 'visible'))) {
        builder.use('KHR_node_visibility');
        first.extensions = { ...first.extensions, KHR_node_visibility: { visible: part.visible >= 0.5 } };
      }
      this.parts.push({ part, chain, indices, ...content });
    });
    this.parts.forEach(({ part, indices }) => {
      const parent = part.parent === null ? undefined : last.get(part.parent);
      if (parent) (parent.children ??= []).push(indices[0]!);
      else roots.push(indices[0]!);
    });
    builder.json.scene = 0;
    builder.json.scenes = [{ name: project.name, ...(roots.length > 0 ? { nodes: roots } : {}) }];
    if (this.lights.length > 0) builder.json.extensions = { KHR_lights_punctual: { lights: this.lights } };
  }

  private content(
    part: Part,
    node: GltfNode,
    assets: AssetMeshes,
  ): Pick<PartNodes, 'material' | 'camera' | 'light'> {
    const none = { material: null, camera: null, light: null };
    switch (part.kind) {
      case 'mesh': {
        const added = addMesh(this.builder, part, assets);
        if (!added) return none;
        node.mesh = added.mesh;
        return { ...none, material: added.material };
      }
      case 'camera':
        node.camera = addCamera(this.builder, part.camera);
        return { ...none, camera: node.camera };
      case 'light': {
        const light = addLight(this.builder, this.lights, part.light);
        node.extensions = { KHR_lights_punctual: { light } };
        return { ...none, light };
      }
      case 'path':
      case 'group':
        return none;
    }
  }
}

type Tolerance = (interpolated: readonly number[], exact: readonly number[]) => number;

class AnimationWriter {
  private readonly animation: GltfAnimation = { channels: [], samplers: [] };
  private readonly moving: ReadonlySet<string>;
  private readonly tolerance: number;

  constructor(
    private readonly builder: GltfBuilder,
    private readonly project: Project,
    private readonly program: Program,
    private readonly clip: string | undefined,
    private readonly scene: SceneWriter,
    private readonly options: GltfOptions & { readonly start: number; readonly end: number },
  ) {
    this.moving = new Set(program.moving);
    this.tolerance = (options.tolerance ?? DEFAULT_TOLERANCE) * NODE_SHARE;
  }

  write(name: string): GltfAnimation | null {
    for (const part of this.scene.parts) {
      part.chain.forEach(({ tracks }, depth) => {
        for (const track of tracks) {
          const channels = track.channels.filter((channel) => this.moving.has(channel));
          if (channels.length === 0) continue;
          const target = { node: part.indices[depth]!, path: track.path };
          const size = track.path === 'rotation' ? 4 : 3;
          this.track(
            target,
            size === 4 ? 'VEC4' : 'VEC3',
            channels,
            track.jets,
            this.errorFor(track.path, channels),
            track.path === 'rotation' ? channels : [],
          );
        }
      });
      this.pointers(part);
    }
    return this.animation.channels.length > 0 ? { name, ...this.animation } : null;
  }

  private errorFor(path: string, channels: readonly string[]): Tolerance {
    if (path === 'rotation') return (a, b) => quaternionError(a, b) / this.tolerance;
    if (path === 'scale') return (a, b) => largestGap(a, b) / this.tolerance;
    const range = Math.max(1e-6, Math.min(1, ...channels.map((channel) => this.channelRange(channel))));
    return (a, b) => Math.hypot(...a.map((v, i) => v - b[i]!)) / (this.tolerance * range);
  }

  private channelRange(channel: string): number {
    const slot = this.program.structure.slots.get(channel)!;
    let [low, high] = [Infinity, -Infinity];
    for (const frame of this.knots([channel])) {
      const value = this.program.channelValue(slot, frame);
      low = Math.min(low, value);
      high = Math.max(high, value);
    }
    return high > low ? high - low : 1;
  }

  private knots(channels: readonly string[]): number[] {
    const { start, end } = this.options;
    const curves = this.project.clips.find((clip) => clip.id === this.clip)?.curves ?? [];
    const all = new Set(
      channels.flatMap((channel) => channelCorners(this.project, curves, channel, start, end)),
    );
    if (this.options.bake) for (let frame = start; frame < end; frame++) all.add(frame);
    const sorted = [...all].sort((a, b) => a - b);
    return sorted.filter((frame, i) => i === 0 || frame - sorted[i - 1]! > 1e-7);
  }

  private track(
    target: GltfAnimation['channels'][number]['target'],
    type: string,
    channels: readonly string[],
    jets: (frame: number) => readonly Jet[],
    error: Tolerance,
    turning: readonly string[],
  ): void {
    const knots = this.knots(channels);
    if (knots.length < 2) return;
    const linear = this.options.bake === true;
    const spf = this.program.context.secondsPerFrame;
    const tooLong = (from: number, to: number) => this.turnBetween(turning, from, to) > MOST_TURN;
    const fitted = fitTrack({
      knots,
      secondsPerFrame: spf,
      jets,
      error,
      linear,
      ...(turning.length > 0 ? { tooLong } : {}),
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

  /** Lens, light, material and visibility by KHR_animation_pointer. */
  private pointers({ part, indices, camera, light, material }: PartNodes): void {
    const jet = (property: string) => {
      const slot = this.program.structure.slots.get(channelName(part.id, property))!;
      return (frame: number) => framesJet(this.program, slot, frame);
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
      .filter((channel) => this.moving.has(channel));
    if (channels.length === 0) return;
    this.builder.use('KHR_animation_pointer');
    const target = { path: 'pointer', extensions: { KHR_animation_pointer: { pointer } } };
    const range = Math.max(1e-3, Math.min(1, ...channels.map((channel) => this.channelRange(channel))));
    this.track(target, type, channels, jets, (a, b) => largestGap(a, b) / (this.tolerance * range), []);
  }

  private visibility(part: Part, node: number): void {
    const channel = channelName(part.id, 'visible');
    if (!this.moving.has(channel)) return;
    const slot = this.program.structure.slots.get(channel)!;
    const { start } = this.options;
    const shown = (frame: number) => this.program.channelValue(slot, frame) >= 0.5;
    const flips = visibleFlips(shown, this.knots([channel]));
    const times = flips.map((frame) => Math.fround((frame - start) * this.program.context.secondsPerFrame));
    const kept = times
      .map((time, i) => ({ time, visible: shown(flips[i]!) }))
      .filter(({ time }, i) => i === 0 || time > times[i - 1]!);
    this.builder.use('KHR_animation_pointer');
    const sampler = this.animation.samplers.push({
      input: this.builder.floats(
        kept.map(({ time }) => time),
        'SCALAR',
        1,
        { bounds: true },
      ),
      output: this.builder.bytes(
        kept.map(({ visible }) => (visible ? 1 : 0)),
        UNSIGNED_BYTE,
      ),
      interpolation: 'STEP',
    });
    const pointer = `/nodes/${node}/extensions/KHR_node_visibility/visible`;
    this.animation.channels.push({
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

function cubicOutput({ inTangents, values, outTangents }: FittedTrack): number[] {
  return values.flatMap((value, i) => [...inTangents[i]!, ...value, ...outTangents[i]!]);
}

function largestGap(a: readonly number[], b: readonly number[]): number {
  return a.reduce((most, value, i) => Math.max(most, Math.abs(value - b[i]!)), 0);
}

/** The angle in radians between two quaternions of one sign, the first normalised as readers do. */
function quaternionError(a: readonly number[], b: readonly number[]): number {
  const length = Math.hypot(...a) || 1;
  return 2 * Math.hypot(...a.map((value, i) => value / length - b[i]!));
}
