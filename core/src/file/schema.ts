import type { Field, Fields } from '../project';
import { PROJECT } from './project-fields';

type Json = Record<string, unknown>;

/** The JSON Schema (draft 7) of a project's file, made from the descriptions of its fields. */
export function projectSchema(): Json {
  const definitions: Record<string, Json> = {};
  const described = objectOf(PROJECT, definitions);
  return {
    $schema: 'http://json-schema.org/draft-07/schema#',
    $id: 'https://kaizen.invalid/kaizen.schema.json',
    title: 'Kaizen project, version 1',
    ...described,
    $defs: Object.fromEntries(Object.entries(definitions).sort(([a], [b]) => (a < b ? -1 : 1))),
  };
}

function objectOf(fields: Fields, definitions: Record<string, Json>, tag?: readonly [string, string]): Json {
  const properties: Json = tag ? { [tag[0]]: { const: tag[1] } } : {};
  for (const [name, field] of Object.entries(fields)) properties[name] = schemaOf(field, definitions);
  const required = Object.entries(fields).flatMap(([name, field]) =>
    field.fallback === undefined && !field.optional ? [name] : [],
  );
  const all = tag ? [tag[0], ...required] : required;
  return { type: 'object', properties, ...(all.length > 0 ? { required: all } : {}) };
}

function schemaOf(field: Field, definitions: Record<string, Json>): Json {
  const { definition, nullable } = field;
  let schema: Json;
  if (definition === undefined) schema = plain(field, definitions);
  else {
    if (!definitions[definition]) {
      definitions[definition] = {};
      definitions[definition] = plain(field, definitions);
    }
    schema = { $ref: `#/$defs/${definition}` };
  }
  if (!nullable) return schema;
  return definition === undefined && typeof schema['type'] === 'string' && !field.inside
    ? { ...schema, type: [schema['type'], 'null'] }
    : { anyOf: [{ type: 'null' }, schema] };
}

function plain(field: Field, definitions: Record<string, Json>): Json {
  const { orNumber, inside, schema } = field;
  if (orNumber) return { anyOf: [{ type: 'number' }, schemaOf(orNumber, definitions)] };
  switch (inside?.is) {
    case undefined:
      return { ...schema };
    case 'fields':
      return { ...schema, ...objectOf(inside.fields, definitions) };
    case 'list':
      return { ...schema, items: schemaOf(inside.entry, definitions) };
    case 'record':
      return { ...schema, additionalProperties: schemaOf(inside.entry, definitions) };
    case 'kinds':
      return {
        type: 'object',
        required: [inside.tag],
        discriminator: { propertyName: inside.tag },
        oneOf: Object.entries(inside.kinds).map(([kind, fields]) =>
          objectOf(fields, definitions, [inside.tag, kind]),
        ),
      };
  }
}
