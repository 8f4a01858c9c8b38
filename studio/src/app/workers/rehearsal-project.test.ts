import { strToU8 } from 'fflate';
import { packedKeys, ProjectJoiner } from '@kaizen/core';
import { readWork } from './read-work';
import { rehearsalProject } from './rehearsal-project';

describe('the made-up project that is read ahead', () => {
  it('is a good one, and takes the way of a big one: its keys come as numbers', () => {
    const joiner = new ProjectJoiner();
    const nothing = () => undefined;
    const read = readWork.project(
      strToU8(rehearsalProject()),
      'json',
      (piece) => joiner.take(piece),
      nothing,
    );
    expect(read).toMatchObject({ ok: true });
    const curves = joiner.project.clips.flatMap((clip) => clip.curves);
    expect(curves.length).toBeGreaterThan(300);
    expect(curves.every((curve) => packedKeys(curve)?.length === 80)).toBe(true);
  });
});
