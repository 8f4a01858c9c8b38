import { strFromU8 } from 'fflate';
import { fromBase64 } from '../asset-bytes';
import { isGlb, readGlb } from './container';
import { COMPONENT_BYTES, TYPE_SIZES, type GltfDocument, type GltfJson } from './document';
import { gltfProblem } from './model-problem';

/** Bounds on what is opened: past them a file is refused, not tried. */
export const MOST_MODEL_BYTES = 512 * 1024 * 1024;
const MOST_NODES = 100_000;

export interface ModelFiles {
  readonly name: string;
  readonly bytes: Uint8Array;
  /** Reads a file that a .gltf names, by its decoded relative path; null where there is none. */
  readonly beside?: (path: string) => Uint8Array | null;
}

const KNOWN_EXTENSIONS: ReadonlySet<string> = new Set([
  'KHR_lights_punctual',
  'KHR_node_visibility',
  'KHR_animation_pointer',
  'KHR_materials_emissive_strength',
  'KHR_mesh_quantization',
  'KHR_texture_transform',
  'KHR_materials_unlit',
]);

/**
 * Opens a GLB, or a .gltf with the files it names, as one document with one buffer. Everything that later steps
 * rely on is checked first: sizes, indices, loops, two parents, numbers that are not finite. Throws ModelProblem.
 */
export function openModel(files: ModelFiles): GltfDocument {
  const { bytes } = files;
  if (bytes.length > MOST_MODEL_BYTES)
    throw gltfProblem('', `it is ${Math.round(bytes.length / 1048576)} MB, and must be at most 512 MB`);
  const glb = isGlb(bytes) ? readGlb(bytes) : { text: strFromU8(bytes), bin: new Uint8Array(0) };
  if ('reason' in glb) throw gltfProblem('', glb.reason);
  const json = parseJson(glb.text);
  checkShape(json);
  checkExtensions(json);
  const document = joinBuffers(json, glb.bin, files.beside ?? (() => null));
  checkAccessors(document);
  checkNodes(document.json);
  return document;
}

function parseJson(text: string): GltfJson {
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
  if ((json.nodes?.length ?? 0) > MOST_NODES)
    throw gltfProblem('/nodes', `it has ${json.nodes?.length} nodes, and must have at most ${MOST_NODES}`);
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

/** Puts all buffers, and images kept in files, into one binary chunk. */
function joinBuffers(
  json: GltfJson,
  bin: Uint8Array,
  beside: (path: string) => Uint8Array | null,
): GltfDocument {
  const chunks: Uint8Array[] = [];
  let length = 0;
  const append = (bytes: Uint8Array): number => {
    const at = length;
    const padded = Math.ceil(bytes.length / 4) * 4;
    const chunk = new Uint8Array(padded);
    chunk.set(bytes);
    chunks.push(chunk);
    length += padded;
    if (length > MOST_MODEL_BYTES)
      throw gltfProblem('/buffers', 'its buffers are more than 512 MB; they must be smaller');
    return at;
  };
  const starts = (json.buffers ?? []).map((buffer, i) => {
    const pointer = `/buffers/${i}`;
    const bytes =
      buffer.uri === undefined && i === 0 ? bin : resourceBytes(String(buffer.uri), pointer, beside);
    if (!isCount(buffer.byteLength) || bytes.length < buffer.byteLength) {
      throw gltfProblem(
        pointer,
        `it says ${String(buffer.byteLength)} bytes, and there are ${bytes.length}; the file is cut off or a part is missing`,
      );
    }
    return { start: append(bytes), length: buffer.byteLength };
  });
  const bufferViews = (json.bufferViews ?? []).map((view, i) => {
    const buffer = starts[view.buffer];
    const { byteOffset = 0, byteLength } = view;
    if (!buffer || !isCount(byteOffset) || !isCount(byteLength) || byteOffset + byteLength > buffer.length) {
      throw gltfProblem(`/bufferViews/${i}`, 'it reaches outside its buffer; the file is damaged');
    }
    return { ...view, buffer: 0, byteOffset: buffer.start + byteOffset };
  });
  const images = json.images?.map((image, i) => {
    if (image.uri === undefined) return image;
    const { uri, ...rest } = image;
    const bytes = resourceBytes(uri, `/images/${i}`, beside);
    bufferViews.push({ buffer: 0, byteOffset: append(bytes), byteLength: bytes.length });
    return { ...rest, bufferView: bufferViews.length - 1, mimeType: image.mimeType ?? imageType(bytes) };
  });
  const joined = new Uint8Array(length);
  let at = 0;
  for (const chunk of chunks) {
    joined.set(chunk, at);
    at += chunk.length;
  }
  return {
    json: {
      ...json,
      ...(json.bufferViews || bufferViews.length > 0 ? { bufferViews } : {}),
      ...(images ? { images } : {}),
      ...(length > 0 ? { buffers: [{ byteLength: length }] } : {}),
    },
    bin: joined,
  };
}

function imageType(bytes: Uint8Array): string {
  return bytes[0] === 0xff && bytes[1] === 0xd8 ? 'image/jpeg' : 'image/png';
}

function resourceBytes(
  uri: string,
  pointer: string,
  beside: (path: string) => Uint8Array | null,
): Uint8Array {
  const base64 = /^data:[^,]*;base64,/.exec(uri);
  if (base64) {
    const bytes = fromBase64(uri.slice(base64[0].length));
    if (!bytes) throw gltfProblem(pointer, 'its data URI is not base64; the file is damaged');
    return bytes;
  }
  const path = safePath(uri);
  if (path === null) {
    throw gltfProblem(
      pointer,
      `it names "${uri.slice(0, 80)}", which is outside the model's folder; files must lie beside or below the model`,
    );
  }
  const bytes = beside(path);
  if (!bytes)
    throw gltfProblem(
      pointer,
      `it needs the file "${path}", which was not given; drop it together with the model`,
    );
  return bytes;
}

/** A relative path with its dots resolved, or null where it is absolute, has a scheme, or climbs out. */
export function safePath(uri: string): string | null {
  let decoded: string;
  try {
    decoded = decodeURIComponent(uri);
  } catch {
    return null;
  }
  if (
    /^[A-Za-z][A-Za-z0-9+.-]*:/.test(decoded) ||
    /^[\\/]/.test(decoded) ||
    decoded.includes('\\') ||
    decoded.includes('\0')
  )
    return null;
  const steps: string[] = [];
  for (const step of decoded.split('/')) {
    if (step === '..') {
      if (steps.pop() === undefined) return null;
    } else if (step !== '.' && step !== '') {
      steps.push(step);
    }
  }
  return steps.length > 0 ? steps.join('/') : null;
}

function isCount(value: unknown): value is number {
  return Number.isInteger(value) && (value as number) >= 0;
}

function checkAccessors({ json, bin }: GltfDocument): void {
  json.accessors?.forEach((accessor, i) => {
    const pointer = `/accessors/${i}`;
    const bytes = COMPONENT_BYTES[accessor.componentType];
    const size = TYPE_SIZES[accessor.type];
    if (bytes === undefined || size === undefined || !isCount(accessor.count)) {
      throw gltfProblem(pointer, 'its type or count is not one of glTF; the file is damaged');
    }
    if (accessor.bufferView === undefined) {
      if (!accessor.sparse || accessor.count * size * bytes > MOST_MODEL_BYTES) {
        if (accessor.count * size * bytes > 1 << 24)
          throw gltfProblem(pointer, `it asks for ${accessor.count} elements and has no bytes for them`);
      }
      return;
    }
    const view = json.bufferViews?.[accessor.bufferView];
    const element = bytes * size;
    const stride = view?.byteStride ?? element;
    const offset = accessor.byteOffset ?? 0;
    if (
      !view ||
      !isCount(offset) ||
      !isCount(stride) ||
      (accessor.count > 0 && offset + stride * (accessor.count - 1) + element > view.byteLength)
    ) {
      throw gltfProblem(pointer, 'it reaches outside its buffer view; the file is damaged');
    }
    if (accessor.componentType === 5126)
      checkFinite(bin, (view.byteOffset ?? 0) + offset, stride, size, accessor.count, pointer);
  });
}

function checkFinite(
  bin: Uint8Array,
  start: number,
  stride: number,
  size: number,
  count: number,
  pointer: string,
): void {
  const view = new DataView(bin.buffer, bin.byteOffset, bin.byteLength);
  for (let i = 0; i < count; i++) {
    for (let k = 0; k < size; k++) {
      if (!Number.isFinite(view.getFloat32(start + i * stride + k * 4, true))) {
        throw gltfProblem(pointer, `number ${i * size + k} is not finite; the file is damaged`);
      }
    }
  }
}

/** Every node at most once below another, no loops, children that exist, numbers that are finite. Iterative. */
function checkNodes(json: GltfJson): void {
  const nodes = json.nodes ?? [];
  const parent = new Int32Array(nodes.length).fill(-1);
  nodes.forEach((node, i) => {
    for (const child of node.children ?? []) {
      if (!isCount(child) || child >= nodes.length)
        throw gltfProblem(`/nodes/${i}/children`, `it names node ${String(child)}, which does not exist`);
      if (parent[child] !== -1 || child === i)
        throw gltfProblem(`/nodes/${child}`, 'it hangs below two nodes; a node must have one parent');
      parent[child] = i;
    }
    for (const [name, size] of [
      ['translation', 3],
      ['rotation', 4],
      ['scale', 3],
      ['matrix', 16],
    ] as const) {
      const value: unknown = node[name];
      if (
        value !== undefined &&
        (!Array.isArray(value) || value.length !== size || !value.every((v) => Number.isFinite(v)))
      ) {
        throw gltfProblem(`/nodes/${i}/${name}`, `it must be ${size} numbers`);
      }
    }
    if (node.mesh !== undefined && !json.meshes?.[node.mesh])
      throw gltfProblem(`/nodes/${i}/mesh`, `mesh ${String(node.mesh)} does not exist`);
    if (node.camera !== undefined && !json.cameras?.[node.camera])
      throw gltfProblem(`/nodes/${i}/camera`, `camera ${String(node.camera)} does not exist`);
  });
  const state = new Uint8Array(nodes.length);
  for (let i = 0; i < nodes.length; i++) {
    const path: number[] = [];
    let at = i;
    while (at >= 0 && state[at] === 0) {
      state[at] = 1;
      path.push(at);
      at = parent[at]!;
    }
    if (at >= 0 && state[at] === 1)
      throw gltfProblem(`/nodes/${at}`, 'it is above itself; the nodes must not run in a ring');
    for (const node of path) state[node] = 2;
  }
  json.meshes?.forEach((mesh, i) => {
    const accessors = json.accessors?.length ?? 0;
    if (!Array.isArray(mesh.primitives)) throw gltfProblem(`/meshes/${i}/primitives`, 'it must be a list');
    for (const primitive of mesh.primitives) {
      const used = [
        ...Object.values(primitive.attributes ?? {}),
        ...(primitive.indices === undefined ? [] : [primitive.indices]),
      ];
      for (const target of primitive.targets ?? []) used.push(...Object.values(target));
      if (used.some((index) => !isCount(index) || index >= accessors))
        throw gltfProblem(`/meshes/${i}`, 'it names an accessor that does not exist');
      if (primitive.material !== undefined && !json.materials?.[primitive.material])
        throw gltfProblem(`/meshes/${i}`, 'it names a material that does not exist');
      if (primitive.extensions?.['KHR_draco_mesh_compression'])
        throw gltfProblem(
          `/meshes/${i}`,
          'it is compressed with KHR_draco_mesh_compression, which Kaizen does not know; export it without',
        );
    }
  });
}
