import type { Field, Fields } from '../project';
import { DRIVERS, LINKAGES } from '../drive';
import { CONSTRAINTS } from '../rig';
import { ENTRIES } from './project-fields';

/**
 * The tables of docs/kinds.md: every kind that a file can have, with its fields, read off the descriptions that check the file.
 */
export function kindTables(): string {
  const drivers = Object.entries(DRIVERS).map(([kind, { says, fields, example }]) =>
    section(kind, `It ${says}.`, fields, example),
  );
  const linkages = [...LINKAGES].map(([kind, { inputs, outputs, params }]) =>
    section(kind, `From ${inputs.join(', ')} to ${outputs.join(', ')}.`, params),
  );
  const constraints = Object.entries(CONSTRAINTS).map(([kind, { says, fields, example }]) =>
    section(kind, `The part ${says.replace(/\{(\w+)\}/g, 'its $1')}.`, fields, example),
  );
  return [
    '# Kinds',
    'Written by `npm run build` from the descriptions in core; a test keeps it true. [contract.md](contract.md) has the mathematics.',
    '## Drivers',
    'Every driver has an `id`, a `target`, `combine` (replace) and `muted` (false) besides.',
    ...drivers,
    '## Linkages',
    'The `params` of a driver of the kind linkage.',
    ...linkages,
    '## Constraints',
    'Every constraint has an `id`, a `part` and `muted` (false) besides.',
    ...constraints,
    '## Treatments',
    'Every treatment has a `weight` (1) and `muted` (false).',
    ...ofFamily(nested('curves', 'treatments')),
    '## Legs',
    ...ofFamily(legField()),
    '## Shapes',
    ...ofFamily(kindsOf(ENTRIES.parts)['mesh']!['geometry']!),
    '## Placements of clips',
    table(ENTRIES.arrangement.inside?.is === 'fields' ? ENTRIES.arrangement.inside.fields : {}),
    '',
  ].join('\n\n');
}

function kindsOf({ inside }: Field): Readonly<Record<string, Fields>> {
  return inside?.is === 'kinds' ? inside.kinds : {};
}

/** The entry of a list that lies in an entry of the project. */
function nested(list: keyof typeof ENTRIES, name: string): Field {
  const { inside } = ENTRIES[list];
  const field = inside?.is === 'fields' ? inside.fields[name] : undefined;
  if (field?.inside?.is !== 'list') throw new Error(`${list} have no list ${name}`);
  return field.inside.entry;
}

function legField(): Field {
  const { inside } = nested('curves', 'keys');
  return (inside?.is === 'fields' ? inside.fields['leg'] : undefined)!;
}

function ofFamily(field: Field): string[] {
  return Object.entries(kindsOf(field)).map(([kind, fields]) => {
    const { weight: _weight, muted: _muted, ...own } = fields;
    return section(kind, '', own);
  });
}

function section(kind: string, says: string, fields: Fields, example?: object): string {
  const shown = example ? `\`${JSON.stringify(example)}\`` : '';
  return [`### ${kind}`, says, table(fields), shown].filter((each) => each !== '').join('\n\n');
}

function table(fields: Fields): string {
  const rows = Object.entries(fields);
  if (rows.length === 0) return '';
  return [
    '| field | what | where it is left out |',
    '| --- | --- | --- |',
    ...rows.map(([name, field]) => `| \`${name}\` | ${whatOf(field)} | ${fallbackOf(field)} |`),
  ].join('\n');
}

function fallbackOf({ fallback, optional }: Field): string {
  if (fallback !== undefined) return `\`${JSON.stringify(fallback)}\``;
  return optional ? 'nothing' : 'must be given';
}

const SIMPLE: Readonly<Record<string, string>> = {
  number: 'number',
  integer: 'whole number',
  string: 'text',
  boolean: 'true or false',
  array: 'list',
  object: 'object',
};

/** What may stand in a field, in a few words. */
function whatOf(field: Field): string {
  const { schema, names, orNumber, nullable, unit, definition, inside } = field;
  const choices = schema['enum'] as readonly unknown[] | undefined;
  let words: string;
  if (orNumber) words = `number or ${whatOf(orNumber)}`;
  else if (names)
    words =
      names === 'part' && field.partKind
        ? `id of a ${field.partKind} part`
        : `${names === 'channel' ? '' : 'id of a '}${names}`;
  else if (choices) words = choices.map((choice) => String(choice)).join(', ');
  else if (definition === 'keyed') words = 'curve `{keys, before, after}`';
  else if (inside?.is === 'record') words = `object of ${whatOf(inside.entry)}s by name`;
  else if (inside?.is === 'fields') words = `\`{${Object.keys(inside.fields).join(', ')}}\``;
  else if (inside?.is === 'list') words = `list of ${whatOf(inside.entry)}`;
  else if (schema['items']) words = `${String(schema['minItems'])} numbers`;
  else words = SIMPLE[String(schema['type'])] ?? String(schema['type']);
  return `${words}${boundsOf(schema)}${unit ? `, ${UNITS[unit] ?? unit}` : ''}${nullable ? ', or null' : ''}`;
}

const UNITS: Readonly<Record<string, string>> = {
  f: 'frames',
  m: 'metres',
  '°': 'degrees',
  mm: 'millimetres',
};

function boundsOf(schema: Field['schema']): string {
  const bounds = [
    ['exclusiveMinimum', '>'],
    ['minimum', '≥'],
    ['maximum', '≤'],
  ].flatMap(([name, sign]) => (schema[name!] === undefined ? [] : [`${sign!} ${String(schema[name!])}`]));
  return bounds.length > 0 ? ` ${bounds.join(', ')}` : '';
}
