import { strFromU8, strToU8, zipSync } from 'fflate';
import { type Asset, type Project, type Result } from '../project';
import { readProject, writeProject } from '../file';
import { unzip } from './zip';
import { extensionOf, sha256Hex } from './asset-bytes';
import {
  assetsBeside,
  assetsWithin,
  bytesOfAsset,
  hashNamed,
  namedUri,
  type AssetBytes,
  type ProjectBeside,
} from './assets-beside';

const PROJECT_NAME = 'project.kaizen.json';

/** `*.kaizen.zip`: the project beside its assets, each named by its hash (contract §2). `beside` has the bytes that it only names. */
export function writeKaizenZip(project: Project, beside: AssetBytes = new Map()): Uint8Array {
  const files: Record<string, Uint8Array> = {};
  const assets = project.assets.map((asset): Asset => {
    const bytes = bytesOfAsset(asset, beside);
    if (!bytes) return asset;
    const uri = `assets/${asset.sha256}.${extensionOf(asset.type)}`;
    files[uri] = bytes;
    return { ...asset, uri };
  });
  files[PROJECT_NAME] = strToU8(writeProject(assetsWithin({ ...project, assets }, beside)));
  return zipSync(files, { level: 6, mtime: '1980-01-01T00:00:00' });
}

/** The files of a .zip by their names, folders left out. */
export function unzipFiles(bytes: Uint8Array): Result<Readonly<Record<string, Uint8Array>>> {
  try {
    return { ok: true, value: Object.fromEntries(unzip(bytes)) };
  } catch (error) {
    return failed(
      '',
      `this zip can't be unpacked (${error instanceof Error ? error.message : String(error)})`,
    );
  }
}

/** Reads a `*.kaizen.zip`; the assets come back as data URIs, each checked against its hash. */
export function readKaizenZip(bytes: Uint8Array): Result<Project> {
  const unpacked = unpackKaizenZip(bytes);
  if (!unpacked.ok) return unpacked;
  const { project, bytes: beside } = unpacked.value;
  return { ok: true, value: assetsWithin(project, beside) };
}

/** Reads a `*.kaizen.zip`; the assets come as bytes beside the project, each checked against its hash. */
export function unpackKaizenZip(bytes: Uint8Array): Result<ProjectBeside> {
  const unpacked = unzipFiles(bytes);
  if (!unpacked.ok) return unpacked;
  const files = unpacked.value;
  const entry = files[PROJECT_NAME];
  if (!entry) return failed('', `there is no ${PROJECT_NAME} in this zip; a .kaizen.zip must have one`);
  const read = readProject(strFromU8(entry));
  if (!read.ok) return read;
  const within = assetsBeside(read.value);
  const beside = new Map(within.bytes);
  const assets: Asset[] = [];
  for (const [i, asset] of within.project.assets.entries()) {
    if (asset.uri.startsWith('data:') || beside.has(hashNamed(asset.uri) ?? '')) {
      assets.push(asset);
      continue;
    }
    const file = Object.hasOwn(files, asset.uri) ? files[asset.uri] : undefined;
    if (!file)
      return failed(`/assets/${i}/uri`, `"${asset.uri}" is not in this zip; it must be beside the project`);
    if (sha256Hex(file) !== asset.sha256) {
      return failed(
        `/assets/${i}/sha256`,
        `"${asset.uri}" does not have this hash; the file was changed or damaged`,
      );
    }
    beside.set(asset.sha256, file);
    assets.push({ ...asset, uri: namedUri(asset.sha256) });
  }
  return {
    ok: true,
    value: { project: { ...within.project, assets }, bytes: beside },
  };
}

function failed(
  pointer: string,
  message: string,
): { ok: false; problems: { pointer: string; message: string }[] } {
  return { ok: false, problems: [{ pointer, message }] };
}
