import { maybe, number, type Treatment } from '../../project';
import type { TreatmentKind } from './treatment';

/** about + factor·(x − about). */
export const gain: TreatmentKind<Extract<Treatment, { kind: 'gain' }>> = {
  fields: { factor: number(), about: maybe(number()) },
  make: ({ factor, about = 0 }, below) => ({
    value: (frame) => about + factor * (below.value(frame) - about),
    jet: (frame) => {
      const [v, d1, d2, d3] = below.jet(frame);
      return [about + factor * (v - about), factor * d1, factor * d2, factor * d3];
    },
  }),
};
