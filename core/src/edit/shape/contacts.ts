import type { Project, Side } from '../../project';
import { MOST_REACH, LEAST_REACH } from '../../curve';
import { changeKeys, curvesByChannel, type KeyRef } from '../curves';

/** Keys where a channel turns from falling to rising (`contacts`) or from rising to falling (`tops`), ends included. */
export function turningKeys(
  project: Project,
  channels: readonly string[],
  which: 'contacts' | 'tops',
): readonly KeyRef[] {
  const curves = curvesByChannel(project);
  const sign = which === 'contacts' ? 1 : -1;
  return channels.flatMap((channel) => {
    const curve = curves.get(channel);
    if (!curve || curve.locked) return [];
    return curve.keys
      .filter(({ value }, i, keys) => {
        const [before, after] = [keys[i - 1], keys[i + 1]];
        const beside = [before, after].filter((key) => key !== undefined);
        return beside.length > 0 && beside.every((key) => (key.value - value) * sign > 0);
      })
      .map(({ frame }) => ({ channel, frame }));
  });
}

/** Lets keys come to a point: both sides straight along their legs, split. */
export function toPoint(project: Project, refs: readonly KeyRef[]): Project {
  return changeKeys(project, refs, (key) => ({
    ...key,
    in: { ...key.in, mode: 'linear' },
    out: { ...key.out, mode: 'linear' },
    joined: false,
  }));
}

/** Makes both handles of keys longer or shorter by a factor. */
export function lengthenHandles(project: Project, refs: readonly KeyRef[], factor: number): Project {
  const longer = (side: Side): Side => ({
    ...side,
    reach: Math.min(MOST_REACH, Math.max(LEAST_REACH, side.reach * factor)),
  });
  return changeKeys(project, refs, (key) => ({ ...key, in: longer(key.in), out: longer(key.out) }));
}
