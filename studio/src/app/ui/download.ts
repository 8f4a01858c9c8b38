import { assetsWithin, writeKaizenZip, writeProject, type ProjectBeside } from '@kaizen/core';

/** Hands a file to the browser's downloads. */
export function download(name: string, type: string, content: string | Uint8Array): void {
  const url = URL.createObjectURL(new Blob([content as BlobPart], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

/** A project's name as a file name: `Brine wheel` → `brine-wheel`. */
export function fileName(name: string): string {
  return (
    name
      .trim()
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-+|-+$/g, '') || 'untitled'
  );
}

export type ProjectFileKind = 'json' | 'zip';

/** Hands a project, with the bytes that it names, to the downloads as a file of its own name, which is given back. */
export function downloadProject({ project, bytes }: ProjectBeside, kind: ProjectFileKind): string {
  const name = `${fileName(project.name)}.kaizen.${kind}`;
  if (kind === 'json') download(name, 'application/json', writeProject(assetsWithin(project, bytes)));
  else download(name, 'application/zip', writeKaizenZip(project, bytes));
  return name;
}
