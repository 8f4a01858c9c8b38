import '@angular/compiler';
import { jest } from '@jest/globals';
import { Notices } from './notices';

describe('notices', () => {
  it('a plain one does not take the place of one that can be pressed', () => {
    jest.useFakeTimers();
    const notices = new Notices();
    notices.tell('Two keys would fall together', { label: 'Merge them', run: () => undefined });
    notices.tell('skip.kaizen.json was saved to your downloads');
    expect(notices.current()?.action?.label).toBe('Merge them');
    expect(notices.beside()?.text).toMatch(/was saved/);
    notices.clear();
    expect([notices.current(), notices.beside()]).toEqual([null, null]);
    jest.useRealTimers();
  });

  it('one that can be pressed goes with its screen, a problem stays', () => {
    const notices = new Notices();
    notices.tell('place X waits', { label: 'Key them', run: () => undefined });
    notices.clearPress();
    expect(notices.current()).toBeNull();
    notices.warn('The disk is full');
    notices.clearPress();
    expect(notices.current()?.text).toBe('The disk is full');
  });
});
