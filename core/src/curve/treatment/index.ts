import {
  defined,
  flag,
  keyed,
  kinds,
  orNumber,
  otherwise,
  OVER_FRAMES,
  type Field,
  type Treatment,
  type Weight,
} from '../../project';
import { addJets, constantJet, multiplyJets, subtractJets } from '../../law';
import { compileKeys, keyedJet, keyedValue } from '../keyed';
import { LEG } from '../legs';
import type { CurveContext } from '../slopes';
import { clamp } from './clamp';
import { delay } from './delay';
import { every } from './every';
import { gain } from './gain';
import { noise } from './noise';
import type { FrameFunction, TreatmentKind } from './treatment';

/** The treatments by kind. One line a treatment. */
const TREATMENTS: { readonly [K in Treatment['kind']]: TreatmentKind<Extract<Treatment, { kind: K }>> } = {
  noise,
  clamp,
  gain,
  delay,
  every,
};

function kindOf(treatment: Treatment): TreatmentKind<Treatment> {
  return TREATMENTS[treatment.kind] as TreatmentKind<Treatment>;
}

/** A factor: a number, or a curve over frames. */
export const WEIGHT: Field = defined('weight', orNumber(keyed(OVER_FRAMES, LEG)));

/** A treatment as a file has it. */
export const TREATMENT: Field = defined(
  'treatment',
  kinds(
    'kind',
    Object.fromEntries(
      Object.entries(TREATMENTS).map(([kind, { fields }]) => [
        kind,
        { ...fields, weight: otherwise(WEIGHT, 1), muted: otherwise(flag(), false) },
      ]),
    ),
  ),
);

/** What of a treatment's numbers can't stand together, and at which field; null where nothing. */
export function treatmentRefusal(
  treatment: Treatment,
): { readonly at: string; readonly message: string } | null {
  return kindOf(treatment).refuse?.(treatment) ?? null;
}

/** Lays one treatment over a function: `x + w·(y − x)`, w its weight. */
export function applyTreatment(
  treatment: Treatment,
  below: FrameFunction,
  context: CurveContext,
): FrameFunction {
  const treated = kindOf(treatment).make(treatment, below);
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
