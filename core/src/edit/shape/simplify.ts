import { greatestOf, leastOf } from '../../project';
import type { Curve, Key, Project } from '../../project';
import { compileKeys, keyedValue, type CurveContext } from '../../curve';
import { changeCurves, framesByChannel, withKeys, type KeyRef } from '../curves';
import { curveContext } from '../curve-context';
import type { ShapeEdit } from './convert-legs';
import { fitFunction, type FitSamples, type Progress } from './fit-keys';
import { windowSlopes } from './window-slopes';

/** Between two keys the curve is asked at least and at most so often; of many keys only at the keys. */
const BETWEEN = 3;
const MOST_BETWEEN = 64;
const MANY = 200;

/**
 * Fewest keys within a tolerance (in the channel's unit) on some channels: runs of Curve legs are fitted anew, of Holds that hold the
 * same value the first stays, other legs and the keys beside them stay. With `refs` only what lies between the first and the last of a channel's named keys.
 */
export function simplify(
  project: Project,
  refs: readonly KeyRef[],
  tolerance: number,
  progress: Progress = () => undefined,
): ShapeEdit {
  const context = curveContext(project);
  const named = framesByChannel(refs);
  let [error, before, after, done] = [0, 0, 0, 0];
  let at: KeyRef | null = null;
  const next = changeCurves(project, [...named.keys()], (curve) => {
    const simple = simplifyCurve(curve, [...named.get(curve.channel)!], tolerance, context, (share) =>
      progress((done + share) / named.size),
    );
    progress(++done / named.size);
    before += curve.keys.length;
    after += simple.curve.keys.length;
    if (simple.error > error) [error, at] = [simple.error, { channel: curve.channel, frame: simple.at }];
    return simple.curve;
  });
  return { project: next, keysBefore: before, keysAfter: after, error, at };
}

function simplifyCurve(
  curve: Curve,
  frames: readonly number[],
  tolerance: number,
  context: CurveContext,
  progress: Progress,
) {
  const [first, last] = [leastOf(frames), greatestOf(frames)];
  const pins = new Set([curve.before.pin, curve.after.pin]);
  let [error, at] = [0, first];
  const kept: Key[] = [];
  let run: Key[] = [];
  const flush = () => {
    const tell = (share: number) => progress((kept.length + share * run.length) / curve.keys.length);
    const fitted = run.length > 2 ? fitRun(curve, run, tolerance, context, tell) : null;
    if (fitted && fitted.error > error) [error, at] = [fitted.error, fitted.at];
    kept.push(...(fitted?.keys ?? run));
    run = [];
  };
  curve.keys.forEach((key) => {
    run.push(key);
    const inside = key.frame >= first && key.frame < last;
    if (inside && key.leg.kind === 'curve' && !pins.has(key.frame)) return;
    if (!inside || key.leg.kind !== 'curve') {
      flush();
      return;
    }
    flush();
    run.push(kept.pop()!);
  });
  flush();
  const isFree = (frame: number) => frame > first && frame < last && !pins.has(frame);
  const held = withoutRepeatedHolds(kept, isFree, tolerance);
  if (held.error > error) [error, at] = [held.error, held.at];
  return { curve: held.keys.length === curve.keys.length ? curve : withKeys(curve, held.keys), error, at };
}

/** Leaves out held keys that hold on, within the tolerance, what the key before them holds. */
function withoutRepeatedHolds(keys: readonly Key[], isFree: (frame: number) => boolean, tolerance: number) {
  let [error, at] = [0, 0];
  const kept: Key[] = [];
  keys.forEach((key, i) => {
    const last = kept.at(-1);
    const off = last ? Math.abs(key.value - last.value) : Infinity;
    const repeats = last?.leg.kind === 'hold' && key.leg.kind === 'hold' && off <= tolerance;
    if (!repeats || i === keys.length - 1 || !isFree(key.frame)) kept.push(key);
    else if (off > error) [error, at] = [off, key.frame];
  });
  return { keys: kept, error, at };
}

/** A run of keys fitted anew; the outer sides of its ends stay, and so does the whole where no key is saved. */
function fitRun(
  curve: Curve,
  run: readonly Key[],
  tolerance: number,
  context: CurveContext,
  progress: Progress,
) {
  const compiled = compileKeys(curve, context);
  const exact = (frame: number) => keyedValue(compiled, frame, 0);
  const fitted = fitFunction(runSamples(run, exact, tolerance), exact, tolerance, context, progress);
  if (fitted.keys.length >= run.length) return null;
  const ends = fitted.keys.length - 1;
  const keys = fitted.keys.map((key, i): Key => {
    const own = run.find(({ frame }) => frame === key.frame);
    if (i === 0) return { ...run[0]!, out: key.out, joined: false };
    if (i === ends) return { ...run.at(-1)!, in: key.in, joined: false };
    return own ? { ...own, in: key.in, out: key.out, joined: key.joined, leg: key.leg } : key;
  });
  return { ...fitted, keys };
}

/** A run asked at every key and between them: once a frame, and of few keys at least so often. */
function runSamples(run: readonly Key[], exact: (frame: number) => number, tolerance: number): FitSamples {
  const least = run.length > MANY ? 1 : BETWEEN + 1;
  const dense = run.flatMap(({ frame }, i) => {
    const next = run[i + 1];
    if (!next) return [frame];
    const parts = Math.max(least, Math.min(MOST_BETWEEN, Math.ceil(next.frame - frame)));
    return Array.from({ length: parts }, (_, k) => frame + ((next.frame - frame) * k) / parts);
  });
  const frames = Float64Array.from(dense);
  const values = frames.map(exact);
  return { frames, values, ...windowSlopes(frames, values, tolerance) };
}
