import { strToU8 } from 'fflate';
import { ProjectJoiner, readDocument, writeProject, type DocumentPiece } from '@kaizen/core';
import { chartProject } from '../testing/chart-project';
import { readWork } from './read-work';

type Fields = Record<string, unknown>;

async function read(document: Fields) {
  const told: DocumentPiece[] = [];
  const shares: number[] = [];
  const result = await readWork.project(
    strToU8(JSON.stringify(document)),
    'json',
    (piece) => void told.push(piece),
    (share) => void shares.push(share),
  );
  return { result, told, shares };
}

const good = () => JSON.parse(writeProject(chartProject())) as Fields;

describe('reading a project in a worker', () => {
  it('tells pieces that make the very project of the file', async () => {
    const { result, told, shares } = await read(good());
    expect(result).toMatchObject({ ok: true });
    const joiner = new ProjectJoiner();
    for (const piece of told) joiner.take(piece);
    expect({ ok: true, value: joiner.project }).toEqual(readDocument(good()));
    expect(shares.every((share) => share > 0.5 && share <= 1)).toBe(true);
  });

  it('tells the pieces of what has the right shape, and says where what it names is not there', async () => {
    const { result, told } = await read({ ...good(), activeClip: 'nowhere' });
    expect(told.length).toBeGreaterThan(1);
    expect(result).toMatchObject({ ok: false, problems: [{ pointer: '/activeClip' }] });
  });

  it('tells nothing of what has another shape', async () => {
    const { result, told } = await read({ ...good(), parts: [{ id: 'a', name: 'A', kind: 'grouping' }] });
    expect(told).toEqual([]);
    expect(result).toMatchObject({ ok: false, problems: [{ pointer: '/parts/0/kind' }] });
  });
});
