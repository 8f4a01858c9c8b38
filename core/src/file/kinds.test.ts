import fc from 'fast-check';
import { changeFields, namingsIn, renameIn, scaleFrames, type Field, type Fields } from '../project';
import { ENTRIES, PROJECT } from './project-fields';

/** Every kind of every family in the file: what it is called here, and its fields. */
function everyKind(): readonly (readonly [string, Fields])[] {
  const found: (readonly [string, Fields])[] = [];
  const visit = (field: Field, name: string, depth: number): void => {
    const { inside } = field;
    if (!inside || depth > 6) return;
    if (inside.is === 'fields') {
      found.push([name, inside.fields]);
      for (const [each, own] of Object.entries(inside.fields)) visit(own, `${name}.${each}`, depth + 1);
    } else if (inside.is === 'kinds') {
      for (const [kind, fields] of Object.entries(inside.kinds)) {
        found.push([`${name} ${kind}`, fields]);
        for (const [each, own] of Object.entries(fields)) visit(own, `${name} ${kind}.${each}`, depth + 1);
      }
    } else visit(inside.entry, name, depth + 1);
  };
  for (const [name, field] of Object.entries(ENTRIES)) visit(field, name, 0);
  return found;
}

/** A time that 24 → 30 → 24 brings back to the last digit: a sum of eighths. */
const time = fc.integer({ min: -800, max: 800 }).map((n) => n / 8);

/** Something that a field allows. */
function instanceOf(field: Field): fc.Arbitrary<unknown> {
  const { schema, nullable, names, inside, orNumber } = field;
  const plain = ((): fc.Arbitrary<unknown> => {
    if (orNumber) return fc.oneof(fc.integer({ min: 0, max: 3 }), instanceOf(orNumber));
    if (names === 'channel') return fc.constantFrom('buoy/translate.x', 'crane-2/custom.way');
    if (names) return fc.constantFrom('buoy', 'crane-2');
    if (field.wholeFrames) return fc.integer({ min: 1, max: 40 }).map((n) => n * 4);
    if (field.frames !== undefined) return time;
    if (schema['enum']) return fc.constantFrom(...(schema['enum'] as unknown[]));
    if (schema['const'] !== undefined) return fc.constant(schema['const']);
    switch (inside?.is) {
      case 'fields':
        return instance(inside.fields);
      case 'list':
        return fc.array(instanceOf(inside.entry), { minLength: 1, maxLength: 3 });
      case 'record':
        return inside.keys === 'part'
          ? fc.dictionary(fc.constantFrom('buoy', 'crane-2'), instanceOf(inside.entry), { minKeys: 1 })
          : fc.dictionary(fc.constantFrom('a', 'b'), instanceOf(inside.entry), { minKeys: 1 });
      case 'kinds':
        return fc.oneof(
          ...Object.entries(inside.kinds).map(([kind, fields]) =>
            instance(fields).map((made) => ({ [inside.tag]: kind, ...made })),
          ),
        );
      case undefined:
        return schema['type'] === 'boolean'
          ? fc.boolean()
          : schema['type'] === 'string'
            ? fc.constant('text')
            : fc.integer({ min: 1, max: 9 });
    }
  })();
  return nullable ? fc.oneof(fc.constant(null), plain) : plain;
}

function instance(fields: Fields): fc.Arbitrary<object> {
  return fc.record(
    Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, instanceOf(field)])),
  );
}

const KINDS = everyKind();

describe('every kind of the file, by its description alone', () => {
  it('there are all of them', () => {
    const names = KINDS.map(([name]) => name);
    for (const wanted of [
      'drivers follow',
      'constraints heading',
      'constraints aim.lag',
      'arrangement',
      'curves.treatments noise',
      'curves.keys.leg ballistic',
      'parts mesh.morphs',
    ])
      expect(names).toContain(wanted);
  });

  it.each(KINDS)('%s: 24 → 30 → 24 is the identity, and so is a renaming and back', (_name, fields) => {
    fc.assert(
      fc.property(instance(fields), (made) => {
        const there = scaleFrames(fields, made, 30 / 24);
        const back = scaleFrames(fields, there, 24 / 30);
        const round = (value: unknown) => (typeof value === 'number' ? Math.round(value * 1e9) / 1e9 : value);
        expect(changeFields(fields, back, round)).toEqual(changeFields(fields, made, round));
        const flip = (id: string) =>
          ({ buoy: 'float', float: 'buoy', 'crane-2': 'derrick', derrick: 'crane-2' })[id] ?? id;
        const renamed = renameIn(fields, made, { part: flip, clip: flip, asset: flip });
        expect(renameIn(fields, renamed, { part: flip, clip: flip, asset: flip })).toEqual(made);
        const named = namingsIn(fields, made).filter(({ names }) => names !== 'channel');
        expect(
          namingsIn(fields, renamed)
            .filter(({ names }) => names !== 'channel')
            .map(({ id }) => id),
        ).toEqual(named.map(({ id }) => flip(id)));
      }),
      { numRuns: 25 },
    );
  });

  it('a change of rate reaches every time of a project, a slope by its inverse, and nothing else', () => {
    const project = {
      range: { start: 4, end: 8 },
      clips: [
        {
          curves: [
            {
              keys: [{ frame: 4, value: 7, in: { slope: 2 }, leg: { kind: 'curve' } }],
              after: { mode: 'loop', pin: 4 },
              treatments: [
                {
                  kind: 'noise',
                  amplitude: 1,
                  period: 8,
                  loop: null,
                  weight: { keys: [{ frame: 2, value: 1 }] },
                },
              ],
            },
          ],
        },
      ],
      arrangement: [{ start: 2, fadeIn: 2, time: { keys: [{ frame: 2, value: 6, out: { slope: 3 } }] } }],
      constraints: [
        { kind: 'aim', lag: { frequency: 1, start: 2, loop: 3 } },
        { kind: 'heading', span: 2 },
      ],
      drivers: [
        { kind: 'map', curve: { keys: [{ frame: 2, value: 2 }] } },
        { kind: 'echo', delay: 2, from: 2, to: null },
      ],
      markers: [{ frame: 2, end: 4 }],
    };
    expect(scaleFrames(PROJECT, project, 1.5)).toEqual({
      range: { start: 6, end: 12 },
      clips: [
        {
          curves: [
            {
              keys: [{ frame: 6, value: 7, in: { slope: 2 / 1.5 }, leg: { kind: 'curve' } }],
              after: { mode: 'loop', pin: 6 },
              treatments: [
                {
                  kind: 'noise',
                  amplitude: 1,
                  period: 12,
                  loop: null,
                  weight: { keys: [{ frame: 3, value: 1 }] },
                },
              ],
            },
          ],
        },
      ],
      arrangement: [{ start: 3, fadeIn: 3, time: { keys: [{ frame: 3, value: 9, out: { slope: 3 } }] } }],
      constraints: [
        { kind: 'aim', lag: { frequency: 1, start: 3, loop: 5 } },
        { kind: 'heading', span: 3 },
      ],
      drivers: [
        { kind: 'map', curve: { keys: [{ frame: 2, value: 2 }] } },
        { kind: 'echo', delay: 3, from: 3, to: null },
      ],
      markers: [{ frame: 3, end: 6 }],
    });
  });
});
