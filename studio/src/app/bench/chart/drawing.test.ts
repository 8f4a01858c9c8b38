import '@angular/compiler';
import { putMarker, setCurveFlag, setOutside, type Project } from '@kaizen/core';
import { chartProject, EVERY_ROW, programOf } from '../../testing/chart-project';
import { NAMED_INK as ink, recordingPen, type Stroke } from '../../testing/recording-pen';
import { drawMarkers, drawSounds } from '../ruler/draw-marks';
import type { BenchState } from '../../state/bench';
import { drawOverlay } from './draw-overlay';
import { drawRuler } from './draw-ruler';
import { drawTicks, type TicksScene } from './draw-ticks';
import type { HitScene, Target } from './draggable';
import { runEnds } from './draggable/run';
import { hitChart } from './hit';
import { headHeight, layPlot, MARKER_ROW, ROW, RULER, SOUND_ROW, xOf } from '../plot/plot';
import { chartRows } from '../plot/rows';

const RUN = 'wagon/translate.x';
const BENCH = {
  density: 'ticks',
  keys: [],
  handles: [],
  channels: [],
  parts: [],
  stakes: [],
} as unknown as BenchState;
const LOOSE = [{ channel: RUN, frame: 30, value: 9, was: 2.5 }];
const driven = new Set(['wheel/rotate.z']);

function ticks(project: Project, bench: Partial<BenchState> = {}, old: Project | null = null): Stroke[] {
  const { pen, strokes } = recordingPen();
  const scene: TicksScene = {
    plot: layPlot({ first: 0, last: 100 }, 1000, 400, []),
    ink,
    project,
    bench: { ...BENCH, ...bench },
    rows: chartRows(project, driven, LOOSE, EVERY_ROW),
    scrollTop: 0,
    oldProject: old,
    oldChannels: old ? [RUN] : [],
    program: programOf(project),
  };
  drawTicks(pen, scene);
  return strokes;
}

/** Where filled shapes begin, of a colour, in the row of a height. */
const shapes = (strokes: readonly Stroke[], fill: string, row: number) => {
  const [top, foot] = [RULER + row * ROW, RULER + (row + 1) * ROW];
  return strokes.flatMap((stroke, i) => {
    if (stroke.method !== 'fill' || stroke.fill !== fill) return [];
    const start = strokes.slice(0, i).findLast(({ method }) => method === 'moveTo');
    const [x, y] = (start?.args ?? []) as number[];
    return y! >= top && y! < foot ? [Math.round(x!)] : [];
  });
};
const texts = (strokes: readonly Stroke[]) =>
  strokes.filter(({ method }) => method === 'fillText').map(({ args }) => args[0]);

describe('Ticks', () => {
  it('draw a peg where each key is, hollow ones on the row of its part, chosen ones in petrol', () => {
    const strokes = ticks(chartProject(), { keys: [{ channel: RUN, frame: 24 }] });
    expect(shapes(strokes, 'sheet', 0)).toEqual([-2, 478]);
    expect(shapes(strokes, 'select', 0)).toEqual([238]);
    expect(shapes(strokes, 'ink', 1)).toEqual([-2, 478]);
    expect(shapes(strokes, 'select', 1)).toEqual([237]);
  });

  it('draw loose edits dashed in ochre, drivers in words, and held legs as bars', () => {
    const strokes = ticks(chartProject());
    expect(strokes.some(({ method, stroke }) => method === 'stroke' && stroke === 'loose')).toBe(true);
    expect(texts(strokes)).toContain('wheel, from Wagon, place X');
    const bars = strokes.filter(
      ({ method, fill, args }) => method === 'fillRect' && fill === 'rule' && args[3] === 8,
    );
    expect(bars.map(({ args }) => args.slice(0, 3).map((n) => Math.round(Number(n))))).toEqual([
      [120, RULER + 5 * ROW + 8, 240],
    ]);
  });

  it('name what is outside the keys, lean keys between frames, and bar locked rows', () => {
    const looping = setOutside(chartProject(), [RUN], 'after', { mode: 'loop', pin: 24 });
    expect(texts(ticks(looping))).toEqual(expect.arrayContaining(['Loop', 'lead-in, once']));
    const locked = ticks(setCurveFlag(chartProject(), [RUN], 'locked', true));
    const bar = locked.find(
      ({ method, fill, args }) => method === 'fillRect' && fill === 'soft' && args[3] === 2,
    );
    expect(bar!.args[1]).toBe(RULER + 2 * ROW - 4);
  });

  it('keep the old pegs pale while a key moves', () => {
    const pale = ticks(chartProject(), {}, chartProject()).filter(
      ({ alpha, method }) => alpha === 0.3 && method === 'fill',
    );
    expect(pale).toHaveLength(3);
  });

  it('show arrows outside a run of chosen pegs', () => {
    const keys = [24, 48].map((frame) => ({ channel: RUN, frame }));
    expect(shapes(ticks(chartProject(), { keys }), 'select', 1)).toEqual([237, 477, 223, 497]);
  });
});

describe('the ruler’s drawing', () => {
  const project = putMarker(
    putMarker(chartProject(), { id: 'a', name: 'full', kind: 'note', frame: 10, end: null }),
    { id: 'b', name: 'tipping', kind: 'hold', frame: 30, end: 60 },
  );
  const plot = layPlot({ first: 0, last: 100 }, 1000, 400, [], headHeight(project));

  it('has frame numbers, markers with their signs, and the picked one on its own ground', () => {
    const { pen, strokes } = recordingPen();
    drawRuler(pen, plot, ink, project);
    drawMarkers(pen, plot, ink, project, 'b');
    expect(texts(strokes)).toEqual(expect.arrayContaining(['0', '50', 'full', '▬ tipping']));
    const ground = strokes.find(({ fill }) => fill === 'selectGround');
    expect(ground!.args.slice(0, 3)).toEqual([300, RULER + 3, 300]);
  });

  it('draws a sound from its frame on, as loud as it is', () => {
    const sound = { id: 's', asset: 'x', start: 24, gain: 0.5, muted: false };
    const sounding = { ...project, sounds: [sound] };
    const { pen, strokes } = recordingPen();
    const at = layPlot({ first: 0, last: 100 }, 1000, 400, [], headHeight(sounding));
    const peaks = { seconds: 1, highest: Float32Array.of(1, 0) };
    drawSounds(pen, at, ink, sounding, () => peaks);
    const wave = strokes.filter(({ fill, args }) => fill === 'y' && args[2] === 1);
    const middle = RULER + MARKER_ROW + SOUND_ROW / 2;
    expect(wave[0]!.args).toEqual([240, middle - 6.5, 1, 13]);
    expect(wave.find(({ args }) => args[0] === 400)!.args[3]).toBe(1);
  });

  it('has the playhead with its frame, marked while Capture is on, Stakes, and the part of time that is affected', () => {
    const shown = (capture: boolean) => {
      const { pen, strokes } = recordingPen();
      const stakes = [
        { from: 10, to: 10 },
        { from: 40, to: 52 },
      ];
      drawOverlay(pen, plot, ink, 24.5, null, { capture, affected: { first: 40, last: Infinity }, stakes });
      return strokes;
    };
    expect(texts(shown(false))).toEqual(['10', '40 → 52 (+12)', '24.5']);
    expect(shown(false).some(({ method }) => method === 'arc')).toBe(false);
    expect(shown(true).some(({ method, fill }) => method === 'arc' && fill === 'paper')).toBe(true);
    const band = shown(false).find(({ method, fill }) => method === 'fillRect' && fill === 'select1c');
    expect(band!.args).toEqual([400, 0, 600, 400]);
  });
});

describe('what lies under the pointer', () => {
  const project = putMarker(chartProject(), { id: 'b', name: 'tipping', kind: 'hold', frame: 30, end: 60 });
  const sounding = { ...project, sounds: [{ id: 's', asset: 'x', start: 24, gain: 1, muted: false }] };
  const plot = layPlot({ first: 0, last: 100 }, 1000, 400, [], headHeight(sounding));
  const keys = [24, 48].map((frame) => ({ channel: RUN, frame }));
  const scene: HitScene = {
    plot,
    project: sounding,
    program: programOf(project),
    bench: { ...BENCH, keys, stakes: [{ from: 70, to: 75 }] },
    rows: chartRows(project, driven, [], EVERY_ROW),
    scrollTop: 0,
  };
  const kind = (frame: number, y: number, aside = 0): Target => hitChart(scene, xOf(plot, frame) + aside, y);

  it('on the ruler is a Stake, a marker by its end or as a whole, a sound, or the ruler itself', () => {
    expect(kind(75, 6)).toMatchObject({ kind: 'stake', stake: { from: 70 } });
    expect(kind(45, RULER + 8)).toMatchObject({ kind: 'marker', end: 'whole' });
    expect(kind(60, RULER + 8)).toMatchObject({ kind: 'marker', end: 'end' });
    expect(kind(30, RULER + 8)).toMatchObject({ kind: 'marker', end: 'start' });
    expect(kind(80, RULER + 8)).toEqual({ kind: 'ruler' });
    expect(kind(50, RULER + MARKER_ROW + 8)).toMatchObject({ kind: 'sound' });
    expect(kind(10, RULER + MARKER_ROW + 8)).toEqual({ kind: 'ruler' });
  });

  it('beside the outer chosen pegs of a row is the end of their run', () => {
    const y = plot.head + ROW * 1.5;
    expect(kind(48, y, 13)).toEqual({ kind: 'run', end: 'end', frame: 48 });
    expect(kind(24, y, -13)).toEqual({ kind: 'run', end: 'start', frame: 24 });
    expect(kind(48, y)).toMatchObject({ kind: 'keys' });
    expect(runEnds(plot, scene.rows[1]!, new Set([24]))).toBeNull();
    expect(runEnds(plot, scene.rows[0]!, new Set([24, 48]))).toBeNull();
  });
});
