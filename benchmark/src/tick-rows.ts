import { compile, curveOf, type Project } from '@kaizen/core';
import { draggedKeys } from '../../studio/src/app/bench/chart/draggable/key-drag';
import { drawTicks } from '../../studio/src/app/bench/chart/draw-ticks';
import { layPlot, ROW } from '../../studio/src/app/bench/plot/plot';
import { chartRows, type Row, type RowsQuery } from '../../studio/src/app/bench/plot/rows';
import { initialBench, type BenchState } from '../../studio/src/app/state/bench';
import type { LooseEdit } from '../../studio/src/app/state/document';
import { keyedProject } from './keyed-project';
import { measure, type Result } from './measure';
import { BLACK_INK, silentPen } from './silent-pen';

const KEYS = 200;
const LAST = 1000;
const PROPERTIES = ['translate.x', 'translate.y', 'translate.z', 'rotate.x', 'rotate.y'];
const PLOT = layPlot({ first: 0, last: LAST }, 1000, 600, []);
const NOTHING: ReadonlySet<string> = new Set();
const NO_LOOSE: readonly LooseEdit[] = [];

/** A project of so many channels with 200 keys each, five channels a part. */
function manyRows(channels: number): Project {
  const frames = Array.from({ length: KEYS }, (_, i) => i * (LAST / KEYS));
  return keyedProject(channels / PROPERTIES.length, PROPERTIES, LAST, () => frames);
}

/** The frames of scrolling and of dragging a key in Ticks, as the Chart makes them. */
function ticksOf(channels: number) {
  const project = manyRows(channels);
  const compiled = compile(project);
  if (!compiled.ok) throw new Error('does not compile');
  const program = compiled.value;
  const pen = silentPen();
  const grabbed = [{ channel: 'part-1/translate.y', frame: 500 }];
  const bench: BenchState = { ...initialBench, density: 'ticks', keys: grabbed };
  const { filter, everyChannel, collapsed, parts, channels: chosen, kinds, summary } = bench;
  const query: RowsQuery = {
    filter,
    everyChannel,
    collapsed,
    parts,
    channels: chosen,
    kinds,
    summary,
    search: '',
    set: null,
  };
  const rowsOf = (of: Project): readonly Row[] => chartRows(of, NOTHING, NO_LOOSE, query);
  const rows = rowsOf(project);
  const draw = (of: Project, shown: readonly Row[], scrollTop: number, oldProject: Project | null) =>
    drawTicks(pen, {
      plot: PLOT,
      ink: BLACK_INK,
      project: of,
      bench,
      rows: shown,
      scrollTop,
      oldProject,
      program: null,
      oldChannels: oldProject ? grabbed.map(({ channel }) => channel) : [],
    });
  let top = 0;
  let step = 0;
  return {
    scroll: () => {
      top = (top + 7) % Math.max(1, rows.length * ROW - 600);
      draw(project, rows, top, null);
    },
    drag: () => {
      step = (step + 1) % 4;
      const next = draggedKeys(project, grabbed, [], {
        frames: step / 4 + 0.25,
        value: 0,
        copy: false,
      }).project;
      const shown = compile(next, { previous: program });
      if (!shown.ok || curveOf(next, grabbed[0]!.channel) === undefined) throw new Error('does not compile');
      draw(next, rowsOf(next), 0, project);
    },
  };
}

export function tickRows(): Result[] {
  const [few, many] = [ticksOf(50), ticksOf(1000)];
  const [scrollFew, scrollMany, dragFew, dragMany] = measure([
    { name: 'scroll 50', run: few.scroll },
    { name: 'scroll 1,000', run: many.scroll },
    { name: 'drag 50', run: few.drag },
    { name: 'drag 1,000', run: many.drag },
  ]) as [number, number, number, number];
  const result = (what: string, a: number, b: number): Result => ({
    what: `Ticks: ${what} a frame over 1,000 channels of 200 keys (${b.toFixed(2)} ms of script), against one over 50 (${a.toFixed(2)} ms)`,
    measured: `${(b / a).toFixed(2)} times the cost`,
    wanted: 'at most 1.5',
    good: b / a <= 1.5,
  });
  return [result('scrolling', scrollFew, scrollMany), result('dragging a key', dragFew, dragMany)];
}
