import { activeClip, curvesOf, keyedSpan, type Curve, type Limit, type Project } from '@kaizen/core';
import type { BenchState, Density } from '../../state/bench';
import { limitOf } from '../stage/channel-label';
import { chosenFrames } from '../plot/chosen';
import { MOST_BY_ONE } from '../plot/crowd/crowds';
import { valueStrips, type Plot, type Strip } from '../plot/plot';
import { limitText } from '../plot/rates/draw-rates';
import type { CurvesScene } from './curves-scene';
import type { NamedStrip } from './draw-strip';

export function chosenAmong({ keys }: BenchState, curves: readonly Curve[]): ReadonlySet<number> {
  const all = new Set<number>();
  if (keys.length > 0)
    for (const { channel } of curves) for (const frame of chosenFrames(keys, channel)) all.add(frame);
  return all;
}

interface Shown {
  readonly strips: readonly Strip[];
  readonly curves: readonly Curve[];
}
const shownOf = new WeakMap<object, Shown>();

/** The curves of all that is drawn; found once for a list of curves and strips, as panning changes neither. */
export function curvesShown({ plot, project }: CurvesScene): readonly Curve[] {
  const list = activeClip(project)?.curves;
  const known = list && shownOf.get(list);
  if (known?.strips === plot.strips) return known.curves;
  const curves = curvesOf(
    project,
    valueStrips(plot).flatMap((strip) => strip.channels),
  );
  if (list) shownOf.set(list, { strips: plot.strips, curves });
  return curves;
}

type KeySpan = { readonly first: number; readonly last: number } | null;
const spans = new WeakMap<readonly string[], { readonly of: object | undefined; readonly span: KeySpan }>();

/** From the first to the last key of all that a strip draws. */
export function keysSpan(project: Project, strip: Strip): KeySpan {
  const of = activeClip(project)?.curves;
  const known = spans.get(strip.channels);
  if (known && known.of === of) return known.span;
  const span = spanOfKeys(project, strip);
  spans.set(strip.channels, { of, span });
  return span;
}

function spanOfKeys(project: Project, strip: Strip): KeySpan {
  let [first, last] = [Infinity, -Infinity];
  for (const curve of curvesOf(project, strip.channels)) {
    const span = keyedSpan(curve);
    if (span) [first, last] = [Math.min(first, span.first), Math.max(last, span.last)];
  }
  return first <= last ? { first, last } : null;
}

/** The limits that a strip shows: those of its one channel that has some. */
export function limitsOf(project: Project, strip: Strip): Limit | undefined {
  if (strip.channels.length > MOST_BY_ONE) return undefined;
  const all = strip.channels.flatMap((channel) => limitOf(project, channel) ?? []);
  return all.length === 1 ? all[0] : undefined;
}

/** The strips of a plot that show their names, with the limits beside these: none in Ticks. */
export function namedStrips(project: Project | null, plot: Plot, density: Density): readonly NamedStrip[] {
  if (!project || density === 'ticks') return [];
  return plot.strips.map((strip) => ({ strip, limit: () => limitText(strip, limitsOf(project, strip)) }));
}
