import {
  assetsWithin,
  compile,
  csvLines,
  exportGltf,
  frameList,
  writeGlb,
  writeGltfText,
} from '@kaizen/core';
import type { CsvChoice, ExportApi, GltfChoice, Written } from './export-api';
import type { Problem, Project, ProjectBeside } from '@kaizen/core';

/** Told once in so many lines, so that telling costs nothing. */
const LINES_A_REPORT = 64;

/** What the export worker does: writes files from a project, and tells how far it is. */
export const exportWork: ExportApi = {
  gltf({ project, bytes: beside }: ProjectBeside, { bake, text, tolerance }: GltfChoice): Written {
    const made = exportGltf(assetsWithin(project, beside), { bake, tolerance });
    if (!made.ok) return refused(made.problems);
    const bytes = text ? new TextEncoder().encode(writeGltfText(made.value)) : writeGlb(made.value);
    const { nodes, animations } = made.value.json;
    const channels = animations?.[0]?.channels.length ?? 0;
    return {
      ok: true,
      bytes,
      summary: `${nodes?.length ?? 0} nodes, ${channels} animated, ${kilobytes(bytes)}`,
    };
  },

  async csv(
    project: Project,
    { rates }: CsvChoice,
    progress: (share: number) => void | Promise<void>,
  ): Promise<Written> {
    const compiled = compile(project);
    if (!compiled.ok) return refused(compiled.problems);
    const frames = frameList(project.range.start, project.range.end);
    const lines: string[] = [];
    for (const line of csvLines(compiled.value, { frames, channels: compiled.value.moving, rates })) {
      lines.push(line);
      if (lines.length % LINES_A_REPORT === 0) await progress(lines.length / (frames.length + 1));
    }
    const bytes = new TextEncoder().encode(lines.join(''));
    return {
      ok: true,
      bytes,
      summary: `${frames.length} frames, ${compiled.value.moving.length} channels, ${kilobytes(bytes)}`,
    };
  },
};

function refused(problems: readonly Problem[]): Written {
  const [first] = problems;
  return {
    ok: false,
    reason: first ? `at ${first.pointer}, ${first.message}` : 'the project can’t be evaluated',
  };
}

function kilobytes(bytes: Uint8Array): string {
  return `${Math.max(1, Math.round(bytes.length / 1024))} kB`;
}
