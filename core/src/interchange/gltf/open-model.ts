import { strFromU8 } from 'fflate';
import { LIMITS, nestingProblem } from '../../file';
import { isGlb, readGlb } from './container';
import type { GltfDocument, GltfJson } from './document';
import { joinBuffers } from './join-buffers';
import { DRACO, MESHOPT } from './mesh-decoders';
import { checkAccessors, checkNodes, MOST_MODEL_BYTES } from './model-checks';
import { gltfProblem } from './model-problem';
import { packingsOf } from './read-accessors';
import { checkReferences } from './model-references';
import { unpackMeshes } from './unpack-meshes';

export interface ModelFiles {
  readonly name: string;
  readonly bytes: Uint8Array;
  /** Finds the SHA-256 of `bytes` elsewhere, beside the reading; without it, it is found here. */
  readonly sha256?: () => Promise<string>;
  /** Reads a file that a .gltf names, by its decoded relative path; null where there is none. */
  readonly beside?: (path: string) => Uint8Array | null;
  /** The model's bytes are to lie beside the project, which only names them: so they are not made a text and back. */
  readonly bytesBeside?: boolean;
  /** Told how far reading is, 0 to 1. */
  readonly progress?: (share: number) => void;
}

const KNOWN_EXTENSIONS: ReadonlySet<string> = new Set([
  'KHR_lights_punctual',
  'KHR_node_visibility',
  'KHR_animation_pointer',
  'KHR_materials_emissive_strength',
  'KHR_mesh_quantization',
  'KHR_texture_transform',
  'KHR_materials_unlit',
  'EXT_texture_webp',
  DRACO,
  MESHOPT,
]);

/**
 * Opens a GLB, or a .gltf with the files it names, as one document with one buffer, its meshes unpacked. Everything that later steps
 * rely on is checked first: sizes, indices, loops, two parents, numbers that are not finite. `tellPacking` is told
 * each way in which meshes were packed. Throws ModelProblem.
 */
export async function openModel(
  files: ModelFiles,
  tellPacking: (name: string) => void = () => undefined,
): Promise<GltfDocument> {
  const { bytes } = files;
  if (bytes.length > MOST_MODEL_BYTES)
    throw gltfProblem('', `it is ${Math.round(bytes.length / 1048576)} MB, and must be at most 512 MB`);
  const glb = isGlb(bytes) ? readGlb(bytes) : { text: strFromU8(bytes), bin: new Uint8Array(0) };
  if ('reason' in glb) throw gltfProblem('', glb.reason);
  const json = parseJson(glb.text);
  checkShape(json);
  checkExtensions(json);
  packingsOf(json).forEach(tellPacking);
  const document = await unpackMeshes(joinBuffers(json, glb.bin, files.beside ?? (() => null)));
  checkAccessors(document);
  checkNodes(document.json);
  checkReferences(document);
  return document;
}

function parseJson(text: string): GltfJson {
  const deep = nestingProblem(text);
  if (deep) throw gltfProblem('', deep.message);
  try {
    return JSON.parse(text) as GltfJson;
  } catch (error) {
    throw gltfProblem(
      '',
      `it is neither a GLB nor glTF JSON (${error instanceof Error ? error.message : String(error)})`,
    );
  }
}

const LISTS = [
  'nodes',
  'meshes',
  'materials',
  'textures',
  'images',
  'samplers',
  'cameras',
  'accessors',
  'bufferViews',
  'buffers',
  'scenes',
  'animations',
  'skins',
] as const;

/** Lists of objects that each of some things must have. */
const INNER_LISTS = [
  ['meshes', 'primitives'],
  ['animations', 'channels'],
  ['animations', 'samplers'],
] as const;

function checkShape(json: GltfJson): void {
  if (typeof json !== 'object' || json === null || typeof json.asset !== 'object' || json.asset === null) {
    throw gltfProblem('/asset', 'it is no glTF; there must be an "asset" with its version');
  }
  if (!String(json.asset.version).startsWith('2.')) {
    throw gltfProblem('/asset/version', `it is glTF ${String(json.asset.version)}; it must be version 2`);
  }
  for (const name of LISTS) {
    const list: unknown = json[name];
    if (list === undefined) continue;
    if (!Array.isArray(list) || list.some((item) => typeof item !== 'object' || item === null)) {
      throw gltfProblem(`/${name}`, 'it must be a list of objects');
    }
  }
  for (const [name, inner] of INNER_LISTS)
    json[name]?.forEach((item, i) => {
      const list: unknown = (item as unknown as Readonly<Record<string, unknown>>)[inner];
      if (!Array.isArray(list) || list.some((each) => typeof each !== 'object' || each === null))
        throw gltfProblem(`/${name}/${i}/${inner}`, 'it must be a list of objects');
    });
  json.animations?.forEach(({ channels }, i) =>
    channels.forEach(({ target }: { readonly target: unknown }, k) => {
      if (typeof target !== 'object' || target === null)
        throw gltfProblem(`/animations/${i}/channels/${k}/target`, 'it must say what is moved');
    }),
  );
  if ((json.nodes?.length ?? 0) > LIMITS.parts)
    throw gltfProblem(
      '/nodes',
      `it has ${json.nodes?.length} nodes, and each becomes a part; a project may have at most ${LIMITS.parts}`,
    );
}

function checkExtensions(json: GltfJson): void {
  for (const name of json.extensionsRequired ?? []) {
    if (!KNOWN_EXTENSIONS.has(name)) {
      throw gltfProblem(
        '/extensionsRequired',
        `it can only be read with the extension ${name}, which Kaizen does not know; export it without`,
      );
    }
  }
}
