import { jest } from '@jest/globals';
import { Arrivals } from './arrivals';

describe('things that arrive in the view', () => {
  it('are told one by one, and shown now and then and at the end', () => {
    let now = 0;
    const clock = jest.spyOn(performance, 'now').mockImplementation(() => now);
    const shown: number[] = [];
    const told: number[] = [];
    const arrivals = new Arrivals(
      () => shown.push(now),
      (share) => told.push(share),
    );
    for (let i = 0; i < 4; i++) arrivals.await();
    expect(arrivals.isOver).toBe(false);
    for (const at of [100, 2100, 2200, 2300]) {
      now = at;
      arrivals.arrived();
    }
    expect([told, shown, arrivals.isOver]).toEqual([[0.25, 0.5, 0.75, 1], [2100, 2300], true]);
    clock.mockRestore();
  });
});
