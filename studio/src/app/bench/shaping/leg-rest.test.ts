import '@angular/compiler';
import { jest } from '@jest/globals';
import { setLeg, type Project } from '@kaizen/core';
import { chartProject } from '../../testing/chart-project';
import { fakes } from '../../testing/fake-studio';
import { LegRest } from './leg-rest';

const RUN = 'wagon/translate.x';
const refs = [{ channel: RUN, frame: 24 }];
const offer = {
  label: 'Leg: hold',
  edit: (now: Project) => setLeg(now, refs, { kind: 'hold' }),
};

/** Time that a test lets pass: timers of Jest, and frames of the screen by hand. */
function setUp(calm = false) {
  jest.useFakeTimers();
  const frames: ((now: number) => void)[] = [];
  Object.assign(globalThis, {
    matchMedia: () => ({ matches: calm }),
    requestAnimationFrame: (call: (now: number) => void) => frames.push(call),
  });
  const made = fakes(chartProject());
  made.stage.frame.set(7);
  return {
    ...made,
    rest: made.injector.get(LegRest),
    draw: (now: number) => frames.splice(0).forEach((call) => call(now)),
  };
}

afterEach(() => jest.useRealTimers());

describe('resting on a shape', () => {
  it('proposals it at once; after a moment its legs play, over and over; the playhead comes back', () => {
    const { stage, rest, draw } = setUp();
    rest.begin(offer, refs);
    expect(stage.proposed()).not.toBeNull();
    expect(stage.frame()).toBe(7);
    jest.advanceTimersByTime(450);
    const began = performance.now();
    draw(began + 500);
    expect(stage.frame()).toBeCloseTo(24 + 12, 0);
    draw(began + 1100);
    expect(stage.frame()).toBe(48);
    draw(began + 1500);
    expect(stage.frame()).toBeLessThan(30);
    rest.end();
    expect(stage.frame()).toBe(7);
    expect(stage.proposed()).toBeNull();
    draw(began + 1600);
    expect(stage.frame()).toBe(7);
  });

  it('is taken as one step; where motion is not wanted nothing plays', () => {
    const { studio, stage, rest, draw } = setUp(true);
    rest.begin(offer, refs);
    jest.advanceTimersByTime(5000);
    draw(9000);
    expect(stage.frame()).toBe(7);
    rest.take(offer);
    expect(studio.labels).toEqual(['Leg: hold']);
    expect(stage.proposed()).toBeNull();
  });
});
