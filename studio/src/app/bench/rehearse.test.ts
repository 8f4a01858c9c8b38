import { curvesByChannel, readProject } from '@kaizen/core';
import { rehearsalProject } from '../workers/rehearsal-project';
import { rehearseOpening } from './rehearse';

describe('the rehearsal of opening', () => {
  it('can be done again and again, and leaves the made-up project as it is', () => {
    const read = readProject(rehearsalProject());
    if (!read.ok) throw new Error('the made-up project is to be good');
    const before = structuredClone(read.value);
    for (let round = 0; round < 3; round++) rehearseOpening(read.value);
    expect(read.value).toEqual(before);
    expect(curvesByChannel(read.value).get('box-7/translate.y')?.keys.length).toBe(40);
  });
});
