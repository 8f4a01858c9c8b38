import { curveOf, handlePlace, repeatedKeys, type KeyRef } from '@kaizen/core';
import type { HitScene, Target } from './target';
import { valueOfChannel } from './chart-lines';
import { frameAt, xOf, yOf, type Strip } from './plot';
import { cruises, speedMarks } from './rates/speed-marks';
import { boxGrips } from './scale-box';

const KEY_REACH = 8;
const CURVE_REACH = 6;

/** What lies under a place of a strip: grips of the box, handles, keys, repeated keys, curves; in strips of rates what reshapes them. */
export function hitPlot(scene: HitScene, strip: Strip, x: number, y: number): Target {
  if (strip.order > 0) return hitRates(scene, strip, x, y);
  return (
    hitBox(scene, strip, x, y) ??
    hitHandle(scene, strip, x, y) ??
    hitKey(scene, strip, x, y) ??
    hitRepeated(scene, strip, x, y) ??
    hitCurve(scene, strip, x, y) ?? { kind: 'ground', strip }
  );
}

function hitHandle({ plot, project, bench }: HitScene, strip: Strip, x: number, y: number): Target | null {
  const open = new Set([...bench.keys, ...bench.handles].map(({ channel, frame }) => `${channel}@${frame}`));
  for (const channel of strip.channels) {
    const curve = curveOf(project, channel);
    if (!curve) continue;
    for (let i = 0; i < curve.keys.length; i++) {
      const { frame } = curve.keys[i]!;
      if (!open.has(`${channel}@${frame}`)) continue;
      for (const side of ['in', 'out'] as const) {
        const end = handlePlace(project, curve, i, side);
        if (end && near(xOf(plot, end.frame) - x, yOf(strip, end.value) - y))
          return { kind: 'handle', handle: { channel, frame, side }, strip };
      }
    }
  }
  return null;
}

function near(dx: number, dy: number): boolean {
  return Math.hypot(dx, dy) <= KEY_REACH;
}

/** A grip of the box around the chosen keys. */
function hitBox({ plot, project, bench }: HitScene, strip: Strip, x: number, y: number): Target | null {
  const grip = bench.shaping.box
    ? boxGrips(plot, strip, project, bench.keys).find((each) => near(each.x - x, each.y - y))
    : undefined;
  return grip ? { kind: 'box', grip, strip } : null;
}

/** In a strip of rates: what can be reshaped in the speed; else the ground. */
function hitRates({ plot, project }: HitScene, strip: Strip, x: number, y: number): Target {
  if (strip.order !== 1) return { kind: 'ground', strip };
  const curves = strip.channels.flatMap((channel) => curveOf(project, channel) ?? []);
  const open = curves.filter(({ locked }) => !locked);
  const mark = open
    .flatMap((curve) => speedMarks(project, curve, () => false))
    .find(({ frame, speed }) => near(xOf(plot, frame) - x, yOf(strip, speed) - y));
  if (mark) return { kind: 'speed', mark, strip };
  const frame = frameAt(plot, x);
  const cruise = open
    .flatMap((curve) => cruises(project, curve))
    .find(
      ({ from, to, speed }) => frame > from && frame < to && Math.abs(yOf(strip, speed) - y) <= CURVE_REACH,
    );
  return cruise ? { kind: 'cruise', cruise, strip } : { kind: 'ground', strip };
}

function hitRepeated({ plot, project }: HitScene, strip: Strip, x: number, y: number): Target | null {
  for (const channel of strip.channels) {
    const curve = curveOf(project, channel);
    const ghost =
      curve &&
      repeatedKeys(curve, plot.axis.first, plot.axis.last).find(({ frame, value }) =>
        near(xOf(plot, frame) - x, yOf(strip, value) - y),
      );
    if (ghost) return { kind: 'repeated', ref: { channel, frame: ghost.of } };
  }
  return null;
}

/** Nearer to each other than this, in pixels, keys and curves lie on each other. */
const ON_EACH_OTHER = 0.8;

function hitKey({ plot, project, bench }: HitScene, strip: Strip, x: number, y: number): Target | null {
  const found = strip.channels
    .flatMap((channel) =>
      (curveOf(project, channel)?.keys ?? []).map((key) => ({
        ref: { channel, frame: key.frame },
        distance: Math.hypot(xOf(plot, key.frame) - x, yOf(strip, key.value) - y),
      })),
    )
    .filter(({ distance }) => distance <= KEY_REACH);
  const least = Math.min(...found.map(({ distance }) => distance));
  const there = found.filter(({ distance }) => distance <= least + ON_EACH_OTHER).map(({ ref }) => ref);
  const isChosen = (ref: KeyRef) =>
    bench.keys.some((key) => key.channel === ref.channel && key.frame === ref.frame);
  const best = there.find(isChosen) ?? there[0];
  return best ? { kind: 'keys', refs: [best], strip, under: there } : null;
}

function hitCurve(
  { plot, project, program, bench }: HitScene,
  strip: Strip,
  x: number,
  y: number,
): Target | null {
  const found = strip.channels.flatMap((channel) => {
    const values = [-3, 0, 3].map((shift) =>
      yOf(strip, valueOfChannel(program, project, channel, frameAt(plot, x + shift))),
    );
    const distance =
      y >= Math.min(...values) && y <= Math.max(...values)
        ? 0
        : Math.min(...values.map((value) => Math.abs(value - y)));
    return distance <= CURVE_REACH ? [{ channel, distance }] : [];
  });
  const least = Math.min(...found.map(({ distance }) => distance));
  const all = found.filter(({ distance }) => distance <= least + ON_EACH_OTHER).map(({ channel }) => channel);
  const best = all.find((channel) => bench.channels.includes(channel)) ?? all[0];
  return best === undefined ? null : { kind: 'curve', channel: best, strip, all };
}
