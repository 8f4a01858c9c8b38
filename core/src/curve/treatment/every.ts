import type { Treatment } from '../../project';
import { constantJet } from '../../law';
import type { TreatmentMaker } from './treatment';

/** x(offset + n·floor((f − offset)/n)): seen every n frames, still between. */
export const every: TreatmentMaker<Extract<Treatment, { kind: 'every' }>> = (
  { frames, offset = 0 },
  below,
) => {
  const seen = (frame: number) => below.value(offset + frames * Math.floor((frame - offset) / frames));
  return { value: seen, jet: (frame) => constantJet(seen(frame)) };
};
