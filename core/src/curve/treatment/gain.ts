import type { Treatment } from '../../project';
import type { TreatmentMaker } from './treatment';

/** about + factor·(x − about). */
export const gain: TreatmentMaker<Extract<Treatment, { kind: 'gain' }>> = ({ factor, about = 0 }, below) => ({
  value: (frame) => about + factor * (below.value(frame) - about),
  jet: (frame) => {
    const [v, d1, d2, d3] = below.jet(frame);
    return [about + factor * (v - about), factor * d1, factor * d2, factor * d3];
  },
});
