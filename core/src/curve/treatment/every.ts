import { frames, maybe, type Treatment } from '../../project';
import { constantJet } from '../../law';
import type { TreatmentKind } from './treatment';

/** x(offset + n·floor((f − offset)/n)): seen every n frames, still between. */
export const every: TreatmentKind<Extract<Treatment, { kind: 'every' }>> = {
  fields: { frames: frames({ exclusiveMinimum: 0 }), offset: maybe(frames()) },
  make: ({ frames: step, offset = 0 }, below) => {
    const seen = (frame: number) => below.value(offset + step * Math.floor((frame - offset) / step));
    return { value: seen, jet: (frame) => constantJet(seen(frame)) };
  },
};
