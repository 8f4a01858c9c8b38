import type { Curve } from '../project';
import { constantJet, type Jet } from '../law';
import { compileKeys, keyedJet, keyedValue, type CompiledKeys } from './keyed';
import type { CurveContext } from './slopes';
import { applyTreatment, type FrameFunction } from './treatment';

/** A curve ready to be read at any frame. `treated` is null where no treatment lies over the keys. */
export interface CompiledCurve {
  readonly keys: CompiledKeys;
  readonly rest: number;
  readonly muted: boolean;
  readonly treated: FrameFunction | null;
}

interface Cached extends CurveContext {
  readonly rest: number;
  readonly compiled: CompiledCurve;
}
const cache = new WeakMap<Curve, Cached>();

/** Compiles a curve, or gives what was compiled for it before in the same context. */
export function compileCurve(curve: Curve, rest: number, context: CurveContext): CompiledCurve {
  const known = cache.get(curve);
  if (
    known?.rest === rest &&
    known.secondsPerFrame === context.secondsPerFrame &&
    known.gravity === context.gravity
  ) {
    return known.compiled;
  }
  const compiled = build(curve, rest, context);
  cache.set(curve, { rest, secondsPerFrame: context.secondsPerFrame, gravity: context.gravity, compiled });
  return compiled;
}

function build(curve: Curve, rest: number, context: CurveContext): CompiledCurve {
  const keys = compileKeys(curve, context);
  const laid = curve.treatments.filter((treatment) => !treatment.muted);
  let treated: FrameFunction | null = null;
  if (laid.length > 0) {
    treated = {
      value: (frame) => keyedValue(keys, frame, rest),
      jet: (frame) => keyedJet(keys, frame, rest),
    };
    for (const treatment of laid) treated = applyTreatment(treatment, treated, context);
  }
  return { keys, rest, muted: curve.muted, treated };
}

/** The curve's value at a frame (in frames, may lie between whole ones). */
export function curveValue(curve: CompiledCurve, frame: number): number {
  if (curve.muted) return curve.rest;
  return curve.treated ? curve.treated.value(frame) : keyedValue(curve.keys, frame, curve.rest);
}

/** Before a frame by this share of it: where rates just before it are read through treatments. */
const JUST_BEFORE = 1e-9;

/** Value and the first three derivatives per frame, just after the frame (just before it, when `left`). */
export function curveJet(curve: CompiledCurve, frame: number, left = false): Jet {
  if (curve.muted) return constantJet(curve.rest);
  if (!curve.treated) return keyedJet(curve.keys, frame, curve.rest, left);
  const [, d1, d2, d3] = curve.treated.jet(left ? frame - JUST_BEFORE * Math.max(1, Math.abs(frame)) : frame);
  return [curve.treated.value(frame), d1, d2, d3];
}
