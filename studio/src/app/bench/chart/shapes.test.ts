import '@angular/compiler';
import { curveOf, moveKeys, setOutside, type HandleRef, type Project, curvePolyline } from '@kaizen/core';
import { initialBench, type BenchState } from '../../state/bench';
import { chartProject, programOf } from '../../testing/chart-project';
import { channelLabel } from '../stage/channel-label';
import { coincidingGroups } from '../plot/coinciding';
import { hitChart } from './hit';
import { draggedHandles } from './draggable/key-drag';
import { fitPlane, pathChannels } from './path/path-plane';
import { layPlot, layStrips, xOf, yOf } from '../plot/plot';
import { boxGrips, keyBox } from './draggable/scale-box';
import type { HitScene } from './draggable';

const RUN = 'wagon/translate.x';
const LIFT = 'hook/translate.y';
const ref = (channel: string, frame: number) => ({ channel, frame });

/** The lift made to run exactly as the wagon does. */
function alike(): Project {
  const project = chartProject();
  const run = curveOf(project, RUN)!;
  const clip = project.clips[0]!;
  return { ...project, clips: [{ ...clip, curves: [run, { ...run, channel: LIFT }] }] };
}

function sceneOf(project: Project, bench: Partial<BenchState> = {}): HitScene {
  const channels = [RUN, LIFT].map((channel) => ({ channel, label: channelLabel(project, channel) }));
  const strips = layStrips(channels, new Map([['m', { low: -1, high: 7 }]]), 400);
  return {
    plot: layPlot({ first: 0, last: 100 }, 1000, 400, strips),
    project,
    program: programOf(project),
    bench: { ...initialBench, ...bench },
    rows: [],
    scrollTop: 0,
  };
}
const under = (scene: HitScene, frame: number, value: number) => {
  const strip = scene.plot.strips[0]!;
  return hitChart(scene, xOf(scene.plot, frame), yOf(strip, value));
};

describe('curves that lie on each other', () => {
  const groups = (project: Project) => {
    const scene = sceneOf(project);
    const line = (channel: string) => {
      const compiled = scene.program.curveAt(scene.program.structure.slots.get(channel)!)!;
      return curvePolyline(compiled, 0, 100, 1);
    };
    const [strip] = scene.plot.strips;
    return coincidingGroups(strip!, strip!.channels, line);
  };

  it('are one group, and no longer once one of them moves', () => {
    expect(groups(alike()).get(LIFT)).toEqual([RUN, LIFT]);
    const moved = moveKeys(alike(), [ref(LIFT, 24)], { frames: 0, value: 0.5 }).project;
    expect(groups(moved).size).toBe(0);
  });

  it('are all found under the pointer, with their keys; the chosen one first', () => {
    const there = sceneOf(alike()).program.channelValue(programOf(alike()).structure.slots.get(RUN)!, 12);
    expect(under(sceneOf(alike()), 12, there)).toMatchObject({
      kind: 'curve',
      channel: RUN,
      all: [RUN, LIFT],
    });
    expect(under(sceneOf(alike(), { channels: [LIFT] }), 12, there)).toMatchObject({ channel: LIFT });
    const keys = under(sceneOf(alike(), { keys: [ref(LIFT, 24)] }), 24, 2);
    expect(keys).toMatchObject({ kind: 'keys', refs: [ref(LIFT, 24)], under: [ref(RUN, 24), ref(LIFT, 24)] });
  });
});

describe('a repeated key', () => {
  it('leads to the key that it repeats', () => {
    const looping = setOutside(chartProject(), [RUN], 'after', { mode: 'loop-carry' });
    expect(under(sceneOf(looping), 72, 6)).toEqual({ kind: 'repeated', ref: ref(RUN, 24) });
    expect(under(sceneOf(looping), 60, -0.8)).toMatchObject({ kind: 'ground' });
  });
});

describe('the box around chosen keys', () => {
  const keys = [ref(RUN, 0), ref(RUN, 24), ref(LIFT, 12)];

  it('holds their frames and values, with a grip on each side and corner', () => {
    const scene = sceneOf(chartProject(), { keys });
    const strip = scene.plot.strips[0]!;
    expect(keyBox(scene.project, strip, keys)).toEqual({ start: 0, end: 24, low: 0, high: 2 });
    expect(boxGrips(scene.plot, strip, scene.project, keys)).toHaveLength(8);
    expect(keyBox(scene.project, strip, keys.slice(0, 1))).toBeNull();
    const level = boxGrips(scene.plot, strip, scene.project, [ref(LIFT, 12), ref(LIFT, 12)]);
    expect(level).toEqual([]);
  });

  it('is found by its grips before the keys, only while it is asked for', () => {
    const shaping = { ...initialBench.shaping, box: true };
    const scene = sceneOf(chartProject(), { keys, shaping });
    const strip = scene.plot.strips[0]!;
    const corner = boxGrips(scene.plot, strip, scene.project, keys).find(
      ({ time, value }) => time === 1 && value === 1,
    )!;
    expect(hitChart(scene, corner.x, corner.y)).toMatchObject({
      kind: 'box',
      grip: { time: 1, value: 1 },
    });
    const without = sceneOf(chartProject(), { keys });
    expect(hitChart(without, corner.x, corner.y).kind).not.toBe('box');
  });
});

describe('handles whose lengths go together', () => {
  it('get longer by as many frames on both sides of each key, slopes as they were', () => {
    const project = chartProject();
    const out: HandleRef = { ...ref(RUN, 24), side: 'out' };
    const dragged = draggedHandles(project, [out], { frames: 4, value: 0 }, out);
    const key = curveOf(dragged, RUN)!.keys[1]!;
    expect(key.out.reach).toBeCloseTo(12 / 24, 9);
    expect(key.in.reach).toBeCloseTo(12 / 24, 9);
    const alone = curveOf(draggedHandles(project, [out], { frames: 4, value: 0 }), RUN)!.keys[1]!;
    expect(alone.in.reach).toBeCloseTo(1 / 3, 9);
  });
});

describe('the plane of a path', () => {
  it('has as many pixels a metre across as up, with all points inside', () => {
    const plane = fitPlane(
      [
        [-2, 0],
        [4, 1],
      ],
      400,
      300,
    );
    expect(plane.x(1) - plane.x(0)).toBeCloseTo(plane.scale, 9);
    expect(plane.y(0) - plane.y(1)).toBeCloseTo(plane.scale, 9);
    for (const x of [-2, 4]) expect(Math.abs(plane.x(x) - 200)).toBeLessThan(200);
  });

  it('is of the two drawn place channels, else of those of the part that have keys', () => {
    const has = (channel: string) => channel.endsWith('.z');
    expect(pathChannels(['a/translate.y', 'a/translate.x'], has)).toEqual(['a/translate.x', 'a/translate.y']);
    expect(pathChannels(['a/translate.x'], has)).toEqual(['a/translate.x', 'a/translate.z']);
    expect(pathChannels(['a/rotate.x'], has)).toBeNull();
  });
});
