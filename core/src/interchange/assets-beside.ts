import type { Asset, Project } from '../project';
import { bytesOfUri, dataUri, sha256Hex } from './asset-bytes';

/** Bytes of assets by their SHA-256, 64 lower-case hexadecimal digits. */
export type AssetBytes = ReadonlyMap<string, Uint8Array>;

/** A project that names the bytes of its assets, and these. */
export interface ProjectBeside {
  readonly project: Project;
  readonly bytes: AssetBytes;
}

/** What stands in the place of an asset's bytes where these lie beside the project: `sha256:` and their hash. */
const NAMED = /^sha256:([0-9a-f]{64})$/;

/** The hash that an asset's URI names; null where it is another kind of URI. */
export function hashNamed(uri: string): string | null {
  return NAMED.exec(uri)?.[1] ?? null;
}

export function namedUri(hash: string): string {
  return `sha256:${hash}`;
}

/** The bytes of an asset: those in its URI, or those it names; null where they are nowhere. */
export function bytesOfAsset({ uri }: Pick<Asset, 'uri'>, beside: AssetBytes): Uint8Array | null {
  const hash = hashNamed(uri);
  return hash === null ? bytesOfUri(uri) : (beside.get(hash) ?? null);
}

/**
 * A project with its assets' bytes beside it, where they stood in it as data URIs: so a value of the project stays small, whatever
 * models it has. A data URI that its bytes would not give back letter by letter stays as it is.
 */
export function assetsBeside<P extends { readonly assets?: readonly Asset[] }>(
  project: P,
): { readonly project: P; readonly bytes: AssetBytes } {
  const bytes = new Map<string, Uint8Array>();
  const assets = project.assets?.map((asset): Asset => {
    const own = bytesOfUri(asset.uri);
    if (!own || dataUri(asset.type, own) !== asset.uri) return asset;
    const hash = sha256Hex(own);
    bytes.set(hash, own);
    return { ...asset, uri: namedUri(hash) };
  });
  return { project: bytes.size > 0 ? { ...project, assets } : project, bytes };
}

/** The project as a file has it: with the bytes that its assets name in it as data URIs. The very same where none is named. */
export function assetsWithin(project: Project, bytes: AssetBytes): Project {
  let changed = false;
  const assets = project.assets.map((asset): Asset => {
    const own = hashNamed(asset.uri) === null ? null : bytesOfAsset(asset, bytes);
    if (!own) return asset;
    changed = true;
    return { ...asset, uri: dataUri(asset.type, own) };
  });
  return changed ? { ...project, assets } : project;
}
