import { partOf, splitChannel, type Project, type Result } from '../../project';
import { compile } from '../../evaluate';
import { unbakedCurves, withBaked } from '../baked';
import { refused } from '../links/refused';
import { framesOf } from '../links/transform-motion';

/**
 * Makes what drivers give a channel keys of its own, one on every whole frame, and mutes them. What was keyed before is kept as the
 * second take, for `unbakeDrivers`. Refused where they give nothing on some frame.
 */
export function bakeDrivers(project: Project, channel: string): Result<Project> {
  const compiled = compile(project);
  if (!compiled.ok) return compiled;
  const acting = project.drivers.filter(({ target, muted }) => target === channel && !muted);
  if (acting.length === 0) return refused('Nothing drives this channel: there is nothing to bake.');
  const slot = compiled.value.structure.slots.get(channel);
  const { part } = splitChannel(channel);
  if (slot === undefined || !partOf(project, part)) return refused(`there is no channel ${channel}`);
  const { first, last } = framesOf(project, part);
  const values: number[] = [];
  for (let frame = first; frame <= last; frame++) values.push(compiled.value.channelValue(slot, frame));
  const bad = values.findIndex((value) => !Number.isFinite(value));
  if (bad >= 0) return refused(`On frame ${first + bad} its driver gives nothing; it stays driven.`);
  return { ok: true, value: muted(withBaked(project, channel, first, values), channel, true) };
}

/** Lets the drivers of a channel act again, with the keys that were there before they were baked. */
export function unbakeDrivers(project: Project, channel: string): Project {
  return muted(unbakedCurves(project, new Set([channel])), channel, false);
}

/** Whether the drivers of a channel are muted, and can be let act again. */
export function areDriversBaked(project: Project, channel: string): boolean {
  const own = project.drivers.filter(({ target }) => target === channel);
  return own.length > 0 && own.every((driver) => driver.muted);
}

function muted(project: Project, channel: string, on: boolean): Project {
  const drivers = project.drivers.map((each) =>
    each.target === channel && each.muted !== on ? { ...each, muted: on } : each,
  );
  return { ...project, drivers };
}
