import { FrontSide, type Mesh, type MeshStandardMaterial, type Object3D, type SkinnedMesh } from 'three';
import { GLTFLoader, type GLTF } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { findAssetNode, readGlb, type Asset, type GltfJson } from '@kaizen/core';
import { PlainMeshes, type AssetMesh } from './plain-meshes';
import { skinOf } from './solids/model-solid';

/** The bytes of a model, null where they are nowhere. */
export type BytesOf = (asset: Asset) => Uint8Array | null;

/** A model that was taken apart: what is plain is drawn from its bytes, the rest by the loader, which is asked when first needed. */
interface Loaded {
  readonly json: GltfJson;
  readonly plain: PlainMeshes;
  readonly gltf: () => Promise<GLTF>;
}

const cache = new Map<string, Loaded>();

/** The meshes of one node of a model, without its children. Fails with a reason in words where the model can't be shown. */
export async function assetMeshes(
  asset: Asset,
  nodeName: string,
  bytesOf: BytesOf,
): Promise<readonly AssetMesh[]> {
  let loaded = cache.get(asset.sha256);
  if (!loaded) cache.set(asset.sha256, (loaded = load(bytesOf(asset))));
  const index = findAssetNode(loaded.json, nodeName);
  if (index === null) throw new Error(`it has no node called ${nodeName}`);
  const plain = loaded.plain.of(index);
  if (plain) return plain;
  const gltf = await loaded.gltf();
  const node = (await gltf.parser.getDependency('node', index)) as Object3D;
  const own = (node as Mesh).isMesh
    ? [node as Mesh]
    : node.children.filter((child) => isPrimitive(gltf, child));
  return own.flatMap((object) => {
    const mesh = object as Mesh;
    if (!mesh.isMesh) return [];
    const { geometry } = mesh;
    const { color, map, side } = mesh.material as MeshStandardMaterial;
    // A picture may lie on the triangles by another set of places than the first.
    const places = map && map.channel > 0 ? geometry.getAttribute(`uv${map.channel}`) : undefined;
    if (places) geometry.setAttribute('uv', places);
    const skin = skinOf(mesh as SkinnedMesh);
    return [{ geometry, color: color.clone(), map, skin, oneSided: side === FrontSide }];
  });
}

/** A child that is a primitive of the node's mesh, not a node of its own. */
function isPrimitive(gltf: GLTF, object: Object3D): boolean {
  const association = gltf.parser.associations.get(object) as { nodes?: number } | undefined;
  return (object as Mesh).isMesh && association?.nodes === undefined;
}

function load(bytes: Uint8Array | null): Loaded {
  if (!bytes) throw new Error('its bytes are not in the project');
  const glb = readGlb(bytes);
  if ('reason' in glb) throw new Error(glb.reason);
  const json = JSON.parse(glb.text) as GltfJson;
  let gltf: Promise<GLTF> | null = null;
  return {
    json,
    plain: new PlainMeshes(json, glb.bin),
    gltf: () => {
      gltf ??= new GLTFLoader().parseAsync(bytes.slice().buffer, '').catch((error: unknown) => {
        gltf = null;
        throw error;
      });
      return gltf;
    },
  };
}
