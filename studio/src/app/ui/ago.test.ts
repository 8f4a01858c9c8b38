import { agoText } from './ago';

describe('how long ago', () => {
  it('is told in words as short as they can be', () => {
    const now = Date.UTC(2026, 2, 20, 12);
    const said = [0, 2_400, 59_999, 60_000, 3_599_999, 7_300_000].map((passed) => agoText(now - passed, now));
    expect(said).toEqual(['0 s ago', '2 s ago', '59 s ago', '1 min ago', '59 min ago', '2 h ago']);
    expect(agoText(Date.UTC(2026, 2, 3, 12), now)).toBe('3 March');
    expect(agoText(now + 500, now)).toBe('0 s ago');
  });
});
