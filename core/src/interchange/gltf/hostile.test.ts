import * as fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { bendingModel } from '../../../testing/bending-model';
import { glbOf } from '../../../testing/gltf';
import { packed } from '../../../testing/packed-model';
import { readProject } from '../../file';
import { bringModel, isBringProblem, readGlb, writeGlb, type GltfJson } from './index';

/** How many models are spoilt; `MUTATIONS=3000` looks further. */
const MUTATIONS = Number(process.env['MUTATIONS'] ?? 300);
/** No spoilt file may take longer, in milliseconds of the processor's time: on a busy machine the clock says nothing. */
const LONGEST = 10_000;
const SEED = 20_261_128;

/** Models of others and of ours: with a skin and targets, packed, with drivers and constraints played. */
async function models(): Promise<readonly Uint8Array[]> {
  const sample = readProject(readFileSync('samples/jib-crane.kaizen.json', 'utf8'));
  if (!sample.ok) throw new Error('no sample');
  return [
    await bendingModel(),
    await packed('meshopt'),
    await packed('Draco'),
    glbOf({ ...sample.value, name: 'Crane' }),
  ];
}

type Json = null | boolean | number | string | Json[] | { [name: string]: Json };

/** A value for each kind of nonsense that a file may have in the place of a good one. */
const NONSENSE: readonly Json[] = [
  -1,
  1e9,
  0.5,
  2 ** 31,
  1e308,
  '',
  'x',
  null,
  [],
  {},
  [[]],
  true,
  '__proto__',
];

/** Puts nonsense in the place of some values of a document, by numbers that say which. */
function spoiltJson(json: GltfJson, picks: readonly (readonly [number, number])[]): Json {
  const document = structuredClone(json) as unknown as Json;
  for (const [place, what] of picks) {
    const places: [Record<string, Json>, string][] = [];
    const walk = (value: Json) => {
      if (typeof value !== 'object' || value === null) return;
      for (const [name, inner] of Object.entries(value)) {
        places.push([value as Record<string, Json>, name]);
        walk(inner);
      }
    };
    walk(document);
    const [owner, name] = places[place % places.length]!;
    const nonsense = NONSENSE[what % (NONSENSE.length + 1)];
    if (nonsense === undefined) delete owner[name];
    else owner[name] = nonsense;
  }
  return document;
}

function spoiltBytes(
  bytes: Uint8Array,
  picks: readonly (readonly [number, number])[],
  end: number,
): Uint8Array {
  const spoilt = bytes.slice(0, end < 0.3 ? Math.floor(bytes.length * end * 3) : bytes.length);
  for (const [place, what] of picks) if (spoilt.length > 0) spoilt[place % spoilt.length] = what & 255;
  return spoilt;
}

describe('spoilt models', () => {
  it('are opened or refused in one sentence: none throws, none takes long', async () => {
    const whole = await models();
    const pick = fc.tuple(fc.nat(), fc.nat());
    const counts = { opened: 0, refused: 0 };
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...whole),
        fc.boolean(),
        fc.array(pick, { minLength: 1, maxLength: 6 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        async (model, inJson, picks, end) => {
          const glb = readGlb(model);
          if ('reason' in glb) throw new Error(glb.reason);
          const json = JSON.parse(glb.text) as GltfJson;
          const bytes = inJson
            ? writeGlb({ json: spoiltJson(json, picks) as unknown as GltfJson, bin: glb.bin })
            : spoiltBytes(model, picks, end);
          const began = process.cpuUsage();
          const result = await bringModel({ name: 'spoilt.glb', bytes });
          const { user, system } = process.cpuUsage(began);
          expect((user + system) / 1000).toBeLessThan(LONGEST);
          if (!isBringProblem(result)) {
            counts.opened++;
            return;
          }
          counts.refused++;
          expect(result.message.length).toBeGreaterThan(0);
          expect(result.message.length).toBeLessThan(300);
          // eslint-disable-next-line no-control-regex -- none may come through
          expect(result.message).not.toMatch(/[\u0000-\u001f]/);
        },
      ),
      { numRuns: MUTATIONS, seed: SEED },
    );
    expect(Math.min(counts.opened, counts.refused)).toBeGreaterThan(MUTATIONS / 30);
  }, 1_800_000);
});
