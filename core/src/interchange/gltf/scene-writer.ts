import type { Part } from '../../project';
import { channelName } from '../../project';
import { movedMesh, type MovedMesh, type Shot } from '../../shot';
import { AssetMeshes } from './asset-meshes';
import type { GltfBuilder } from './builder';
import type { GltfNode } from './document';
import { uniqueNames } from './names';
import { addCamera, addLight, addMesh, assetSources } from './part-content';
import { partChain, type ChainNode } from './part-nodes';

/** A part as it stands in the file: its chain of nodes with their indices, and what it shows. */
export interface PartNodes {
  readonly part: Part;
  /** The part's place in the project's file. */
  readonly place: number;
  readonly chain: readonly ChainNode[];
  readonly indices: readonly number[];
  readonly material: number | null;
  readonly camera: number | null;
  readonly light: number | null;
  /** How its mesh is deformed; null where it is not. */
  readonly moved: MovedMesh | null;
}

/** Writes the parts as chains of nodes, with their meshes, materials, cameras and lights, and the scene that holds them. */
export class SceneWriter {
  readonly parts: PartNodes[] = [];
  private readonly lights: unknown[] = [];

  constructor(
    private readonly builder: GltfBuilder,
    private readonly shot: Shot,
    private readonly clips: readonly Shot[],
  ) {}

  write(): void {
    const { builder } = this;
    const { project } = this.shot;
    const names = uniqueNames(project.parts.map((part) => part.id));
    const assets = new AssetMeshes(builder, assetSources(project));
    const roots: number[] = [];
    const last = new Map<string, GltfNode>();
    project.parts.forEach((part, i) => {
      const chain = partChain(this.shot, part, i);
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
      if (part.visible < 0.5 || this.shot.moving.has(channelName(part.id, 'visible'))) {
        builder.use('KHR_node_visibility');
        first.extensions = { ...first.extensions, KHR_node_visibility: { visible: part.visible >= 0.5 } };
      }
      this.parts.push({ part, place: i, chain, indices, ...content });
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
  ): Pick<PartNodes, 'material' | 'camera' | 'light' | 'moved'> {
    const none = { material: null, camera: null, light: null, moved: null };
    switch (part.kind) {
      case 'mesh': {
        const alone = this.clips.map(({ program }) => program);
        const moved = movedMesh(part, this.shot.program, alone, this.shot.settings);
        const added = addMesh(
          this.builder,
          part,
          assets,
          moved && { ...moved, first: moved.weights(this.shot.program, this.shot.settings.start) },
        );
        if (!added) return none;
        node.mesh = added.mesh;
        return { ...none, material: added.material, moved };
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
