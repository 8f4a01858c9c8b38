import { assetsWithin, FORMATS, type Problem } from '@kaizen/core';
import type { ExportApi, FileWritten } from './export-api';

/** What the export worker does: writes files from a project, and tells how far it is. */
export const exportWork: ExportApi = {
  async write(id, { project, bytes: beside }, choice, progress): Promise<FileWritten> {
    const format = FORMATS.find((each) => each.id === id);
    if (!format?.write) throw new RangeError(`no format ${id} can be written`);
    const written = await format.write(assetsWithin(project, beside), { ...choice, progress });
    if (!written.ok) return refused(written.problems);
    const { content, summary } = written.value;
    const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
    return { ok: true, bytes, summary: `${summary}, ${kilobytes(bytes)}` };
  },
};

function refused(problems: readonly Problem[]): FileWritten {
  const [first] = problems;
  return {
    ok: false,
    reason: first ? `at ${first.pointer}, ${first.message}` : 'the project can’t be evaluated',
  };
}

function kilobytes(bytes: Uint8Array): string {
  return `${Math.max(1, Math.round(bytes.length / 1024))} kB`;
}
