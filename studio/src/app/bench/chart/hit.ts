import { PEG_ROW, ROW, RULER, stripAt } from '../plot/plot';
import { DRAGGABLES, type HitScene, type Place, type Target } from './draggable';

/** What lies under a place of the Chart's canvas. */
export function hitChart(scene: HitScene, x: number, y: number): Target {
  const place = placeAt(scene, x, y);
  for (const draggable of DRAGGABLES) {
    const target = draggable.areas.includes(place.area) ? draggable.hit(scene, place) : null;
    if (target) return target;
  }
  return { kind: 'ground', strip: null };
}

function placeAt(scene: HitScene, x: number, y: number): Place {
  const { plot, bench, rows } = scene;
  const at = { x, y, strip: null, row: undefined };
  if (y < RULER) return { ...at, area: 'ruler' };
  if (y < plot.head) return { ...at, area: 'marks' };
  if (bench.density === 'ticks') return { ...at, area: 'ticks', row: rows[rowAt(scene, y)] };
  if (y < plot.head + PEG_ROW) return { ...at, area: 'pegs' };
  const strip = stripAt(plot, y) ?? null;
  return { ...at, area: strip && strip.order > 0 ? 'rates' : 'values', strip };
}

/** The place in the list of the row at a height of the canvas, in Ticks. */
export function rowAt({ plot, scrollTop }: Pick<HitScene, 'plot' | 'scrollTop'>, y: number): number {
  return Math.floor((y - plot.head + scrollTop) / ROW);
}
