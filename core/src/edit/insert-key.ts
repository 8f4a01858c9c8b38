import type { Curve, Key, Project, Side } from '../project';
import { compileKeys, keyedValue, resolveSide, type CurveContext } from '../curve';
import { piecesThrough, reachesOf, type Bezier } from './bezier-pieces';
import { curveContext } from './curve-context';
import { CONVERT_TOLERANCE, convertLeg } from './shape/convert-legs';
import { changeCurves, curveOf, keyAtFrame, keyIndexAt, newKey, withKeys, type KeyRef } from './curves';

/**
 * A key on the curve at each place, without changing its shape: curves, holds and free falls are split exactly, an ease
 * or a law becomes curve keys within CONVERT_TOLERANCE of its rise first. Sides that looked at a neighbour are set to the
 * slopes they had. Where a handle would become longer than its new leg can bear, more keys keep the shape.
 */
export function insertKeys(project: Project, refs: readonly KeyRef[]): Project {
  const context = curveContext(project);
  return refs.reduce(
    (at, { channel, frame }) => changeCurves(at, [channel], (curve) => insertKey(curve, frame, context)),
    project,
  );
}

/** Whether a key at a place turns the leg there, an ease or a law, into curve keys first. */
export function insertConverts(project: Project, { channel, frame }: KeyRef): boolean {
  const curve = curveOf(project, channel);
  if (!curve || keyAtFrame(curve, frame)) return false;
  const i = keyIndexAt(curve, frame);
  const kind = curve.keys[i + 1] && curve.keys[i]?.leg.kind;
  return kind === 'ease' || kind === 'law';
}

/** How many keys an insertion will add, so that it can be said: more than one for an ease or a law, and beside very long handles. */
export function keysAddedByInsert(project: Project, { channel, frame }: KeyRef): number {
  const curve = curveOf(project, channel);
  if (!curve) return 0;
  return insertKey(curve, frame, curveContext(project)).keys.length - curve.keys.length;
}

export function insertKey(curve: Curve, frame: number, context: CurveContext): Curve {
  if (curve.keys.length === 0 || keyAtFrame(curve, frame)) return curve;
  const i = keyIndexAt(curve, frame);
  const a = curve.keys[i];
  const b = curve.keys[i + 1];
  if (!a || !b) return insertOutside(curve, frame, context);
  const frozen = freezeSides(curve, context);
  const inner = splitLeg(frozen, i, frame, context);
  return withKeys(curve, [
    ...thawed(curve, frozen, i).slice(0, i),
    ...inner,
    ...thawed(curve, frozen, i).slice(i + 2),
  ]);
}

function insertOutside(curve: Curve, frame: number, context: CurveContext): Curve {
  const value = keyedValue(compileKeys(curve, context), frame, 0);
  return withKeys(curve, [...curve.keys, newKey(frame, value)]);
}

/** Every side with the slope and reach it has now, so that new neighbours change nothing. */
function freezeSides(curve: Curve, context: CurveContext): Key[] {
  return curve.keys.map((key, i) => ({
    ...key,
    in: freeze(key.in, curve, i, 'in', context),
    out: freeze(key.out, curve, i, 'out', context),
  }));
}

function freeze(side: Side, curve: Curve, index: number, name: 'in' | 'out', context: CurveContext): Side {
  if (side.mode !== 'smooth' && side.mode !== 'bounded') return side;
  const { slope, reach } = resolveSide(curve, index, name, context);
  return slope === 0 ? { ...side, mode: 'flat', slope: 0, reach } : { ...side, mode: 'set', slope, reach };
}

/** Only keys whose slopes would change are frozen: the split leg's own, and the ends where a loop looks round the seam. */
function thawed(curve: Curve, frozen: readonly Key[], leg: number): Key[] {
  const last = curve.keys.length - 1;
  return curve.keys.map((key, i) => (i === leg || i === leg + 1 || i === 0 || i === last ? frozen[i]! : key));
}

/** Keys i and i+1 with what comes between them once a key stands at `frame`. */
function splitLeg(keys: readonly Key[], i: number, frame: number, context: CurveContext): Key[] {
  const a = keys[i]!;
  const b = keys[i + 1]!;
  switch (a.leg.kind) {
    case 'hold':
      return [a, { ...newKey(frame, a.value, a.leg) }, b];
    case 'ballistic': {
      const pair = { keys: [a, b], before: OUT, after: OUT };
      return [a, newKey(frame, keyedValue(compileKeys(pair, context), frame, 0), a.leg), b];
    }
    case 'ease':
    case 'law':
      return [...(convertLeg(a, b, CONVERT_TOLERANCE, context, frame)?.keys ?? [a, b])];
    case 'curve':
      return splitBezier(a, b, frame, context);
  }
}
const OUT = { mode: 'hold', count: null, pin: null } as const;

/** De Casteljau at the parameter where the curve passes the frame: both halves are the same curve. */
function splitBezier(a: Key, b: Key, frame: number, context: CurveContext): Key[] {
  const pair = { keys: [a, b], before: OUT, after: OUT };
  const out = resolveSide(pair, 0, 'out', context);
  const into = resolveSide(pair, 1, 'in', context);
  const dt = b.frame - a.frame;
  const whole: Bezier = {
    times: [a.frame, a.frame + out.reach * dt, b.frame - into.reach * dt, b.frame],
    values: [a.value, a.value + out.slope * out.reach * dt, b.value - into.slope * into.reach * dt, b.value],
  };
  const pieces = piecesThrough(whole, frame);
  const straight = a.out.mode === 'linear' && b.in.mode === 'linear';
  const side = (slope: number, reach: number): Side =>
    straight ? { mode: 'linear', slope: 0, reach } : { mode: 'set', slope, reach };
  /** A linear side that met a curve keeps its slope, as its chord is another now. */
  const kept = (was: Side, its: number, reach: number): Side =>
    was.mode === 'linear' && !straight ? { mode: 'set', slope: its, reach } : { ...was, reach };
  const inner = pieces.slice(1).map((next, i): Key => {
    const [, , t2, t3] = pieces[i]!.times;
    const [, , v2, v3] = pieces[i]!.values;
    const slope = (next.values[1] - v2) / (next.times[1] - t2);
    return {
      ...newKey(t3, v3),
      in: side(slope, reachesOf(pieces[i]!)[1]),
      out: side(slope, reachesOf(next)[0]),
    };
  });
  return [
    { ...a, out: kept(a.out, out.slope, reachesOf(pieces[0]!)[0]) },
    ...inner,
    { ...b, in: kept(b.in, into.slope, reachesOf(pieces.at(-1)!)[1]) },
  ];
}
