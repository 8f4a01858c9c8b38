import { maybe, number, orNull, type Treatment } from '../../project';
import { constantJet, signAfter, subtractJets } from '../../law';
import type { TreatmentKind } from './treatment';

/** Keeps the value within [min, max]. On the bound itself the rates are the function's own only where it goes inward. */
export const clamp: TreatmentKind<Extract<Treatment, { kind: 'clamp' }>> = {
  fields: { min: maybe(orNull(number())), max: maybe(orNull(number())) },
  refuse: ({ min, max }) =>
    typeof min === 'number' && typeof max === 'number' && min > max
      ? { at: 'min', message: `min ${min} is more than max ${max}; min must not be more than max` }
      : null,
  make: (treatment, below) => {
    const low = treatment.min ?? -Infinity;
    const high = treatment.max ?? Infinity;
    return {
      value: (frame) => Math.min(high, Math.max(low, below.value(frame))),
      jet: (frame) => {
        const jet = below.jet(frame);
        if (signAfter(subtractJets(jet, constantJet(low))) < 0) return constantJet(low);
        if (signAfter(subtractJets(jet, constantJet(high))) > 0) return constantJet(high);
        return jet;
      },
    };
  },
};
