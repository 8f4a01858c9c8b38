import '@angular/compiler';
import { jest } from '@jest/globals';
import { Turns } from './in-turn.directive';

/** A page whose frames come when they are asked for. */
function page() {
  let waiting: (() => void)[] = [];
  globalThis.requestAnimationFrame = (run) => waiting.push(() => run(0));
  return {
    frame: () => {
      const now = waiting;
      waiting = [];
      for (const run of now) run();
      jest.advanceTimersByTime(5);
    },
  };
}

describe('work in turns', () => {
  const { requestAnimationFrame: own } = globalThis;
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => {
    jest.useRealTimers();
    globalThis.requestAnimationFrame = own;
  });

  it('is done in order, what comes last once the rest was drawn', () => {
    const { frame } = page();
    const turns = new Turns();
    const done: string[] = [];
    turns.take(() => done.push('last'), true);
    turns.take(() => done.push('a'));
    turns.take(() => done.push('b'));
    jest.advanceTimersByTime(5);
    frame();
    frame();
    expect(done).toEqual(['a', 'b']);
    frame();
    expect(done).toEqual(['a', 'b', 'last']);
  });

  it('lets what comes while the last waits its turn be seen before it, too', () => {
    const { frame } = page();
    const turns = new Turns();
    const done: string[] = [];
    turns.take(() => done.push('last'), true);
    frame();
    frame();
    frame();
    expect(done).toEqual(['last']);
    turns.take(() => done.push('later'), true);
    turns.take(() => done.push('a'));
    jest.advanceTimersByTime(5);
    frame();
    frame();
    expect(done).toEqual(['last', 'a']);
    frame();
    expect(done).toEqual(['last', 'a', 'later']);
  });

  it('goes on with what is last where no frame ever comes', () => {
    page();
    const turns = new Turns();
    const done: string[] = [];
    turns.take(() => done.push('a'));
    turns.take(() => done.push('last'), true);
    jest.advanceTimersByTime(5);
    expect(done).toEqual(['a']);
    jest.advanceTimersByTime(300);
    expect(done).toEqual(['a', 'last']);
  });

  it('goes on after something that failed', () => {
    page();
    const turns = new Turns();
    const done: string[] = [];
    turns.take(() => {
      throw new Error('broken');
    });
    turns.take(() => done.push('next'));
    expect(() => jest.advanceTimersByTime(5)).toThrow('broken');
    jest.advanceTimersByTime(5);
    expect(done).toEqual(['next']);
  });
});
