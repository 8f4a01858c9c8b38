import type { Problem, Project, Result } from '../project';
import validate from './validate.generated';
import { schemaProblems } from './schema-problems';
import { fillDefaults, fillOutline, stripDefaults } from './defaults';
import { editionNeeded } from './edition';
import { nestingProblem, nestsTooDeep, sizeProblems } from './limits';
import { referenceProblems } from './references';

export const FORMAT_VERSION = 1;
/** The latest edition of the format that is read. */
export const FORMAT_EDITION = 2;

type Fields = Readonly<Record<string, unknown>>;

/**
 * Reads a `*.kaizen.json` text. Either the project with all defaults filled in and unknown fields kept, or
 * the list of what is wrong. Nothing is thrown for anything a file can contain.
 */
export function readProject(text: string): Result<Project> {
  const parsed = parseDocument(text);
  return parsed.ok ? readDocument(parsed.value) : parsed;
}

/** The JSON of a project's text, no deeper than may be, else not checked yet. */
export function parseDocument(text: string): Result<unknown> {
  const parsed = parseJson(text);
  const deep = parsed.ok && nestsTooDeep(parsed.value) ? nestingProblem(text) : null;
  return deep ? failed([deep]) : parsed;
}

/** The JSON of a text, not checked at all. */
export function parseJson(text: string): Result<unknown> {
  try {
    return { ok: true, value: JSON.parse(text.startsWith('\uFEFF') ? text.slice(1) : text) as unknown };
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    const message = `this is not JSON (${reason}); it must be one JSON object`;
    return failed([nestingProblem(text) ?? { pointer: '', message }]);
  }
}

/** As `readProject`, for a document already parsed. */
export function readDocument(document: unknown): Result<Project> {
  const problems = checkDocument(document);
  return problems.length > 0
    ? failed(problems)
    : { ok: true, value: fillDefaults(document as Fields) as unknown as Project };
}

/** What keeps a parsed document from being a project; empty where nothing does. */
export function checkDocument(document: unknown): readonly Problem[] {
  const problems = checkShape(document);
  return problems.length > 0 ? problems : checkReferences(document);
}

/** The first half of `checkDocument`: whether everything in it is of the kind that belongs there. */
export function checkShape(document: unknown): readonly Problem[] {
  const foreign = recognise(document);
  if (foreign) return [foreign];
  const tooBig = sizeProblems(document as Fields);
  if (tooBig.length > 0) return tooBig;
  return validate(document) ? [] : schemaProblems(document, validate.errors ?? []);
}

/** Whether a document is what the schema describes. */
export function fitsSchema(document: unknown): boolean {
  return validate(document);
}

/** The second half, where the first found nothing: whether what it names is there, and its numbers go together. */
export function checkReferences(document: unknown): readonly Problem[] {
  return referenceProblems(fillOutline(document as Fields) as unknown as Project);
}

function recognise(document: unknown): Problem | null {
  if (typeof document !== 'object' || document === null || Array.isArray(document)) {
    return { pointer: '', message: 'this is no project; it must be one JSON object with "format": "kaizen"' };
  }
  const { format, version, edition } = document as { format?: unknown; version?: unknown; edition?: unknown };
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
  if (typeof edition === 'number' && edition > FORMAT_EDITION) {
    return {
      pointer: '/edition',
      message: `the file has edition ${edition} of the format, and this Kaizen knows up to edition ${FORMAT_EDITION}; open it with a newer Kaizen`,
    };
  }
  return null;
}

function failed(problems: readonly Problem[]): { ok: false; problems: readonly Problem[] } {
  return { ok: false, problems };
}

/** The text of a `*.kaizen.json`: defaults left out, unknown fields as they came, one trailing newline. */
export function writeProject(project: Project): string {
  return JSON.stringify(stripDefaults(withEdition(project)), null, 1) + '\n';
}

/** A project with the edition that it needs; where it is a later one than it says, it stands at the top. */
function withEdition(project: Project): Fields {
  const edition = editionNeeded(project);
  if (edition <= project.edition) return project as unknown as Fields;
  const { format, version, edition: _earlier, ...rest } = project;
  return { format, version, edition, ...rest };
}
