import {
  curveContext,
  curveOf,
  keyIndexAt,
  resolveSide,
  secondsPerFrame,
  type Curve,
  type Key,
  type KeyRef,
  type Leg,
  type Project,
  type SideMode,
  isCurveSide,
} from '@kaizen/core';
import { shownFrame, shownNumber } from '../../ui/amount';
import { LEG_LABELS } from '../stage/words';

export type SideName = 'in' | 'out';

/** A chosen key with the curve it is on. */
export interface ChosenKey {
  readonly ref: KeyRef;
  readonly curve: Curve;
  readonly key: Key;
  readonly index: number;
}

/** The chosen keys that are there. */
export function chosenKeys(project: Project, refs: readonly KeyRef[]): readonly ChosenKey[] {
  return refs.flatMap((ref) => {
    const curve = curveOf(project, ref.channel);
    const index = curve ? keyIndexAt(curve, ref.frame) : -1;
    const key = curve?.keys[index];
    return curve && key && key.frame === ref.frame ? [{ ref, curve, key, index }] : [];
  });
}

/** The one value of a list of equal ones; null where they differ or there is none. */
export function common<T>(values: readonly T[]): T | null {
  const [first] = values;
  return first !== undefined && values.every((value) => value === first) ? first : null;
}

/** How fast the curve leaves or arrives at each key by that side, in its unit per second. */
export function sideSpeeds(project: Project, keys: readonly ChosenKey[], side: SideName): readonly number[] {
  const context = curveContext(project);
  return keys.flatMap(({ curve, index }) => {
    const neighbour = curve.keys[side === 'out' ? index + 1 : index - 1];
    return neighbour ? [resolveSide(curve, index, side, context).slope / secondsPerFrame(project.rate)] : [];
  });
}

/** Where the leg after a key ends and how long it takes: `to f 276, 4.000 s`; a wait is told as one. Null after the last key. */
export function legSpan(project: Project, { curve, key, index }: ChosenKey): string | null {
  const next = curve.keys[index + 1];
  if (!next) return null;
  const seconds = (next.frame - key.frame) * secondsPerFrame(project.rate);
  const wait = staysStill(project, curve, index) ? ', a wait' : '';
  return `to f ${shownFrame(next.frame)}, ${shownNumber(seconds, 3)} s${wait}`;
}

/** Whether nothing moves on the leg after a key; of what treatments make of it nothing is said. */
function staysStill(project: Project, curve: Curve, index: number): boolean {
  if (curve.treatments.some(({ muted }) => !muted)) return false;
  const [key, next] = [curve.keys[index]!, curve.keys[index + 1]!];
  if (key.leg.kind === 'hold') return true;
  if (key.value !== next.value || key.leg.kind === 'ballistic') return false;
  const context = curveContext(project);
  const rest = (at: number, side: SideName) => resolveSide(curve, at, side, context).slope === 0;
  return key.leg.kind !== 'curve' || (rest(index, 'out') && rest(index + 1, 'in'));
}

/** By name the legs beside keys none of which meets a curve, as sides change nothing of them: `Hold and Law`; null where one does. */
export function legsWithoutSides(keys: readonly ChosenKey[]): string | null {
  if (keys.some(({ curve, index }) => isCurveSide(curve, index, 'in') || isCurveSide(curve, index, 'out')))
    return null;
  const legs = keys.flatMap(({ curve: { keys: all }, index }) => [
    ...(index > 0 ? [all[index - 1]!.leg.kind] : []),
    ...(index < all.length - 1 ? [all[index]!.leg.kind] : []),
  ]);
  return legs.length > 0 ? [...new Set(legs)].map((kind) => LEG_LABELS[kind]).join(' and ') : null;
}

export function sideModes(keys: readonly ChosenKey[], side: SideName): SideMode | null {
  return common(keys.map(({ key }) => key[side].mode));
}

/** What a kind of leg starts with when it is chosen. */
export function legOfKind(kind: Leg['kind']): Leg {
  switch (kind) {
    case 'ease':
      return { kind, family: 'cubic', slow: 'both' };
    case 'law':
      return { kind, law: 'cycloidal' };
    case 'curve':
    case 'hold':
    case 'ballistic':
      return { kind };
  }
}
