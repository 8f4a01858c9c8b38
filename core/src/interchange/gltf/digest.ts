import { strToU8 } from 'fflate';
import { sha256Hex } from '../asset-bytes';
import type { GltfDocument } from './document';

/**
 * A digest over what another program could change: nodes, animations, materials, cameras, meshes and the bytes they
 * read. `asset` is left out, as the project and the digest itself stand there (contract §10).
 */
export function gltfDigest({ json, bin }: GltfDocument): string {
  const { asset: _asset, buffers: _buffers, ...rest } = json;
  const text = strToU8(stable(rest));
  const all = new Uint8Array(text.length + bin.length);
  all.set(text);
  all.set(bin, text.length);
  return sha256Hex(all);
}

/** JSON with sorted names, so that a rewrite in another order is no change. */
function stable(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(stable).join(',')}]`;
  if (typeof value === 'object' && value !== null) {
    const entries = Object.entries(value).filter(([, item]) => item !== undefined);
    return `{${entries
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([name, item]) => `${JSON.stringify(name)}:${stable(item)}`)
      .join(',')}}`;
  }
  return JSON.stringify(value) ?? 'null';
}
