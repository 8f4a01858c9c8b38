import { transfer } from 'comlink';
import {
  bringModel,
  checkDocument,
  documentPieces,
  isBringProblem,
  parseDocument,
  readKaizenZip,
  stripDefaults,
  type Problem,
} from '@kaizen/core';
import type { ModelBytes, ModelRead, ProjectRead, ReadApi } from './read-api';

type Fields = Readonly<Record<string, unknown>>;

/** What the reading worker does. */
export const readWork: ReadApi = {
  async project(bytes, kind, piece, progress): Promise<ProjectRead> {
    const checked = kind === 'zip' ? fromZip(bytes) : fromText(new TextDecoder().decode(bytes));
    if (!checked.ok) return checked;
    await progress(HALF_WAY);
    const pieces = [...documentPieces(checked.document)];
    let taken: void | Promise<void> = undefined;
    for (const [i, each] of pieces.entries()) {
      const next = piece('numbers' in each ? transfer(each, [each.numbers.buffer]) : each);
      await taken;
      taken = next;
      void progress(HALF_WAY + (1 - HALF_WAY) * ((i + 1) / pieces.length));
    }
    await taken;
    return { ok: true, id: String(checked.document['id']) };
  },

  model({ name, bytes, beside, folder }: ModelBytes): ModelRead {
    const byName = new Map(beside.map((file) => [file.name, file.bytes]));
    const brought = bringModel({
      name,
      bytes,
      beside: (path) => byName.get(folder + path) ?? byName.get(path) ?? null,
    });
    return isBringProblem(brought) ? { ok: false, problems: [brought] } : { ok: true, brought };
  },
};

/** Reading and checking is about as much work as taking over what was read. */
const HALF_WAY = 0.5;

type Checked =
  | { readonly ok: true; readonly document: Fields }
  | { readonly ok: false; readonly problems: readonly Problem[] };

function fromText(text: string): Checked {
  const parsed = parseDocument(text);
  if (!parsed.ok) return parsed;
  const problems = checkDocument(parsed.value);
  return problems.length > 0 ? { ok: false, problems } : { ok: true, document: parsed.value as Fields };
}

function fromZip(bytes: Uint8Array): Checked {
  const read = readKaizenZip(bytes);
  return read.ok ? { ok: true, document: stripDefaults(read.value as unknown as Fields) } : read;
}
