import type { Treatment } from '../../project';
import { constantJet, signAfter, subtractJets } from '../../law';
import type { TreatmentMaker } from './treatment';

/** Keeps the value within [min, max]. On the bound itself the rates are the function's own only where it goes inward. */
export const clamp: TreatmentMaker<Extract<Treatment, { kind: 'clamp' }>> = (treatment, below) => {
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
};
