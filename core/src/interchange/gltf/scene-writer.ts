import type { Part, Project } from '../../project';
import { channelName } from '../../project';
import type { Program } from '../../evaluate';
import { AssetMeshes } from './asset-meshes';
import type { GltfBuilder } from './builder';
import type { GltfNode } from './document';
import { uniqueNames } from './names';
import { addCamera, addLight, addMesh, assetSources } from './part-content';
import { partChain, type ChainNode } from './part-nodes';

/** A part as it stands in the file: its chain of nodes with their indices, and what it shows. */
export interface PartNodes {
  readonly part: Part;
  readonly chain: readonly ChainNode[];
  readonly indices: readonly number[];
  readonly material: number | null;
  readonly camera: number | null;
  readonly light: number | null;
}

/** Writes the parts as chains of nodes, with their meshes, materials, cameras and lights, and the scene that holds them. */
export class SceneWriter {
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
