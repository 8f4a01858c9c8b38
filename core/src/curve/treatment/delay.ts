import type { Treatment } from '../../project';
import type { TreatmentMaker } from './treatment';

/** x(f − frames). */
export const delay: TreatmentMaker<Extract<Treatment, { kind: 'delay' }>> = ({ frames }, below) => ({
  value: (frame) => below.value(frame - frames),
  jet: (frame) => below.jet(frame - frames),
});
