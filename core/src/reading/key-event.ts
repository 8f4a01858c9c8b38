import type { KeyedCurve } from '../project';

/** What a motion does at one of its keys: it begins, ends, turns round, or goes on. */
export type KeyEvent = 'starts' | 'stops' | 'turns' | 'passes';

/** Values that differ by less are one. */
const STILL = 1e-9;

/** What a curve does at a key, read off the values of the keys before and after it. */
export function keyEvent({ keys }: KeyedCurve, index: number): KeyEvent {
  const [before, key, after] = [keys[index - 1], keys[index], keys[index + 1]];
  if (!key) return 'passes';
  const came = before && before.leg.kind !== 'hold' ? key.value - before.value : 0;
  const goes = after && key.leg.kind !== 'hold' ? after.value - key.value : 0;
  const [comes, leaves] = [Math.abs(came) > STILL, Math.abs(goes) > STILL];
  if (comes && leaves) return came * goes < 0 ? 'turns' : 'passes';
  return comes ? 'stops' : leaves ? 'starts' : 'passes';
}
