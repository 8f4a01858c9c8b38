import '@angular/compiler';
import { curveOf, moveKeys, setCurveFlag, type Project } from '@kaizen/core';
import { Opener } from '../open/opener';
import { fakes } from '../testing/fake-studio';
import { BenchCommands } from './bench-commands';
import { Panels } from './stage/panels';
import { ChartModel } from './plot/chart-model';
import { chartProject } from '../testing/chart-project';
import { ShapeSheets } from './shaping/shape-sheets';
import { ViewControl } from './stage/view-control';

const RUN = 'wagon/translate.x';
const LIFT = 'hook/translate.y';
const ref = (channel: string, frame: number) => ({ channel, frame });

function setUp(project: Project = chartProject()) {
  const made = fakes(project, [
    { provide: Opener, useValue: {} },
    { provide: Panels, useValue: { pointerIn: 'chart' } },
    { provide: ShapeSheets, useValue: { pasteAs: () => undefined, pasteTable: () => undefined } },
  ]);
  const commands = made.injector.get(BenchCommands);
  const run = (id: string) => {
    const command = commands.list().find((candidate) => candidate.id === id)!;
    if (command.when?.() ?? true) command.run();
  };
  const frames = (channel: string) => curveOf(made.studio.project()!, channel)?.keys.map((key) => key.frame);
  return {
    ...made,
    commands,
    run,
    frames,
    chart: made.injector.get(ChartModel),
    view: made.injector.get(ViewControl),
  };
}

describe('commands of the Bench', () => {
  it('have an id, a label and a shortcut that no other has', () => {
    const list = setUp().commands.list();
    expect(new Set(list.map((command) => command.id)).size).toBe(list.length);
    expect(new Set(list.map((command) => command.label)).size).toBe(list.length);
    const shortcuts = list.flatMap((command) => command.shortcuts ?? []);
    expect(new Set(shortcuts).size).toBe(shortcuts.length);
  });

  it('move the playhead by frames, keys and to the range’s ends', () => {
    const { stage, run } = setUp();
    const went = [
      'play.next-frame',
      'play.next-key',
      'play.next-key',
      'play.previous-key',
      'play.last',
      'play.first',
    ].map((id) => {
      run(id);
      return stage.frame();
    });
    expect(went).toEqual([1, 12, 24, 12, 48, 0]);
    run('play.toggle');
    expect(stage.playing()).toBe(true);
  });

  it('copy, cut and paste keys at the playhead; one channel’s keys onto the chosen ones', () => {
    const { studio, stage, run, frames } = setUp();
    studio.pick({ keys: [ref(RUN, 0), ref(RUN, 24)] });
    run('key.copy');
    stage.frame.set(60);
    run('key.paste');
    expect(frames(RUN)).toEqual([0, 24, 48, 60, 84]);
    expect(studio.bench().keys).toEqual([ref(RUN, 60), ref(RUN, 84)]);
    run('key.cut');
    expect(frames(RUN)).toEqual([0, 24, 48]);
    stage.frame.set(2);
    studio.pick({ channels: [LIFT] });
    run('key.paste');
    expect(frames(LIFT)).toEqual([2, 12, 26, 36]);
    expect(frames(RUN)).toEqual([0, 24, 48]);
  });

  it('nudge keys in time and value, and delete them but for locked ones', () => {
    const { studio, notices, run, frames } = setUp(setCurveFlag(chartProject(), [LIFT], 'locked', true));
    studio.pick({ keys: [ref(RUN, 24), ref(LIFT, 12)] });
    run('key.later');
    expect([frames(RUN), frames(LIFT)]).toEqual([
      [0, 25, 48],
      [12, 36],
    ]);
    studio.pick({ keys: [ref(RUN, 25), ref(LIFT, 12)] });
    run('key.higher');
    expect(curveOf(studio.project()!, RUN)!.keys[1]!.value).toBeCloseTo(2.01, 12);
    run('key.delete');
    expect([frames(RUN), frames(LIFT)]).toEqual([
      [0, 48],
      [12, 36],
    ]);
    expect(notices.said).toMatch(/^Keys of locked channels stay/);
  });

  it('choose all keys that are drawn, those at the playhead, or nothing', () => {
    const { studio, stage, run } = setUp();
    run('select.all');
    expect(studio.bench().keys).toHaveLength(5);
    expect(studio.bench().sheet).toBe('key');
    stage.frame.set(24);
    run('select.here');
    expect(studio.bench().keys).toEqual([ref(RUN, 24)]);
    run('select.none');
    expect(studio.bench()).toMatchObject({ keys: [], parts: [], channels: [] });
  });

  it('mute and lock the chosen channels, all one way', () => {
    const { studio, run } = setUp();
    studio.pick({ channels: [RUN, LIFT] });
    run('chart.mute');
    expect(curveOf(studio.project()!, LIFT)!.muted).toBe(true);
    run('chart.mute');
    expect(curveOf(studio.project()!, RUN)!.muted).toBe(false);
    run('chart.lock');
    expect(studio.labels.at(-1)).toBe('Lock 2 channels');
  });

  it('show one channel alone, and all again', () => {
    const { studio, run, chart } = setUp();
    studio.pick({ channels: [LIFT] });
    run('chart.only');
    expect(chart.plotted()).toEqual([LIFT]);
    run('chart.only');
    studio.pick({ channels: [] });
    expect(chart.plotted()).toEqual([RUN, LIFT]);
  });

  it('swap the working view and the shot camera; where there is none, offer one', () => {
    const { studio, notices, run, view } = setUp();
    run('view.swap');
    expect(view.shot()).toBeNull();
    expect(notices.said).toMatch(/no camera/);
    notices.action!();
    expect(studio.project()!.parts.at(-1)).toMatchObject({ id: 'camera', kind: 'camera' });
    run('view.swap');
    expect(view.shot()).toBe('camera');
    run('view.swap');
    expect(view.shot()).toBeNull();
  });

  it('add parts and remove them with all below and what waits for them', () => {
    const { studio, run } = setUp();
    run('part.add-box');
    run('part.add-box');
    expect(
      studio
        .project()!
        .parts.slice(-2)
        .map((part) => part.id),
    ).toEqual(['box', 'box-2']);
    const waiting = (part: string) => ({ channel: `${part}/translate.x`, frame: 0, value: 1, was: 0 });
    studio.loose.set([waiting('hook'), waiting('door')]);
    studio.pick({ parts: ['wagon'] });
    run('part.remove');
    expect(studio.project()!.parts.map((part) => part.id)).toEqual(['shed', 'door', 'box', 'box-2']);
    expect(studio.loose()).toEqual([{ channel: 'door/translate.x', frame: 0, value: 1, was: 0 }]);
  });

  it('change nothing while another tab edits', () => {
    const { studio, run, frames } = setUp();
    studio.readOnly.set(true);
    studio.pick({ keys: [ref(RUN, 24)], parts: ['wagon'], channels: [RUN] });
    for (const id of [
      'key.here',
      'key.delete',
      'key.later',
      'key.cut',
      'chart.mute',
      'part.remove',
      'part.add-box',
    ])
      run(id);
    expect(studio.labels).toEqual([]);
    expect(frames(RUN)).toEqual([0, 24, 48]);
  });
});

describe('the Chart’s scales', () => {
  it('fit time to the range, to chosen keys, and to all keys', () => {
    const { studio, chart, run } = setUp();
    run('fit.time');
    expect(chart.axis()).toEqual({ first: expect.closeTo(-4.8, 9), last: expect.closeTo(50.88, 9) });
    studio.pick({ keys: [ref(LIFT, 12), ref(LIFT, 36)] });
    run('fit.time');
    expect(chart.axis()).toEqual({ first: expect.closeTo(9.6, 9), last: expect.closeTo(37.44, 9) });
    studio.project.update((project) => ({ ...project!, range: { start: 10, end: 20, loop: false } }));
    run('fit.all');
    expect(chart.axis().first).toBeCloseTo(-4.8, 9);
  });

  it('fit values to the curves that show, and know when a key is out of sight', () => {
    const { studio, chart, run } = setUp();
    run('fit.time');
    studio.pick({ channels: [RUN] });
    run('fit.value');
    const [strip] = chart.plot().strips;
    expect(strip!.low).toBeCloseTo(2 - 4 * 0.62, 6);
    expect(strip!.high).toBeCloseTo(2 + 4 * 0.62, 6);
    const before = studio.project()!;
    expect(chart.showsAllKeys(before)).toBe(true);
    const lifted = (value: number) =>
      moveKeys(before, [{ channel: RUN, frame: 24 }], { frames: 0, value }).project;
    expect([before, lifted(0.1), lifted(100)].map((after) => chart.hidKeys(before, after))).toEqual([
      false,
      false,
      true,
    ]);
    expect(chart.hidKeys(lifted(100), lifted(200))).toBe(false);
    chart.zoomValue(strip!, 2, 4);
    expect(chart.showsAllKeys(studio.project()!)).toBe(false);
    chart.panPixels(0, 30, chart.plot().strips[0]);
    expect(chart.plot().strips[0]!.low).toBeGreaterThan(2 - 4 * 0.62 * 0.26);
  });
});
