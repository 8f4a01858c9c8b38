import type { Treatment, Weight } from '../../project';
import { addJets, constantJet, multiplyJets, subtractJets } from '../../law';
import { compileKeys, keyedJet, keyedValue } from '../keyed';
import type { CurveContext } from '../slopes';
import { clamp } from './clamp';
import { delay } from './delay';
import { every } from './every';
import { gain } from './gain';
import { noise } from './noise';
import type { FrameFunction, TreatmentMaker } from './treatment';

/** The treatments by kind. One line a treatment. */
const TREATMENTS: { readonly [K in Treatment['kind']]: TreatmentMaker<Extract<Treatment, { kind: K }>> } = {
  noise,
  clamp,
  gain,
  delay,
  every,
};

/** Lays one treatment over a function: `x + w·(y − x)`, w its weight. */
export function applyTreatment(
  treatment: Treatment,
  below: FrameFunction,
  context: CurveContext,
): FrameFunction {
  const make = TREATMENTS[treatment.kind] as TreatmentMaker<Treatment>;
  const treated = make(treatment, below);
  if (treatment.weight === 1) return treated;
  const weight = weightFunction(treatment.weight, context);
  return {
    value: (frame) => {
      const x = below.value(frame);
      return x + weight.value(frame) * (treated.value(frame) - x);
    },
    jet: (frame) => {
      const x = below.jet(frame);
      return addJets(x, multiplyJets(weight.jet(frame), subtractJets(treated.jet(frame), x)));
    },
  };
}

/** A weight as a function of time: the number that it is, or its curve. */
export function weightFunction(weight: Weight, context: CurveContext): FrameFunction {
  if (typeof weight === 'number') return { value: () => weight, jet: () => constantJet(weight) };
  const keys = compileKeys(weight, context);
  return { value: (frame) => keyedValue(keys, frame, 1), jet: (frame) => keyedJet(keys, frame, 1) };
}

export type { FrameFunction } from './treatment';
