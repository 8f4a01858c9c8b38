import type { Key, Project, Side } from '../../project';
import { compileCurve, curveJet, curveValue, type CompiledCurve } from '../../curve';
import { changeCurves, curveOf, newKey, withKeys } from '../curves';
import { curveContext } from '../curve-context';
import type { Span } from '../time/stretch';
import { restOf } from './rest-of';
import type { ShapeEdit } from './convert-legs';
import type { Progress } from './fit-keys';

/** Places between two keys at which the greatest error is looked for. */
const MEASURED_BETWEEN = 8;
/** From just before a key its slope is read, so that a corner stays a corner. */
const JUST_BEFORE = 1e-5;

/**
 * Keys every so many frames of a span on what some channels show, treatments included, which then go; keys in the span are replaced, those
 * outside it stay. Slopes are the curve's own. Muted channels and locked ones are left alone.
 */
export function bake(
  project: Project,
  channels: readonly string[],
  every: number,
  span: Span,
  progress: Progress = () => undefined,
): ShapeEdit {
  const context = curveContext(project);
  let [error, before, after, done] = [0, 0, 0, 0];
  let at: ShapeEdit['at'] = null;
  const known = channels.filter((channel) => curveOf(project, channel)?.muted === false);
  const next = changeCurves(project, known, (curve) => {
    progress(done++ / known.length);
    const rest = restOf(project, curve.channel);
    const shown = compileCurve(curve, rest, context);
    const outer = curve.keys.filter(({ frame }) => frame < span.start || frame > span.end);
    const plain = withKeys({ ...curve, treatments: [] }, [...outer, ...bakedKeys(shown, every, span)]);
    const baked = compileCurve(plain, rest, context);
    before += curve.keys.length;
    after += plain.keys.length;
    for (let frame = span.start; frame <= span.end; frame += every / MEASURED_BETWEEN) {
      const miss = Math.abs(curveValue(baked, frame) - curveValue(shown, frame));
      if (miss > error) [error, at] = [miss, { channel: curve.channel, frame }];
    }
    return plain;
  });
  progress(1);
  return { project: next, keysBefore: before, keysAfter: after, error, at };
}

function bakedKeys(shown: CompiledCurve, every: number, { start, end }: Span): readonly Key[] {
  const count = Math.max(1, Math.ceil((end - start) / every - 1e-9));
  return Array.from({ length: count + 1 }, (_, i): Key => {
    const frame = i === count ? end : start + i * every;
    const into = side(curveJet(shown, frame - JUST_BEFORE)[1]);
    const out = side(curveJet(shown, frame)[1]);
    const joined = Math.abs(into.slope - out.slope) <= 1e-3 * Math.max(1, Math.abs(out.slope));
    return { ...newKey(frame, curveValue(shown, frame)), in: joined ? out : into, out, joined };
  });
}

function side(slope: number): Side {
  const finite = Number.isFinite(slope) ? slope : 0;
  return { mode: finite === 0 ? 'flat' : 'set', slope: finite, reach: 1 / 3 };
}
