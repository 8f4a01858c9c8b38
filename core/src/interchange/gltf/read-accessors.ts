import type { GltfDocument, GltfJson, GltfPrimitive } from './document';
import { DRACO, dracoDecoder, MESHOPT, meshoptDecoder } from './mesh-decoders';
import { gltfProblem, isModelError } from './model-problem';

export type AccessorArray = Float32Array | Uint32Array | Uint16Array | Uint8Array | Int16Array | Int8Array;

/** Numbers of one accessor, its elements one after the other without gaps; what is sparse is filled in. */
export interface AccessorNumbers {
  readonly array: AccessorArray;
  readonly normalized: boolean;
}

/** The name under which a document's one buffer is handed over. */
const BUFFER = 'model.bin';

/**
 * Reads all accessors of a document with @gltf-transform/core: every component type, strides, sparse ones, and those packed by
 * Draco or meshopt. Only accessors, views and primitives are handed to it: what else the file has can't trouble it. Throws
 * ModelProblem where a packed stream does not hold together.
 */
export async function readAccessors({ json, bin }: GltfDocument): Promise<readonly AccessorNumbers[]> {
  const [{ Logger, WebIO }, { EXTMeshoptCompression, KHRDracoMeshCompression }] = await Promise.all([
    import('@gltf-transform/core'),
    import('@gltf-transform/extensions'),
  ]);
  const packed = packingsOf(json);
  const io = new WebIO()
    .setLogger(new Logger(Logger.Verbosity.SILENT))
    .registerExtensions([EXTMeshoptCompression, KHRDracoMeshCompression])
    .registerDependencies({
      ...(packed.includes(DRACO) ? { 'draco3d.decoder': await dracoDecoder() } : {}),
      ...(packed.includes(MESHOPT) ? { 'meshopt.decoder': await meshoptDecoder() } : {}),
    });
  const accessorsOnly = {
    asset: { version: '2.0' },
    buffers: [{ byteLength: bin.length, uri: BUFFER }],
    bufferViews: json.bufferViews ?? [],
    accessors: json.accessors ?? [],
    meshes: (json.meshes ?? []).map(({ primitives }) => ({ primitives: primitives.map(bare) })),
    extensionsUsed: packed,
    extensionsRequired: packed,
  };
  try {
    const read = await io.readJSON({
      json: accessorsOnly as unknown as Parameters<typeof io.readJSON>[0]['json'],
      resources: { [BUFFER]: bin as Uint8Array<ArrayBuffer> },
    });
    return read
      .getRoot()
      .listAccessors()
      .map((accessor) => ({
        array: (accessor.getArray() ?? new Float32Array(0)) as AccessorArray,
        normalized: accessor.getNormalized(),
      }));
  } catch (error) {
    if (isModelError(error)) throw error;
    const why = error instanceof Error ? error.message.replace(/^\[\w+\]:? /, '') : String(error);
    const how = packed.length === 0 ? 'its numbers' : `its numbers, packed with ${packed.join(' and ')},`;
    throw gltfProblem('/bufferViews', `${how} can't be read (${why}); export it again, unpacked`);
  }
}

/** Which ways of packing meshes a document uses. */
export function packingsOf(json: GltfJson): readonly string[] {
  const draco = json.meshes?.some(({ primitives }) =>
    primitives.some(({ extensions }) => extensions?.[DRACO]),
  );
  const meshopt = json.bufferViews?.some(({ extensions }) => extensions?.[MESHOPT]);
  return [...(draco ? [DRACO] : []), ...(meshopt ? [MESHOPT] : [])];
}

function bare({ attributes, indices, extensions }: GltfPrimitive): object {
  const draco = extensions?.[DRACO];
  return {
    attributes,
    ...(indices === undefined ? {} : { indices }),
    ...(draco === undefined ? {} : { extensions: { [DRACO]: draco } }),
  };
}
