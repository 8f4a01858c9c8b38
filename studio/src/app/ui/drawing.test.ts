import '@angular/compiler';
import { Injector, runInInjectionContext, signal } from '@angular/core';
import { jest } from '@jest/globals';
import { drawing } from './drawing';
import { SHOWN } from './in-turn.directive';

/** A part of a page, shown from the start or later, that can be left. */
function part(isShown = true) {
  const shown = signal(isShown);
  const injector = Injector.create({ providers: [{ provide: SHOWN, useValue: shown }] });
  return {
    shown,
    leave: () => injector.destroy(),
    drawing: (draw: () => void) => runInInjectionContext(injector, () => drawing(draw)),
  };
}

describe('a drawing', () => {
  let now = 0;
  beforeEach(() => {
    jest.useFakeTimers();
    jest.spyOn(performance, 'now').mockImplementation(() => now);
    globalThis.requestAnimationFrame = (run) => Number(setTimeout(run, 16));
    globalThis.cancelAnimationFrame = (frame) => clearTimeout(frame);
  });
  afterEach(() => {
    jest.useRealTimers();
    jest.restoreAllMocks();
  });

  /** Goes on until nothing waits any more, microtasks included. */
  const wait = () => jest.advanceTimersByTimeAsync(50);

  it('is made in a task of its own, and again once after all that changed', async () => {
    const value = signal(1);
    const drawn: number[] = [];
    part().drawing(() => drawn.push(value()));
    expect(drawn).toEqual([]);
    await wait();
    value.set(2);
    value.set(3);
    expect(drawn).toEqual([1]);
    await wait();
    expect(drawn).toEqual([1, 3]);
  });

  it('waits until its part of the page is shown', async () => {
    const { shown, drawing: draws } = part(false);
    const drawn: string[] = [];
    draws(() => drawn.push('drawn'));
    await wait();
    expect(drawn).toEqual([]);
    shown.set(true);
    await wait();
    expect(drawn).toEqual(['drawn']);
  });

  it('that takes long leaves the next to another task, also where it fails', async () => {
    const tasks: string[] = [];
    const own = part();
    own.drawing(() => {
      tasks.push('long');
      now += 20;
      throw new Error('no ink');
    });
    own.drawing(() => tasks.push('next'));
    // The first task that ends is the one that failed.
    await expect(jest.advanceTimersToNextTimerAsync()).rejects.toThrow('no ink');
    expect(tasks).toEqual(['long']);
    await wait();
    expect(tasks).toEqual(['long', 'next']);
  });

  it('ends with its part of the page', async () => {
    const value = signal(1);
    const drawn: number[] = [];
    const own = part();
    own.drawing(() => drawn.push(value()));
    await wait();
    value.set(2);
    own.leave();
    await wait();
    value.set(3);
    await wait();
    expect(drawn).toEqual([1]);
  });
});
