import '@angular/compiler';
import { addSound, curveOf, putMarker } from '@kaizen/core';
import { chartHands, pointerAt, pressChart } from '../../testing/chart-hands';
import { chartProject } from '../../testing/chart-project';
import { TimeTools } from '../timing/time-tools';
import type { Drag } from '../../ui/follow-drag';
import { MarkerHand } from './draggable/marker';
import { SoundHand } from './draggable/sound';
import { ChartGestures } from './chart-gestures';
import type { HitScene } from './draggable';
import { RULER, ROW, xOf } from '../plot/plot';

const RUN = 'wagon/translate.x';
const marker = { id: 'm', name: 'full', kind: 'note' as const, frame: 30, end: 40 };
const asset = { id: 'hoot', name: 'hoot.wav', type: 'audio/wav', sha256: '0'.repeat(64), uri: 'data:,' };
const sound = { id: 's', asset: 'hoot', start: 10, gain: 1, muted: false };

function setUp() {
  const made = chartHands(addSound(putMarker(chartProject(), marker), asset, sound), 400);
  made.studio.set({ density: 'ticks' });
  const { model } = made;
  const frames = () => curveOf(made.studio.project()!, RUN)!.keys.map(({ frame }) => frame);
  /** A pointer event at a frame and a height of the canvas. */
  const at = (frame: number, y: number, more: object = {}) => pointerAt(xOf(model.plot(), frame), y, more);
  return { ...made, frames, at, row: (n: number) => model.plot().head + (n + 0.5) * ROW };
}

const through = (drag: Drag, event: PointerEvent) => {
  drag.move(event);
  drag.end(event);
};

describe('drags on the Chart', () => {
  it('of the end of a run scale it about the other end, and give it up', () => {
    const { studio, stage, injector, at, frames, row } = setUp();
    studio.pick({ keys: [24, 48].map((frame) => ({ channel: RUN, frame })) });
    const gestures = injector.get(ChartGestures);
    const hand = pressChart(gestures, at(49.3, row(1)));
    hand.move(at(73.3, row(1)));
    expect(stage.proposed()).not.toBeNull();
    hand.up(at(73.3, row(1)));
    expect(frames()).toEqual([0, 24, 72]);
    expect(studio.bench().keys.map(({ frame }) => frame)).toEqual([24, 72]);
    expect(studio.labels).toEqual(['Scale 2 keys in time']);
  });

  it('are given up where the window is left, the selection as it was', () => {
    const { studio, stage, injector, at, frames, row } = setUp();
    const hand = pressChart(injector.get(ChartGestures), at(24, row(1)));
    hand.move(at(40, row(1)));
    expect(curveOf(stage.shown()!, RUN)!.keys[1]!.frame).toBe(40);
    hand.leave();
    expect(hand.held()).toBe(false);
    expect(frames()).toEqual([0, 24, 48]);
    expect(studio.bench().keys).toEqual([]);
    expect(studio.labels).toEqual([]);
  });

  it('keep what was undone meanwhile: the edit is done to the project as it is at the release', () => {
    const { studio, injector, at, frames, row } = setUp();
    const hand = pressChart(injector.get(ChartGestures), at(24, row(1)));
    hand.move(at(30, row(1)));
    studio.edit('elsewhere', (now) => putMarker(now, { ...marker, frame: 5 }));
    hand.up(at(30, row(1)));
    expect(frames()).toEqual([0, 30, 48]);
    expect(studio.project()!.markers[0]!.frame).toBe(5);
    expect(studio.bench().keys).toEqual([{ channel: RUN, frame: 30 }]);
  });

  it('of keys snap to markers and keys of other rows when those are on, not while Ctrl is held', () => {
    const { studio, injector, at, frames, row } = setUp();
    studio.set({ snap: { markers: true, keys: true }, wholeFrames: false });
    const gestures = injector.get(ChartGestures);
    const drag = (to: number, more = {}) => {
      const hand = pressChart(gestures, at(24, row(1)));
      hand.move(at(to, row(1), more));
      hand.up(at(to, row(1), more));
      const moved = frames()[1];
      studio.project.set(addSound(putMarker(chartProject(), marker), asset, sound));
      return moved;
    };
    expect(drag(30.4)).toBe(30);
    expect(drag(36.3)).toBe(36);
    expect(drag(33)).toBe(33);
    expect(drag(30.4, { ctrlKey: true })).toBe(30.4);
  });

  it('of markers and sounds move them along time, shown meanwhile', () => {
    const { studio, stage, injector, at } = setUp();
    const [marks, sounds] = [injector.get(MarkerHand), injector.get(SoundHand)];
    const scene = {} as HitScene;
    const held = (end: 'end' | 'whole') => ({ kind: 'marker' as const, marker, end });
    const drag = marks.begin(scene, at(40, RULER + 8), held('end'));
    drag.move(at(52, RULER + 8));
    expect(stage.proposed()!.markers[0]).toMatchObject({ frame: 30, end: 52 });
    drag.cancel();
    expect(stage.proposed()).toBeNull();
    through(marks.begin(scene, at(35, RULER + 8), held('whole')), at(30, RULER + 8));
    expect(studio.project()!.markers[0]).toMatchObject({ frame: 25, end: 35 });
    through(sounds.begin(scene, at(20, RULER + 30), { kind: 'sound', sound }), at(24, RULER + 30));
    expect(studio.project()!.sounds[0]!.start).toBe(14);
    expect(studio.labels).toEqual(['Move the marker “full”', 'Move a sound']);
  });

  it('of Stakes show what they would do; meanwhile nothing but they and the playhead can be moved', () => {
    const { studio, stage, injector, at, frames, row } = setUp();
    const tools = injector.get(TimeTools);
    for (const frame of [0, 24, 48]) {
      stage.frame.set(frame);
      tools.toggleStake();
    }
    tools.showPending();
    const gestures = injector.get(ChartGestures);
    const stake = pressChart(gestures, at(24, 8));
    stake.move(at(36, 8));
    stake.up(at(36, 8));
    tools.showPending();
    expect(curveOf(stage.proposed()!, RUN)!.keys[1]!.frame).toBe(36);
    expect(frames()).toEqual([0, 24, 48]);
    expect(pressChart(gestures, at(36, row(1))).held()).toBe(false);
    const ruler = pressChart(gestures, at(60, 8));
    expect(ruler.held()).toBe(true);
    expect(studio.labels).toEqual([]);
  });

  it('a double click on a row adds keys where its curves have none, driven ones left out', () => {
    const { injector, at, frames, row, studio } = setUp();
    const gestures = injector.get(ChartGestures);
    gestures.doubleClick(at(36, row(1)));
    expect(frames()).toEqual([0, 24, 36, 48]);
    gestures.doubleClick(at(10, row(0)));
    expect(frames()).toEqual([0, 10, 24, 36, 48]);
    const before = studio.project();
    gestures.doubleClick(at(20, row(3)));
    expect(studio.project()).toBe(before);
  });
});
