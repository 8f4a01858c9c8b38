import type { Asset, Pose, Project } from '../project';
import { bytesOfUri, dataUri, sha256Hex } from './asset-bytes';

/** Bytes of assets by their SHA-256, 64 lower-case hexadecimal digits. */
export type AssetBytes = ReadonlyMap<string, Uint8Array>;

/** A project that names the bytes of its assets, and these. */
export interface ProjectBeside {
  readonly project: Project;
  readonly bytes: AssetBytes;
}

/** What stands in the place of bytes that lie beside the project: `sha256:` and their hash, and the type of a picture. */
const NAMED = /^sha256:([0-9a-f]{64})(?:;(.+))?$/;

/** The hash that an asset's URI names; null where it is another kind of URI. */
export function hashNamed(uri: string): string | null {
  return NAMED.exec(uri)?.[1] ?? null;
}

/** A URI that names bytes by their hash; `type` is that of a picture, as an asset says its own. */
export function namedUri(hash: string, type?: string): string {
  return type === undefined ? `sha256:${hash}` : `sha256:${hash};${type}`;
}

/** A data URI as one that names its bytes, and these; null where its bytes would not give it back letter by letter. */
export function nameBytes(
  uri: string,
): { readonly uri: string; readonly hash: string; readonly bytes: Uint8Array; readonly type: string } | null {
  const type = /^data:([^;,]+);base64,/.exec(uri)?.[1];
  const bytes = type === undefined ? null : bytesOfUri(uri);
  if (!bytes || dataUri(type!, bytes) !== uri) return null;
  const hash = sha256Hex(bytes);
  return { uri: namedUri(hash, type), hash, bytes, type: type! };
}

/** The type of a picture that a URI names; undefined where it names none. */
export function pictureType(uri: string): string | undefined {
  return NAMED.exec(uri)?.[2];
}

/** A picture as a data URI, also where it is only named; null where its bytes are nowhere. */
export function pictureWithin(uri: string, beside: AssetBytes): string | null {
  const [, hash, type] = NAMED.exec(uri) ?? [];
  if (hash === undefined || type === undefined) return uri;
  const bytes = beside.get(hash);
  return bytes ? dataUri(type, bytes) : null;
}

/** The bytes of an asset: those in its URI, or those it names; null where they are nowhere. */
export function bytesOfAsset({ uri }: Pick<Asset, 'uri'>, beside: AssetBytes): Uint8Array | null {
  const hash = hashNamed(uri);
  return hash === null ? bytesOfUri(uri) : (beside.get(hash) ?? null);
}

/**
 * A project with the bytes of its assets and of its poses' pictures beside it, where they stood in it as data URIs: so a value of the
 * project stays small, whatever models it has. A data URI that its bytes would not give back letter by letter stays as it is.
 */
export function assetsBeside<P extends Partial<Pick<Project, 'assets' | 'poses'>>>(
  project: P,
): { readonly project: P; readonly bytes: AssetBytes } {
  const bytes = new Map<string, Uint8Array>();
  const assets = project.assets?.map((asset): Asset => {
    const named = nameBytes(asset.uri);
    if (named?.type !== asset.type) return asset;
    bytes.set(named.hash, named.bytes);
    return { ...asset, uri: namedUri(named.hash) };
  });
  const poses = project.poses?.map((pose): Pose => {
    const named = typeof pose.picture === 'string' ? nameBytes(pose.picture) : null;
    if (!named) return pose;
    bytes.set(named.hash, named.bytes);
    return { ...pose, picture: named.uri };
  });
  const lists = { ...(assets ? { assets } : {}), ...(poses ? { poses } : {}) };
  return { project: bytes.size > 0 ? { ...project, ...lists } : project, bytes };
}

/**
 * The project as a file has it: with the bytes that it names in it as data URIs. The very same where none is named. A picture whose
 * bytes are nowhere is left out.
 */
export function assetsWithin(project: Project, bytes: AssetBytes): Project {
  let changed = false;
  const assets = project.assets.map((asset): Asset => {
    const own = hashNamed(asset.uri) === null ? null : bytesOfAsset(asset, bytes);
    if (!own) return asset;
    changed = true;
    return { ...asset, uri: dataUri(asset.type, own) };
  });
  const poses = project.poses.map((pose): Pose => {
    if (pose.picture === null) return pose;
    const picture = pictureWithin(pose.picture, bytes);
    if (picture === pose.picture) return pose;
    changed = true;
    return { ...pose, picture };
  });
  return changed ? { ...project, assets, poses } : project;
}
