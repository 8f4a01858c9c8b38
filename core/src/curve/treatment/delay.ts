import { frames, type Treatment } from '../../project';
import type { TreatmentKind } from './treatment';

/** x(f − frames). */
export const delay: TreatmentKind<Extract<Treatment, { kind: 'delay' }>> = {
  fields: { frames: frames() },
  make: (treatment, below) => ({
    value: (frame) => below.value(frame - treatment.frames),
    jet: (frame) => below.jet(frame - treatment.frames),
  }),
};
