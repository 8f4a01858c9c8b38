import { strToU8 } from 'fflate';
import {
  LIMITS,
  ProjectJoiner,
  readDocument,
  readProject,
  writeProject,
  type DocumentPiece,
} from '@kaizen/core';
import { chartProject } from '../testing/chart-project';
import { readWork } from './read-work';

type Fields = Record<string, unknown>;

function read(document: Fields) {
  const told: DocumentPiece[] = [];
  const shares: number[] = [];
  const result = readWork.project(
    strToU8(JSON.stringify(document)),
    'json',
    (piece) => void told.push(piece),
    (share) => void shares.push(share),
  );
  return { result, told, shares };
}

const good = () => JSON.parse(writeProject(chartProject())) as Fields;

const curveOf = (document: Fields) => (document['clips'] as [{ curves: [Fields] }])[0].curves[0];
/** Lists within each other, deeper than may be. */
const DEEP = JSON.parse('['.repeat(LIMITS.jsonDepth) + ']'.repeat(LIMITS.jsonDepth)) as unknown;

/** Documents with something wrong in them, wherever that may be. */
const spoilt: readonly ((document: Fields) => unknown)[] = [
  () => null,
  () => 5,
  () => [],
  () => ({}),
  (document) => ({ ...document, version: 2 }),
  (document) => ({ ...document, parts: {} }),
  (document) => ({ ...document, parts: [null] }),
  (document) => ({ ...document, parts: [7], clips: [{ curves: 'none' }], rate: null }),
  (document) => ({ ...document, clips: null }),
  (document) => ({ ...document, clips: [null, { id: 'main' }] }),
  (document) => ({ ...document, clips: [{ id: 'main', curves: [null, []] }] }),
  (document) => ({
    ...document,
    clips: [{ id: 'main', curves: [{ channel: 'wagon/translate.x', keys: 3 }] }],
  }),
  (document) => ({ ...document, assets: [{ id: 'a', uri: 7 }], poses: [{ picture: 4 }] }),
  ...[
    [{ frame: 'soon', value: 0 }],
    [{ frame: 0, value: 1 }, { frame: 4 }],
    [{ frame: 0, value: 1, joined: 'no' }],
    [{ frame: 0, value: 1 }, { frame: 4, value: null }, 7],
    [[0, 1]],
    [null],
  ].map((keys) => (document: Fields) => (Object.assign(curveOf(document), { keys }), document)),
  (document) => ({ ...document, mark: DEEP }),
  (document) => ({ ...document, parts: [{ id: 'a', kind: 'group', mark: DEEP }] }),
  (document) => (Object.assign(curveOf(document), { mark: DEEP }), document),
  (document) => (Object.assign(curveOf(document), { keys: [{ frame: 0, value: 1, mark: DEEP }] }), document),
  (document) => (Object.assign(curveOf(document), { muted: 'yes' }), document),
  (document) => (Object.assign(curveOf(document), { treatments: new Array(65).fill({}) }), document),
  (document) => ({ ...document, activeClip: 'nowhere' }),
];

describe('reading a project in a worker', () => {
  it('tells pieces that make the very project of the file', () => {
    const { result, told, shares } = read(good());
    expect(result).toMatchObject({ ok: true });
    const joiner = new ProjectJoiner();
    for (const piece of told) joiner.take(piece);
    expect({ ok: true, value: joiner.project }).toEqual(readDocument(good()));
    expect(shares.every((share) => share > 0.5 && share <= 1)).toBe(true);
  });

  it('reads what is as deep as may be', () => {
    const deepest = (at: number) =>
      JSON.parse('['.repeat(LIMITS.jsonDepth - at) + ']'.repeat(LIMITS.jsonDepth - at)) as unknown;
    const document = { ...good(), mark: deepest(1) };
    Object.assign(curveOf(document), { mark: deepest(5) });
    expect(read(document).result).toMatchObject({ ok: true });
    Object.assign(curveOf(document), { mark: deepest(4) });
    expect(read(document).result).toMatchObject({ ok: false });
  });

  it('tells the pieces of what has the right shape, and says where what it names is not there', () => {
    const { result, told } = read({ ...good(), activeClip: 'nowhere' });
    expect(told.length).toBeGreaterThan(1);
    expect(result).toMatchObject({ ok: false, problems: [{ pointer: '/activeClip' }] });
  });

  it('tells nothing of what has another shape', () => {
    const { result, told } = read({ ...good(), parts: [{ id: 'a', name: 'A', kind: 'grouping' }] });
    expect(told.map(({ kind }) => kind)).toEqual(['head']);
    expect(result).toMatchObject({ ok: false, problems: [{ pointer: '/parts/0/kind' }] });
    const noRate = read({ ...good(), rate: 24 });
    expect(noRate.told).toEqual([]);
    expect(noRate.result).toMatchObject({ ok: false, problems: [{ pointer: '/rate' }] });
  });

  it('says of any text what reading it whole says', () => {
    for (const spoil of spoilt) {
      const document = spoil(good());
      const whole = readProject(JSON.stringify(document));
      const { result } = read(document as Fields);
      if (whole.ok) throw new Error('it was to be wrong');
      expect(result).toEqual({ ok: false, problems: whole.problems });
    }
  });
});
