import { jest } from '@jest/globals';
import { FirstLook } from './first-look';

describe('work after the first look', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('is done once the faces were seen, or after a while in which nothing was', async () => {
    const look = new FirstLook();
    const did: string[] = [];
    const work = (name: string) => look.after(() => Promise.resolve(did.push(name)));
    void work('a');
    void work('b');
    await jest.advanceTimersByTimeAsync(1000);
    expect(did).toEqual([]);
    look.seen();
    await jest.advanceTimersByTimeAsync(0);
    expect(did).toEqual(['a', 'b']);
    const later = work('c');
    await jest.advanceTimersByTimeAsync(4000);
    expect([await later, did]).toEqual([3, ['a', 'b', 'c']]);
  });
});
