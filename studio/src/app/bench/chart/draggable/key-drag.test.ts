import '@angular/compiler';
import { curveOf, followKeys, setSideMode, type Project } from '@kaizen/core';
import { draggedHandles, draggedKeys, handleChip, keyChip } from './key-drag';
import { hitChart } from '../hit';
import type { HitScene } from './draggable';
import { keysInBox } from './select-by-box';
import { initialBench } from '../../../state/bench';
import { channelLabel } from '../../stage/channel-label';
import { layPlot, layStrips, PLOT_TOP, RULER, ROW, xOf, yOf } from '../../plot/plot';
import { chartRows } from '../../plot/rows';
import { chartProject, EVERY_ROW, programOf } from '../../../testing/chart-project';

const project = chartProject();
const RUN = 'wagon/translate.x';
const LIFT = 'hook/translate.y';
const ref = (channel: string, frame: number) => ({ channel, frame });
const places = (from: Project, channel: string) =>
  curveOf(from, channel)!.keys.map((key) => [key.frame, key.value]);

describe('dragging keys', () => {
  it('moves time on all, value only on the channels of the strip where it began', () => {
    const refs = [ref(RUN, 24), ref(LIFT, 36)];
    const edited = draggedKeys(project, refs, [RUN], { frames: 2, value: 0.5, copy: false });
    const moved = edited.project;
    expect(places(moved, RUN)[1]).toEqual([26, 2.5]);
    expect(places(moved, LIFT)[1]).toEqual([38, 3]);
    expect(followKeys(refs, project, edited)).toEqual([ref(RUN, 26), ref(LIFT, 38)]);
  });

  it('tells what it does in a chip', () => {
    expect(keyChip(project, ref(RUN, 24), { frames: 3, value: 0.15, copy: false }, 'm')).toBe(
      'f 24 → 27 (+3) · 2.000 → 2.150 m (+0.150)',
    );
    expect(keyChip(project, ref(RUN, 24), { frames: -1.5, value: -0.15, copy: true }, null)).toBe(
      'f 24 → 22.5 (−1.5) · copy',
    );
  });

  it('moves handles by one difference, each from its own place', () => {
    const set = setSideMode(project, [ref(RUN, 24)], 'out', 'set');
    const handles = [{ ...ref(RUN, 24), side: 'out' as const }];
    const moved = draggedHandles(set, handles, { frames: 4, value: 1 });
    const key = curveOf(moved, RUN)!.keys[1]!;
    expect(key.out.reach).toBeCloseTo(12 / 24, 12);
    expect(key.out.slope * 12).toBeCloseTo(8 * (4 / 48) + 1, 12);
    expect(handleChip(set, moved, handles[0]!, 'm')).toBe('slope 2.00 → 3.33 m/s · reach 0.33 → 0.50');
  });
});

describe('what lies under the pointer', () => {
  const channels = [RUN, LIFT].map((channel) => ({ channel, label: channelLabel(project, channel) }));
  const height = PLOT_TOP + 300;
  const strips = layStrips(channels, new Map([['m', { low: -1, high: 5 }]]), height);
  const plot = layPlot({ first: -12, last: 60 }, 720, height, strips);
  const rows = chartRows(project, new Set(), [], EVERY_ROW);
  const scene: HitScene = {
    plot,
    project,
    program: programOf(project),
    bench: initialBench,
    rows,
    scrollTop: 0,
  };
  const [strip] = strips;
  const at = (frame: number, value: number): [number, number] => [xOf(plot, frame), yOf(strip!, value)];

  it('is the ruler, a mark of the range, a key, a curve, or the ground', () => {
    expect(hitChart(scene, xOf(plot, 20), 4)).toEqual({ kind: 'ruler' });
    expect(hitChart(scene, xOf(plot, 48) - 2, RULER - 2)).toEqual({ kind: 'range', end: 'end' });
    expect(hitChart(scene, ...at(24, 2))).toMatchObject({ kind: 'keys', refs: [ref(RUN, 24)] });
    expect(hitChart(scene, ...at(36, 3.25))).toMatchObject({ kind: 'curve', channel: RUN });
    expect(hitChart(scene, ...at(6, 4.5))).toMatchObject({ kind: 'ground' });
  });

  it('is a handle only of a chosen key', () => {
    const end = at(32, 2 + 8 / 12);
    expect(hitChart(scene, ...end).kind).not.toBe('handle');
    const chosen = { ...scene, bench: { ...initialBench, keys: [ref(RUN, 24)] } };
    expect(hitChart(chosen, ...end)).toMatchObject({
      kind: 'handle',
      handle: { ...ref(RUN, 24), side: 'out' },
    });
  });

  it('is a part’s peg in Ticks, which stands for its keys there', () => {
    const ticks = { ...scene, bench: { ...initialBench, density: 'ticks' as const } };
    expect(hitChart(ticks, xOf(plot, 24), RULER + ROW / 2)).toMatchObject({
      kind: 'keys',
      refs: [ref(RUN, 24)],
    });
    expect(hitChart(ticks, xOf(plot, 30), RULER + ROW * 1.5)).toMatchObject({ kind: 'curve', channel: RUN });
  });

  it('is in a box: keys by their places, in Ticks by their rows', () => {
    const box = { left: xOf(plot, 10), right: xOf(plot, 40), top: PLOT_TOP, bottom: height };
    expect(keysInBox(scene, box)).toEqual([ref(RUN, 24), ref(LIFT, 12), ref(LIFT, 36)]);
    const row = { ...box, top: RULER + ROW, bottom: RULER + 2 * ROW };
    expect(keysInBox({ ...scene, bench: { ...initialBench, density: 'ticks' } }, row)).toEqual([
      ref(RUN, 24),
    ]);
  });
});
