import type { Keeps, Ridden } from '@kaizen/core';
import { shownNumber } from '../../ui/amount';

/** What riding came to, in words. */
export function riddenWords({ because, keys, jump }: Ridden, keeps: Keeps): string {
  const jumps = `it jumps by ${shownNumber(jump, jump < 1 ? 3 : 2)} m`;
  if (because === 'driven') return `its place can’t stay, a driver gives it; ${jumps}`;
  if (because === 'shear') return `its place can’t stay, it would have to lean; ${jumps}`;
  if (keeps === 'numbers') return `its numbers stay, ${jump < 5e-7 ? 'and so does its place' : jumps}`;
  const stays = keeps === 'motion' ? 'its motion in the world stays' : 'its place in the world stays';
  return keys === 'every-frame' ? `${stays}, with a key on every frame` : stays;
}
