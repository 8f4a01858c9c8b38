import {
  curveOf,
  handlePlace,
  mapKeyPlaces,
  placeHandle,
  secondsPerFrame,
  setReach,
  type Edited,
  type HandleRef,
  type KeyRef,
  type Project,
} from '@kaizen/core';
import { decimalsOf, shownFrame, shownNumber, signedNumber } from '../../../ui/amount';

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
): Edited {
  const rises = new Set(channels);
  return mapKeyPlaces(
    project,
    refs,
    ({ frame, value }, channel) => ({
      frame: frame + travel.frames,
      value: rises.has(channel) ? value + travel.value : value,
    }),
    travel.copy,
  );
}

/**
 * The project with some handles' ends moved by the same difference. With a `leading` handle the lengths go together: each key's both handles get longer or
 * shorter by as many frames as the leading one does.
 */
export function draggedHandles(
  project: Project,
  handles: readonly HandleRef[],
  by: { readonly frames: number; readonly value: number },
  leading: HandleRef | null = null,
): Project {
  const longer = leading ? by.frames * (leading.side === 'out' ? 1 : -1) : 0;
  const all = leading ? bothSides(handles) : handles;
  const dragged = new Set(handles.map(nameOf));
  return all.reduce((at, handle) => {
    const place = handleAt(project, handle);
    if (!place) return at;
    const frames = leading ? longer * (handle.side === 'out' ? 1 : -1) : by.frames;
    if (dragged.has(nameOf(handle)))
      return placeHandle(at, handle, place.frame + frames, place.value + by.value);
    return lengthened(at, handle, frames);
  }, project);
}

function nameOf({ channel, frame, side }: HandleRef): string {
  return `${channel}@${frame} ${side}`;
}

/** The handles, and those on the other sides of their keys after them. */
function bothSides(handles: readonly HandleRef[]): readonly HandleRef[] {
  const known = new Set(handles.map(nameOf));
  const others = handles.map((handle): HandleRef => ({
    ...handle,
    side: handle.side === 'in' ? 'out' : 'in',
  }));
  return [...handles, ...others.filter((other) => !known.has(nameOf(other)))];
}

/** A handle made longer by some frames along its own slope. */
function lengthened(project: Project, handle: HandleRef, frames: number): Project {
  const curve = curveOf(project, handle.channel);
  const index = curve?.keys.findIndex(({ frame }) => frame === handle.frame) ?? -1;
  const key = curve?.keys[index];
  const neighbour = curve?.keys[handle.side === 'out' ? index + 1 : index - 1];
  if (!key || !neighbour) return project;
  return setReach(
    project,
    [handle],
    handle.side,
    key[handle.side].reach + frames / (neighbour.frame - key.frame),
  );
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
