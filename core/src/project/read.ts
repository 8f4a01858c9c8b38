import type { Problem, Project, Result } from './types';
import validate from './validate.generated';
import { schemaProblems } from './schema-problems';
import { fillDefaults, stripDefaults } from './defaults';
import { nestingProblem, sizeProblems } from './limits';
import { referenceProblems } from './references';

export const FORMAT_VERSION = 1;

/**
 * Reads a `*.kaizen.json` text. Either the project with all defaults filled in and unknown fields kept, or
 * the list of what is wrong. Nothing is thrown for anything a file can contain.
 */
export function readProject(text: string): Result<Project> {
  const parsed = parseDocument(text);
  return parsed.ok ? readDocument(parsed.value) : parsed;
}

/** The JSON of a project's text, not checked yet. */
export function parseDocument(text: string): Result<unknown> {
  const deep = nestingProblem(text);
  if (deep) return failed([deep]);
  try {
    return { ok: true, value: JSON.parse(text.startsWith('\uFEFF') ? text.slice(1) : text) as unknown };
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    return failed([{ pointer: '', message: `this is not JSON (${reason}); it must be one JSON object` }]);
  }
}

/** As `readProject`, for a document already parsed. */
export function readDocument(document: unknown): Result<Project> {
  const foreign = recognise(document);
  if (foreign) return failed([foreign]);
  const tooBig = sizeProblems(document as Readonly<Record<string, unknown>>);
  if (tooBig.length > 0) return failed(tooBig);
  if (!validate(document)) return failed(schemaProblems(document, validate.errors ?? []));
  const project = fillDefaults(document as Readonly<Record<string, unknown>>) as unknown as Project;
  const problems = referenceProblems(project);
  return problems.length > 0 ? failed(problems) : { ok: true, value: project };
}

function recognise(document: unknown): Problem | null {
  if (typeof document !== 'object' || document === null || Array.isArray(document)) {
    return { pointer: '', message: 'this is no project; it must be one JSON object with "format": "kaizen"' };
  }
  const { format, version } = document as { format?: unknown; version?: unknown };
  if (format !== 'kaizen') {
    return {
      pointer: '/format',
      message: `${JSON.stringify(format) ?? 'nothing'} stands here; it must be "kaizen"`,
    };
  }
  if (typeof version === 'number' && version > FORMAT_VERSION) {
    return {
      pointer: '/version',
      message: `the file has version ${version}, made by a newer Kaizen, and this one reads up to version ${FORMAT_VERSION}; open it with a newer Kaizen`,
    };
  }
  return null;
}

function failed(problems: readonly Problem[]): { ok: false; problems: readonly Problem[] } {
  return { ok: false, problems };
}

/** The text of a `*.kaizen.json`: defaults left out, unknown fields as they came, one trailing newline. */
export function writeProject(project: Project): string {
  return (
    JSON.stringify(stripDefaults(project as unknown as Readonly<Record<string, unknown>>), null, 1) + '\n'
  );
}
