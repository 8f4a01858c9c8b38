import type { Key, Project, Side } from '../../project';
import { changeCurves, framesByChannel, withKeys, type KeyRef } from '../curves';
import { retime, type SlopesKeep, type TimeEdit } from './retime';
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
  if (!keepsOrder({ knots })) return { project, channels: 0, keys: 0, refused: channels };
  const inside = (frame: number) => frame >= from.start && frame <= from.end;
  return retime(
    project,
    channels,
    (frame) => (rest === 'follows' || inside(frame) ? mapFrame({ knots }, frame) : frame),
    slopes,
  );
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
  if (knots.length < 2) return { project, channels: 0, keys: 0, refused: [] };
  if (!keepsOrder({ knots })) return { project, channels: 0, keys: 0, refused: channels };
  return retime(project, channels, (frame) => mapFrame({ knots }, frame), slopes);
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
): Project {
  if (!(factor > 0) || factor === 1) return project;
  const named = framesByChannel(refs);
  return changeCurves(project, [...named.keys()], (curve) => {
    const chosen = named.get(curve.channel)!;
    const moved = new Map<number, number>();
    const side = (key: Key, name: 'in' | 'out', beside: Key | undefined): Side => {
      const goes = beside !== undefined && chosen.has(beside.frame);
      const set = slopes === 'shape' && goes && key[name].mode === 'set' && key[name].slope !== 0;
      return set ? { ...key[name], slope: key[name].slope / factor } : key[name];
    };
    const [stay, scaled]: [Key[], Key[]] = [[], []];
    curve.keys.forEach((key, i) => {
      if (!chosen.has(key.frame)) {
        stay.push(key);
        return;
      }
      const frame = shiftFrame(about, (key.frame - about) * factor);
      moved.set(key.frame, frame);
      const into = side(key, 'in', curve.keys[i - 1]);
      const out = side(key, 'out', curve.keys[i + 1]);
      const apart = (into === key.in) !== (out === key.out);
      scaled.push({ ...key, frame, in: into, out, joined: key.joined && !apart });
    });
    return withKeys(curve, [...stay, ...scaled], moved);
  });
}
