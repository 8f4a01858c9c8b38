// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- modules without types are declared there, for every package
/// <reference path="./decoder-modules.d.ts" />
/** What unpacks packed meshes; loaded when a model is first read that needs it. Their WebAssembly lies in the bundle, nothing is fetched. */
export const DRACO = 'KHR_draco_mesh_compression';
export const MESHOPT = 'EXT_meshopt_compression';

/** The standard decoder of Draco streams. */
export async function dracoDecoder(): Promise<unknown> {
  const [{ default: create }, { default: wasmBinary }] = await Promise.all([
    import('draco3dgltf/draco_decoder_gltf_nodejs.js'),
    import('draco3dgltf/draco_decoder_gltf.wasm'),
  ]);
  return create({ wasmBinary });
}

/** The standard decoder of meshopt streams. */
export async function meshoptDecoder(): Promise<unknown> {
  const { MeshoptDecoder } = await import('meshoptimizer/decoder');
  await MeshoptDecoder.ready;
  return MeshoptDecoder;
}

/** Loads all that packed models need, so that nothing has to be fetched when one comes. */
export async function loadDecoders(): Promise<void> {
  await Promise.all([
    dracoDecoder(),
    meshoptDecoder(),
    import('@gltf-transform/core'),
    import('@gltf-transform/extensions'),
  ]);
}
