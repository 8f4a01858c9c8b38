import type { Curve, Key } from '../project';
import { withKeys } from './curves';
import type { KeysWent } from './mapping';

/**
 * A curve with some of its keys replaced by others that stand elsewhere, and where each of its keys went. A key takes the place of one that it lands
 * on. With `copy` the keys themselves stay too, and what pointed at them points at their copies.
 */
export function placeKeys(
  curve: Curve,
  moved: ReadonlyMap<Key, Key>,
  copy = false,
): { readonly curve: Curve; readonly went: KeysWent } {
  const stay = copy ? curve.keys : curve.keys.filter((key) => !moved.has(key));
  const pinsGo = copy ? [] : [...moved].map(([key, now]) => [key.frame, now.frame] as const);
  const placed = withKeys(curve, [...stay, ...moved.values()], new Map(pinsGo));
  const there = new Set(placed.keys);
  const went = new Map<number, number | null>();
  for (const key of curve.keys) {
    const now = moved.get(key) ?? key;
    if (!there.has(now)) went.set(key.frame, null);
    else if (now.frame !== key.frame) went.set(key.frame, now.frame);
  }
  return { curve: placed, went };
}
