/** The part of glTF 2.0's JSON that Kaizen writes and reads. Field names are the standard's. */
export interface GltfExtras {
  readonly kaizen?: unknown;
  readonly [name: string]: unknown;
}

export interface GltfNode {
  name?: string;
  children?: number[];
  mesh?: number;
  camera?: number;
  skin?: number;
  matrix?: number[];
  translation?: number[];
  rotation?: number[];
  scale?: number[];
  weights?: number[];
  extensions?: Record<string, unknown>;
  extras?: GltfExtras;
}

export interface GltfAccessor {
  bufferView?: number;
  byteOffset?: number;
  componentType: number;
  count: number;
  type: string;
  normalized?: boolean;
  min?: number[];
  max?: number[];
  sparse?: {
    count: number;
    indices: { bufferView: number; byteOffset?: number; componentType: number };
    values: { bufferView: number; byteOffset?: number };
  };
}

export interface GltfPrimitive {
  attributes: Record<string, number>;
  indices?: number;
  material?: number;
  mode?: number;
  targets?: Record<string, number>[];
  extensions?: Record<string, unknown>;
}

export interface GltfMesh {
  name?: string;
  primitives: GltfPrimitive[];
  weights?: number[];
  extras?: { targetNames?: string[]; [name: string]: unknown };
}

export interface GltfSkin {
  name?: string;
  joints: number[];
  skeleton?: number;
  inverseBindMatrices?: number;
}

export interface GltfTextureRef {
  index: number;
  [name: string]: unknown;
}

export interface GltfMaterial {
  name?: string;
  pbrMetallicRoughness?: {
    baseColorFactor?: number[];
    metallicFactor?: number;
    roughnessFactor?: number;
    baseColorTexture?: GltfTextureRef;
    metallicRoughnessTexture?: GltfTextureRef;
  };
  normalTexture?: GltfTextureRef;
  occlusionTexture?: GltfTextureRef;
  emissiveTexture?: GltfTextureRef;
  emissiveFactor?: number[];
  alphaMode?: string;
  doubleSided?: boolean;
  extensions?: Record<string, unknown>;
}

export interface GltfAnimationSampler {
  input: number;
  output: number;
  interpolation: 'LINEAR' | 'STEP' | 'CUBICSPLINE';
}
export interface GltfAnimationChannel {
  sampler: number;
  target: { node?: number; path: string; extensions?: Record<string, unknown> };
}
export interface GltfAnimation {
  name?: string;
  channels: GltfAnimationChannel[];
  samplers: GltfAnimationSampler[];
}

export interface GltfBufferView {
  buffer: number;
  byteOffset?: number;
  byteLength: number;
  byteStride?: number;
  target?: number;
  extensions?: Record<string, unknown>;
}

export interface GltfCamera {
  type: 'perspective' | 'orthographic';
  perspective?: { yfov: number; znear: number; zfar?: number; aspectRatio?: number };
  extras?: GltfExtras;
}

export interface GltfJson {
  asset: { version: string; generator?: string; extras?: GltfExtras; [name: string]: unknown };
  scene?: number;
  scenes?: { name?: string; nodes?: number[] }[];
  nodes?: GltfNode[];
  meshes?: GltfMesh[];
  materials?: GltfMaterial[];
  textures?: { sampler?: number; source?: number; [name: string]: unknown }[];
  images?: { uri?: string; bufferView?: number; mimeType?: string; name?: string }[];
  samplers?: Record<string, unknown>[];
  cameras?: GltfCamera[];
  skins?: GltfSkin[];
  accessors?: GltfAccessor[];
  bufferViews?: GltfBufferView[];
  buffers?: { byteLength: number; uri?: string; extensions?: Record<string, unknown> }[];
  animations?: GltfAnimation[];
  extensionsUsed?: string[];
  extensionsRequired?: string[];
  extensions?: Record<string, unknown>;
}

/** A glTF with one binary buffer. */
export interface GltfDocument {
  readonly json: GltfJson;
  readonly bin: Uint8Array;
}

export const FLOAT = 5126;
export const UNSIGNED_INT = 5125;
export const UNSIGNED_SHORT = 5123;
export const UNSIGNED_BYTE = 5121;
export const COMPONENT_BYTES: Readonly<Record<number, number>> = {
  5120: 1,
  5121: 1,
  5122: 2,
  5123: 2,
  5125: 4,
  5126: 4,
};
export const TYPE_SIZES: Readonly<Record<string, number>> = {
  SCALAR: 1,
  VEC2: 2,
  VEC3: 3,
  VEC4: 4,
  MAT2: 4,
  MAT3: 9,
  MAT4: 16,
};
