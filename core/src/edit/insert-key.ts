import type { Curve, Key, Project, Side } from '../project';
import { compileKeys, keyedValue, resolveSide, solveBezierTime, type CurveContext } from '../curve';
import { curveContext } from './curve-context';
import { CONVERT_TOLERANCE, convertLeg } from './shape/convert-legs';
import { changeCurves, curveOf, keyAtFrame, keyIndexAt, newKey, withKeys, type KeyRef } from './curves';

/**
 * A key on the curve at each place, without changing its shape: curves, holds and free falls are split exactly, an ease
 * or a law becomes curve keys within CONVERT_TOLERANCE of its rise first. Sides that looked at a neighbour are set to the
 * slopes they had.
 */
export function insertKeys(project: Project, refs: readonly KeyRef[]): Project {
  const context = curveContext(project);
  return refs.reduce(
    (at, { channel, frame }) => changeCurves(at, [channel], (curve) => insertKey(curve, frame, context)),
    project,
  );
}

/** How many keys an insertion will add, so that it can be said beforehand: more than one for an ease or a law. */
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
  const times = [a.frame, a.frame + out.reach * dt, b.frame - into.reach * dt, b.frame];
  const values = [
    a.value,
    a.value + out.slope * out.reach * dt,
    b.value - into.slope * into.reach * dt,
    b.value,
  ];
  const u = solveBezierTime(out.reach, 1 - into.reach, (frame - a.frame) / dt);
  const t = casteljau(times, u);
  const v = casteljau(values, u);
  const straight = a.out.mode === 'linear' && b.in.mode === 'linear';
  const slope = (v.after - v.before) / (t.after - t.before);
  const side = (reach: number): Side =>
    straight ? { mode: 'linear', slope: 0, reach } : { mode: 'set', slope, reach };
  /** A linear side that met a curve keeps its slope, as its chord is another now. */
  const kept = (was: Side, its: number, reach: number): Side =>
    was.mode === 'linear' && !straight ? { mode: 'set', slope: its, reach } : { ...was, reach };
  return [
    { ...a, out: kept(a.out, out.slope, (t.first - a.frame) / (frame - a.frame)) },
    {
      ...newKey(frame, v.point),
      in: side((frame - t.before) / (frame - a.frame)),
      out: side((t.after - frame) / (b.frame - frame)),
    },
    { ...b, in: kept(b.in, into.slope, (b.frame - t.last) / (b.frame - frame)) },
  ];
}

/** The control points of both halves of a Bézier parted at u: first and last handle, and those beside the new point. */
function casteljau([p0 = 0, p1 = 0, p2 = 0, p3 = 0]: readonly number[], u: number) {
  const mix = (x: number, y: number) => x + (y - x) * u;
  const [first, middle, last] = [mix(p0, p1), mix(p1, p2), mix(p2, p3)];
  const [before, after] = [mix(first, middle), mix(middle, last)];
  return { first, before, point: mix(before, after), after, last };
}
