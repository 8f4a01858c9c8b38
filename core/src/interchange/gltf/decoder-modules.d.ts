declare module 'draco3dgltf/draco_decoder_gltf_nodejs.js' {
  const create: (options: { readonly wasmBinary: Uint8Array }) => Promise<unknown>;
  export default create;
}
declare module 'draco3dgltf/draco_decoder_gltf.wasm' {
  const bytes: Uint8Array;
  export default bytes;
}
