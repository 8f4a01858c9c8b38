import { transfer } from 'comlink';
import {
  assetsBeside,
  bringModel,
  checkDocument,
  documentPieces,
  isBringProblem,
  parseDocument,
  stripDefaults,
  unpackKaizenZip,
  type AssetBytes,
  type Problem,
} from '@kaizen/core';
import type { ModelRead, ProjectRead, ReadApi } from './read-api';

type Fields = Readonly<Record<string, unknown>>;

/** What the reading worker does. */
export const readWork: ReadApi = {
  async project(bytes, kind, piece, progress): Promise<ProjectRead> {
    const checked = kind === 'zip' ? fromZip(bytes) : fromText(new TextDecoder().decode(bytes));
    if (!checked.ok) return checked;
    await progress(HALF_WAY);
    const pieces = documentPieces(checked.document);
    // The page takes a piece over while the next ones are cut.
    const taken = pieces.map(async (cut, i) => {
      const each = cut();
      await piece('numbers' in each ? transfer(each, [each.numbers.buffer]) : each);
      await progress(HALF_WAY + (1 - HALF_WAY) * ((i + 1) / pieces.length));
    });
    await Promise.all(taken);
    return transfer({ ok: true, bytes: checked.bytes }, buffersOf(checked.bytes));
  },

  async model({ name, bytes, beside, folder }, progress, sha256): Promise<ModelRead> {
    const byName = new Map(beside.map((file) => [file.name, file.bytes]));
    const brought = await bringModel({
      name,
      bytes,
      beside: (path) => byName.get(folder + path) ?? byName.get(path) ?? null,
      bytesBeside: true,
      progress: (share) => void progress(share),
      ...(sha256 && { sha256 }),
    });
    if (isBringProblem(brought)) return { ok: false, problems: [brought] };
    const { project, bytes: named } = assetsBeside(brought.project);
    const own: AssetBytes = new Map([...named, ...(brought.bytes ?? [])]);
    const { report } = brought;
    return transfer({ ok: true, brought: { project, report }, bytes: own }, buffersOf(own));
  },
};

/** Reading and checking is about as much work as taking over what was read. */
const HALF_WAY = 0.5;

type Checked =
  | { readonly ok: true; readonly document: Fields; readonly bytes: AssetBytes }
  | { readonly ok: false; readonly problems: readonly Problem[] };

function fromText(text: string): Checked {
  const parsed = parseDocument(text);
  if (!parsed.ok) return parsed;
  const problems = checkDocument(parsed.value);
  if (problems.length > 0) return { ok: false, problems };
  const { project: document, bytes } = assetsBeside(parsed.value as Fields);
  return { ok: true, document, bytes };
}

function fromZip(bytes: Uint8Array): Checked {
  const read = unpackKaizenZip(bytes);
  if (!read.ok) return read;
  const { project, bytes: own } = read.value;
  return { ok: true, document: stripDefaults(project as unknown as Fields), bytes: own };
}

/** What of some bytes can go to the page without a copy: each buffer once, where nothing else lies in it. */
function buffersOf(bytes: AssetBytes): ArrayBuffer[] {
  const buffers = [...bytes.values()].flatMap(({ buffer, byteLength }) =>
    buffer instanceof ArrayBuffer && buffer.byteLength === byteLength ? [buffer] : [],
  );
  return [...new Set(buffers)];
}
