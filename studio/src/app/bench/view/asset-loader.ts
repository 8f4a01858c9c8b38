import {
  type Color,
  type BufferGeometry,
  type Mesh,
  type MeshStandardMaterial,
  type Object3D,
  type SkinnedMesh,
  type Texture,
} from 'three';
import { GLTFLoader, type GLTF } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { findAssetNode, readGlb, type Asset, type GltfJson, type ModelSkin } from '@kaizen/core';
import { skinOf } from './solids/model-solid';

/** A mesh of a model: its triangles, the colour and the picture on them. */
export interface AssetMesh {
  readonly geometry: BufferGeometry;
  readonly color: Color;
  readonly map: Texture | null;
  readonly skin: ModelSkin | null;
}

/** The bytes of a model, null where they are nowhere. */
export type BytesOf = (asset: Asset) => Uint8Array | null;

interface Loaded {
  readonly gltf: GLTF;
  readonly json: GltfJson;
}

const cache = new Map<string, Promise<Loaded>>();

/** The meshes of one node of a model, without its children. Fails with a reason in words where the model can't be shown. */
export async function assetMeshes(
  asset: Asset,
  nodeName: string,
  bytesOf: BytesOf,
): Promise<readonly AssetMesh[]> {
  let loading = cache.get(asset.sha256);
  if (!loading) {
    loading = load(bytesOf(asset));
    cache.set(asset.sha256, loading);
    loading.catch(() => cache.delete(asset.sha256));
  }
  const loaded = await loading;
  const index = findAssetNode(loaded.json, nodeName);
  if (index === null) throw new Error(`it has no node called ${nodeName}`);
  const node = (await loaded.gltf.parser.getDependency('node', index)) as Object3D;
  const own = (node as Mesh).isMesh
    ? [node as Mesh]
    : node.children.filter((child) => isPrimitive(loaded.gltf, child));
  return own.flatMap((object) => {
    const mesh = object as Mesh;
    if (!mesh.isMesh) return [];
    const material = mesh.material as MeshStandardMaterial;
    return [
      {
        geometry: mesh.geometry,
        color: material.color.clone(),
        map: material.map,
        skin: skinOf(mesh as SkinnedMesh),
      },
    ];
  });
}

/** A child that is a primitive of the node's mesh, not a node of its own. */
function isPrimitive(gltf: GLTF, object: Object3D): boolean {
  const association = gltf.parser.associations.get(object) as { nodes?: number } | undefined;
  return (object as Mesh).isMesh && association?.nodes === undefined;
}

async function load(bytes: Uint8Array | null): Promise<Loaded> {
  if (!bytes) throw new Error('its bytes are not in the project');
  const glb = readGlb(bytes);
  if ('reason' in glb) throw new Error(glb.reason);
  const gltf = await new GLTFLoader().parseAsync(bytes.slice().buffer, '');
  return { gltf, json: JSON.parse(glb.text) as GltfJson };
}
