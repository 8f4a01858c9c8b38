/** The decoder's WebAssembly as bytes: what a bundler makes of importing the file, for Jest, which bundles nothing. */
import { readFileSync } from 'node:fs';

const path = new URL('../node_modules/draco3dgltf/draco_decoder_gltf.wasm', import.meta.url);
export default new Uint8Array(readFileSync(path));
