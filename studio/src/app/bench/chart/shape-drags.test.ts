import '@angular/compiler';
import { curveOf, setLeg, type Project, cruises, speedMarks } from '@kaizen/core';
import { chartHands, pointerAt, pressChart } from '../../testing/chart-hands';
import { chartProject } from '../../testing/chart-project';
import type { BenchState } from '../../state/bench';
import { BoxGripHand } from './draggable/box-grip';
import { CruiseHand } from './draggable/cruise';
import type { Drag } from '../../ui/follow-drag';
import { ChartGestures } from './chart-gestures';
import { xOf, yOf, type Strip } from '../plot/plot';
import { boxGrips } from './draggable/scale-box';
import { SpeedMarkHand } from './draggable/speed-mark';
import type { HitScene } from './draggable';

const RUN = 'wagon/translate.x';
const LIFT = 'hook/translate.y';
const ref = (channel: string, frame: number) => ({ channel, frame });

function setUp(project: Project, bench: Partial<BenchState>) {
  const made = chartHands(project, 448);
  made.studio.set(bench);
  const { model } = made;
  model.ranges.set(
    new Map([
      ['m', { low: -1, high: 5 }],
      ['m/s', { low: -4, high: 6 }],
    ]),
  );
  const scene = (): HitScene => ({
    plot: model.plot(),
    project: made.studio.project()!,
    program: made.stage.program()!,
    bench: made.studio.bench(),
    rows: [],
    scrollTop: 0,
  });
  const strip = (order: number): Strip => model.plot().strips.find((each) => each.order === order)!;
  const keys = (channel = RUN) => curveOf(made.studio.project()!, channel)!.keys;
  return { ...made, scene, strip, at: pointerAt, keys };
}

const trapezoid = () =>
  setLeg(chartProject(), [ref(RUN, 0)], {
    kind: 'law',
    law: 'trapezoid',
    accelerate: 0.25,
    decelerate: 0.25,
  });
const perFrame = (value: number) => value / 24;

describe('dragging in the strip of speed', () => {
  const rates = { density: 'rates', channels: [RUN] } as const;

  it('lifts a cruise: shown on the way, one step at the end, every key in its place', () => {
    const it = setUp(trapezoid(), rates);
    const [cruise] = cruises(it.studio.project()!, curveOf(it.studio.project()!, RUN)!);
    const strip = it.strip(1);
    const y = yOf(strip, cruise!.speed);
    const drag = it.injector
      .get(CruiseHand)
      .begin(it.scene(), it.at(100, y), { kind: 'cruise', cruise: cruise!, strip });
    drag.move(it.at(100, yOf(strip, cruise!.speed + 0.5)));
    expect(it.studio.labels).toEqual([]);
    expect(it.stage.proposed()).not.toBeNull();
    expect(it.model.drag()!.chip!.text).toBe('speed 2.67 → 3.17 m/s (+0.50) · places stay');
    drag.end(it.at(0, 0));
    expect(it.studio.labels).toEqual(['Reshape a cruise']);
    expect(it.stage.proposed()).toBeNull();
    expect(it.keys().map(({ value }) => value)).toEqual([0, 2, 4]);
    const leg = it.keys()[0]!.leg as { accelerate: number; decelerate: number };
    const speed = 2 / (1 - (leg.accelerate + leg.decelerate) / 2);
    expect(speed).toBeCloseTo(cruise!.speed + 0.5, 6);
  });

  it('moves the end of a ramp, and gives it up', () => {
    const it = setUp(trapezoid(), rates);
    const before = it.studio.project();
    const mark = speedMarks(before!, curveOf(before!, RUN)!, () => false).find(
      ({ kind }) => kind === 'ramp',
    )!;
    const [x, y] = [xOf(it.model.plot(), mark.frame), yOf(it.strip(1), mark.speed)];
    const begin = () =>
      it.injector
        .get(SpeedMarkHand)
        .begin(it.scene(), it.at(x, y), { kind: 'speed', mark, strip: it.strip(1) });
    const given = begin();
    given.move(it.at(x + 30, y));
    given.cancel();
    expect(it.studio.project()).toBe(before);
    expect(it.stage.proposed()).toBeNull();
    const kept = begin();
    kept.move(it.at(x + 30, y));
    expect(it.model.drag()!.chip!.text).toBe('accelerate over 0.375 of the leg · places stay');
    kept.end(it.at(0, 0));
    expect(it.keys()[0]!.leg).toMatchObject({ accelerate: expect.closeTo(0.375, 9) as number });
  });

  it('at a key changes its slope; with the places free the keys behind go along', () => {
    for (const lock of ['places', 'free'] as const) {
      const it = setUp(chartProject(), rates);
      it.studio.set({ shaping: { ...it.studio.bench().shaping, lock } });
      const project = it.studio.project()!;
      const mark = speedMarks(project, curveOf(project, RUN)!, () => false).find(
        ({ frame }) => frame === 24,
      )!;
      const strip = it.strip(1);
      const [x, y] = [xOf(it.model.plot(), 24), yOf(strip, mark.speed)];
      const drag = it.injector
        .get(SpeedMarkHand)
        .begin(it.scene(), it.at(x, y), { kind: 'speed', mark, strip });
      drag.move(it.at(x, yOf(strip, mark.speed + 1)));
      drag.end(it.at(0, 0));
      expect(it.keys()[1]!.out.slope).toBeCloseTo(perFrame(mark.speed + 1), 9);
      const moved = lock === 'free' ? 0.5 : 0;
      expect(it.keys()[1]!.value).toBeCloseTo(2 + moved, 9);
      expect(it.keys()[2]!.value).toBeCloseTo(4 + 2 * moved, 9);
    }
  });

  it('does nothing while another tab edits', () => {
    const it = setUp(trapezoid(), rates);
    it.studio.readOnly.set(true);
    const before = it.studio.project();
    const [cruise] = cruises(before!, curveOf(before!, RUN)!);
    const drag = it.injector
      .get(CruiseHand)
      .begin(it.scene(), it.at(0, 0), { kind: 'cruise', cruise: cruise!, strip: it.strip(1) });
    drag.move(it.at(0, 50));
    drag.end(it.at(0, 50));
    expect(it.studio.project()).toBe(before);
    expect(it.studio.labels).toEqual([]);
  });
});

describe('dragging the box around chosen keys', () => {
  const chosen = {
    density: 'curves',
    channels: [RUN, LIFT],
    keys: [0, 24, 48].map((f) => ref(RUN, f)),
  } as const;

  function grab(time: -1 | 0 | 1, value: -1 | 0 | 1) {
    const it = setUp(chartProject(), chosen);
    it.studio.set({ shaping: { ...it.studio.bench().shaping, box: true } });
    const strip = it.strip(0);
    const grip = boxGrips(it.model.plot(), strip, it.studio.project()!, it.studio.bench().keys).find(
      (each) => each.time === time && each.value === value,
    )!;
    const drag: Drag = it.injector
      .get(BoxGripHand)
      .begin(it.scene(), it.at(grip.x, grip.y), { kind: 'box', grip, strip });
    const to = (frames: number, rise: number, more: object = {}) =>
      it.at(grip.x + frames * 10, grip.y + yOf(strip, rise) - yOf(strip, 0), more);
    return { ...it, drag, to };
  }

  it('by its right edge scales time about the left one, the edge on a whole frame', () => {
    const it = grab(1, 0);
    it.drag.move(it.to(-24.3, 3));
    expect(it.model.drag()!.chip!.text).toBe('time × 0.500 about f 0');
    it.drag.end(it.to(0, 0));
    expect(it.keys().map(({ frame, value }) => [frame, value])).toEqual([
      [0, 0],
      [12, 2],
      [24, 4],
    ]);
    expect(it.studio.bench().keys.map(({ frame }) => frame)).toEqual([0, 12, 24]);
  });

  it('by its top scales values about the bottom, with Ctrl about the middle', () => {
    const top = grab(0, 1);
    top.drag.move(top.to(0, 2));
    top.drag.end(top.to(0, 2));
    expect(top.keys().map(({ value }) => value)).toEqual(
      [0, 3, 6].map((v) => expect.closeTo(v, 9) as number),
    );
    const middle = grab(0, 1);
    middle.drag.move(middle.to(0, 1, { ctrlKey: true }));
    middle.drag.end(middle.to(0, 1));
    expect(middle.keys().map(({ value }) => value)).toEqual(
      [-1, 2, 5].map((v) => expect.closeTo(v, 9) as number),
    );
    expect(middle.keys(LIFT).map(({ value }) => value)).toEqual([1, 3]);
  });

  it('given up leaves keys and what is chosen as they were', () => {
    const it = grab(1, 1);
    const before = it.studio.project();
    it.drag.move(it.to(20, 1));
    it.drag.cancel();
    expect(it.studio.project()).toBe(before);
    expect(it.studio.bench().keys.map(({ frame }) => frame)).toEqual([0, 24, 48]);
  });
});

describe('a press on keys and curves that lie on each other', () => {
  /** The lift made to run exactly as the wagon does. */
  function alike(): Project {
    const project = chartProject();
    const run = curveOf(project, RUN)!;
    const clip = project.clips[0]!;
    return { ...project, clips: [{ ...clip, curves: [run, { ...run, channel: LIFT }] }] };
  }
  const click = (it: ReturnType<typeof setUp>, frame: number, value: number) => {
    const event = pointerAt(xOf(it.model.plot(), frame), yOf(it.strip(0), value));
    pressChart(it.injector.get(ChartGestures), event).up(event);
  };

  it('takes the next curve on a second click', () => {
    const it = setUp(alike(), { density: 'curves', channels: [RUN, LIFT] });
    const value = it.stage.program()!.channelValue(it.stage.program()!.structure.slots.get(RUN)!, 12);
    click(it, 12, value);
    expect(it.studio.bench().channels).toEqual([RUN]);
    click(it, 12, value);
    expect(it.studio.bench().channels).toEqual([LIFT]);
    click(it, 12, value);
    expect(it.studio.bench().channels).toEqual([RUN]);
  });

  it('takes the next key on a second click', () => {
    const it = setUp(alike(), { density: 'curves', channels: [RUN, LIFT] });
    click(it, 24, 2);
    expect(it.studio.bench().keys).toEqual([ref(RUN, 24)]);
    click(it, 24, 2);
    expect(it.studio.bench().keys).toEqual([ref(LIFT, 24)]);
  });
});
