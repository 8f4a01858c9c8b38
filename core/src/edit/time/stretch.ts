import type { Key, Project, Side } from '../../project';
import { changeCurves, framesByChannel, type KeyRef } from '../curves';
import { asEdited, movedKeys, type Edited, type KeysWent } from '../mapping';
import { placeKeys } from '../place-keys';
import { retime, untouched, type SlopesKeep, type TimeEdit } from './retime';
import { keepsOrder, mapFrame, shiftFrame, type TimeKnot } from './time-map';

export interface Span {
  readonly start: number;
  readonly end: number;
}

/**
 * Stretches a span of time on some channels to another span. `rest`: what lies after goes along by as much as the end
 * moves, and what lies before by as much as the start, or both stay.
 */
export function stretch(
  project: Project,
  channels: readonly string[],
  from: Span,
  to: Span,
  rest: 'follows' | 'stays',
  slopes: SlopesKeep,
): TimeEdit {
  const knots = [
    { from: from.start, to: to.start },
    { from: from.end, to: to.end },
  ];
  if (!keepsOrder({ knots })) return untouched(project, channels);
  const inside = (frame: number) => frame >= from.start && frame <= from.end;
  const follows = rest === 'follows';
  const map = (frame: number) => (follows || inside(frame) ? mapFrame({ knots }, frame) : frame);
  return retime(project, channels, map, slopes, follows ? map : undefined);
}

/** The span that a span becomes by a factor about its start, or about a frame. */
export function scaledSpan(span: Span, factor: number, about: number = span.start): Span {
  const scale = (frame: number) => shiftFrame(about, (frame - about) * factor);
  return { start: scale(span.start), end: scale(span.end) };
}

/**
 * Stakes: fixed points of time, at least two, each with where it goes. Time is stretched between neighbours; what lies
 * before the first and after the last goes along by whole.
 */
export function moveStakes(
  project: Project,
  channels: readonly string[],
  stakes: readonly TimeKnot[],
  slopes: SlopesKeep,
): TimeEdit {
  const knots = [...stakes].sort((a, b) => a.from - b.from);
  if (knots.length < 2) return untouched(project);
  if (!keepsOrder({ knots })) return untouched(project, channels);
  const map = (frame: number) => mapFrame({ knots }, frame);
  return retime(project, channels, map, slopes, map);
}

/**
 * Scales chosen keys in time about a frame, each by itself: keys between them that are not chosen stay. Set slopes go with the legs
 * between chosen keys, or stay per second. A key takes the place of one that it lands on.
 */
export function scaleKeys(
  project: Project,
  refs: readonly KeyRef[],
  about: number,
  factor: number,
  slopes: SlopesKeep,
): Edited {
  if (!(factor > 0) || factor === 1) return asEdited(project);
  const named = framesByChannel(refs);
  const went = new Map<string, KeysWent>();
  const next = changeCurves(project, [...named.keys()], (curve) => {
    const chosen = named.get(curve.channel)!;
    const side = (key: Key, name: 'in' | 'out', beside: Key | undefined): Side => {
      const goes = beside !== undefined && chosen.has(beside.frame);
      const set = slopes === 'shape' && goes && key[name].mode === 'set' && key[name].slope !== 0;
      return set ? { ...key[name], slope: key[name].slope / factor } : key[name];
    };
    const moved = new Map<Key, Key>();
    curve.keys.forEach((key, i) => {
      if (!chosen.has(key.frame)) return;
      const frame = shiftFrame(about, (key.frame - about) * factor);
      const into = side(key, 'in', curve.keys[i - 1]);
      const out = side(key, 'out', curve.keys[i + 1]);
      const apart = (into === key.in) !== (out === key.out);
      moved.set(key, { ...key, frame, in: into, out, joined: key.joined && !apart });
    });
    const placed = placeKeys(curve, moved);
    went.set(curve.channel, placed.went);
    return placed.curve;
  });
  return { project: next, mapping: movedKeys(went) };
}
