import type { Problem } from '../project';
import type { SchemaError } from './validate.generated';
import { jsonPointer, valueAtPointer } from '../project';

/** Turns the schema validator's errors into sentences a person can act on, one a place. */
export function schemaProblems(document: unknown, errors: readonly SchemaError[]): Problem[] {
  const seen = new Set<string>();
  const problems: Problem[] = [];
  for (const error of errors) {
    if (error.keyword === 'oneOf' || error.keyword === 'anyOf') continue;
    const problem = explain(document, error);
    const mark = `${problem.pointer}\n${problem.message}`;
    if (seen.has(mark)) continue;
    seen.add(mark);
    problems.push(problem);
  }
  return problems;
}

const TYPE_WORDS: Readonly<Record<string, string>> = {
  number: 'a number',
  integer: 'a whole number',
  string: 'text in quotes',
  boolean: 'true or false',
  object: 'an object {…}',
  array: 'a list […]',
  null: 'null',
};

function shown(value: unknown): string {
  const text = JSON.stringify(value) ?? 'nothing';
  return text.length > 40 ? text.slice(0, 37) + '…' : text;
}

function explain(document: unknown, error: SchemaError): Problem {
  const { keyword, params, instancePath } = error;
  const value = shown(valueAtPointer(document, instancePath));
  const at = (message: string): Problem => ({ pointer: instancePath, message });
  switch (keyword) {
    case 'required': {
      const name = String(params['missingProperty']);
      return { pointer: instancePath + jsonPointer(name), message: `"${name}" is missing; it must be given` };
    }
    case 'type': {
      const words = ([] as unknown[])
        .concat(params['type'])
        .map((name) => TYPE_WORDS[String(name)] ?? String(name));
      return at(`${value} stands here; it must be ${words.join(' or ')}`);
    }
    case 'const':
      return at(`${value} stands here; it must be ${shown(params['allowedValue'])}`);
    case 'enum':
      return at(
        `${value} is not known here; it must be one of ${(params['allowedValues'] as unknown[]).map(shown).join(', ')}`,
      );
    case 'discriminator': {
      const tag = String(params['tag']);
      return {
        pointer: instancePath + jsonPointer(tag),
        message: `${shown(params['tagValue'])} is no ${tag} that a project can have here; see the published schema for the list`,
      };
    }
    case 'pattern':
      return at(
        instancePath.endsWith('/sha256')
          ? `${value} is no SHA-256; it must be 64 hexadecimal digits`
          : `${value} is no id or channel; ids begin with a letter or digit and go on with letters, digits, ".", "_" and "-", a channel is <part id>/<property>`,
      );
    case 'minItems':
    case 'maxItems':
      return at(
        `the list has the wrong length; it must have ${keyword === 'minItems' ? 'at least' : 'at most'} ${String(params['limit'])} entries`,
      );
    case 'minLength':
      return at('the text is empty; it must have at least one letter');
    default: {
      const { comparison, limit } = params as { readonly comparison?: string; readonly limit?: number };
      if (comparison === undefined) return at(`${value} is not right: ${error.message ?? keyword}`);
      return at(`${value} is out of bounds; it must be ${comparison} ${limit ?? ''}`);
    }
  }
}
