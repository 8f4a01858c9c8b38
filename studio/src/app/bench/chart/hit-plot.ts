import { greatestOf, leastOf, curveOf, handlePlace, repeatedKeys, type KeyRef } from '@kaizen/core';
import { chosenFrames } from '../plot/chosen';
import type { HitScene, Target } from './target';
import { MOST_BY_ONE } from '../plot/crowd/crowds';
import { valueOfChannel } from '../plot/chart-lines';
import { frameAt, xOf, yOf, type Strip } from '../plot/plot';
import { cruises, speedMarks } from '../plot/rates/speed-marks';
import { firstKeyFrom } from '../plot/pegs';
import { boxGrips } from './scale-box';

const KEY_REACH = 8;
const CURVE_REACH = 6;
/** No handle shown is longer than this, in pixels. */
const MOST_HANDLE = 4000;

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
  const drawn = new Set(strip.channels);
  const within = [frameAt(plot, x - MOST_HANDLE), frameAt(plot, x + MOST_HANDLE)] as const;
  const open = [...bench.keys, ...bench.handles].filter(
    ({ channel, frame }) => frame >= within[0] && frame <= within[1] && drawn.has(channel),
  );
  for (const { channel, frame } of open) {
    const curve = curveOf(project, channel);
    if (!curve) continue;
    const i = firstKeyFrom(curve.keys, frame);
    if (curve.keys[i]?.frame === frame) {
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
  if (strip.order !== 1 || strip.channels.length > MOST_BY_ONE) return { kind: 'ground', strip };
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
  const [from, to] = [frameAt(plot, x - KEY_REACH), frameAt(plot, x + KEY_REACH)];
  const found: { readonly ref: KeyRef; readonly distance: number }[] = [];
  for (const channel of strip.channels) {
    const keys = curveOf(project, channel)?.keys ?? [];
    for (let i = firstKeyFrom(keys, from); i < keys.length && keys[i]!.frame <= to; i++) {
      const { frame, value } = keys[i]!;
      const distance = Math.hypot(xOf(plot, frame) - x, yOf(strip, value) - y);
      if (distance <= KEY_REACH) found.push({ ref: { channel, frame }, distance });
    }
  }
  if (found.length === 0) return null;
  const least = leastOf(found.map(({ distance }) => distance));
  const there = found.filter(({ distance }) => distance <= least + ON_EACH_OTHER).map(({ ref }) => ref);
  const isChosen = ({ channel, frame }: KeyRef) => chosenFrames(bench.keys, channel).has(frame);
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
      y >= leastOf(values) && y <= greatestOf(values)
        ? 0
        : leastOf(values.map((value) => Math.abs(value - y)));
    return distance <= CURVE_REACH ? [{ channel, distance }] : [];
  });
  const least = leastOf(found.map(({ distance }) => distance));
  const all = found.filter(({ distance }) => distance <= least + ON_EACH_OTHER).map(({ channel }) => channel);
  const best = all.find((channel) => bench.channels.includes(channel)) ?? all[0];
  return best === undefined ? null : { kind: 'curve', channel: best, strip, all };
}
