import {
  curveOf,
  handlePlace,
  moveKeys,
  placeHandle,
  secondsPerFrame,
  type HandleRef,
  type KeyRef,
  type Project,
} from '@kaizen/core';
import { decimalsOf, shownFrame, shownNumber, signedNumber } from '../../ui/amount';

/** How far a drag went, in frames and in the value of the strip it began in. */
export interface Travel {
  readonly frames: number;
  readonly value: number;
  readonly copy: boolean;
}

/** The project with some keys moved. The value moves only on the channels of the strip where the drag began. */
export function draggedKeys(
  project: Project,
  refs: readonly KeyRef[],
  channels: readonly string[],
  travel: Travel,
): Project {
  const inStrip = refs.filter((ref) => channels.includes(ref.channel));
  const others = refs.filter((ref) => !channels.includes(ref.channel));
  const moved = moveKeys(project, inStrip, travel);
  return moveKeys(moved, others, { ...travel, value: 0 });
}

/** Where the moved keys are: their refs after the drag. */
export function movedRefs(refs: readonly KeyRef[], frames: number): KeyRef[] {
  return refs.map((ref) => ({ ...ref, frame: ref.frame + frames }));
}

/** The project with some handles' ends moved by the same difference. */
export function draggedHandles(
  project: Project,
  handles: readonly HandleRef[],
  frames: number,
  value: number,
): Project {
  return handles.reduce((at, handle) => {
    const place = handleAt(project, handle);
    return place ? placeHandle(at, handle, place.frame + frames, place.value + value) : at;
  }, project);
}

function handleAt(project: Project, handle: HandleRef) {
  const curve = curveOf(project, handle.channel);
  const index = curve?.keys.findIndex((key) => key.frame === handle.frame) ?? -1;
  return curve && index >= 0 ? handlePlace(project, curve, index, handle.side) : null;
}

/** `f 93 → 96 (+3) · 1.20 → 1.35 m (+0.15)`: what a drag of keys does to the key that was grabbed. */
export function keyChip(project: Project, grabbed: KeyRef, travel: Travel, unit: string | null): string {
  const to = grabbed.frame + travel.frames;
  const time = `f ${shownFrame(grabbed.frame)} → ${shownFrame(to)} (${travel.frames > 0 ? '+' : ''}${shownFrame(travel.frames)})`;
  if (unit === null) return travel.copy ? `${time} · copy` : time;
  const curve = curveOf(project, grabbed.channel);
  const was = curve?.keys.find((key) => key.frame === grabbed.frame)?.value ?? 0;
  const decimals = decimalsOf(unit);
  const value = `${shownNumber(was, decimals)} → ${shownNumber(was + travel.value, decimals)}${unit ? ` ${unit}` : ''} (${signedNumber(travel.value, decimals)})`;
  return `${time} · ${value}${travel.copy ? ' · copy' : ''}`;
}

/** `slope 1.20 → 1.35 m/s · reach 0.33 → 0.45`: what a drag does to the handle that was grabbed. */
export function handleChip(before: Project, after: Project, handle: HandleRef, unit: string): string {
  const read = (project: Project) => {
    const curve = curveOf(project, handle.channel);
    const index = curve?.keys.findIndex((key) => key.frame === handle.frame) ?? -1;
    const key = curve?.keys[index];
    const place = curve && key ? handlePlace(project, curve, index, handle.side) : null;
    const frames = place && key ? place.frame - key.frame : 0;
    const slope =
      place && key && frames !== 0 ? (place.value - key.value) / frames / secondsPerFrame(project.rate) : 0;
    return { slope, reach: key?.[handle.side].reach ?? 0 };
  };
  const [was, now] = [read(before), read(after)];
  return `slope ${shownNumber(was.slope, 2)} → ${shownNumber(now.slope, 2)} ${unit}/s · reach ${shownNumber(was.reach, 2)} → ${shownNumber(now.reach, 2)}`;
}
