import {
  compileCurve,
  curveContext,
  curveJet,
  curveOf,
  curveValue,
  secondsPerFrame,
  type KeyRef,
  type Project,
} from '../src';
import { testProject, valueAt } from './project';

/** The one curve that tests of shapes work on, and what they ask of it. */
export const CHANNEL = 'wagon/translate.x';
export const at = (frame: number): KeyRef => ({ channel: CHANNEL, frame });
export const curveProject = (keys: readonly unknown[], more: object = {}) =>
  testProject({}, [{ channel: CHANNEL, keys, ...more }]);
export const keysOf = (of: Project) => curveOf(of, CHANNEL)!.keys;
export const compiledOf = (of: Project) => compileCurve(curveOf(of, CHANNEL)!, 0, curveContext(of));
export const valueOf = (of: Project, frame: number) => curveValue(compiledOf(of), frame);
/** Per second, just after a frame. */
export const speedOf = (of: Project, frame: number) =>
  curveJet(compiledOf(of), frame)[1] / secondsPerFrame(of.rate);

/** How far two projects' curves are apart where they are farthest. */
export function furthest(a: Project, b: Project, from: number, to: number): number {
  let most = 0;
  for (let i = 0; i <= 2000; i++) {
    const frame = from + ((to - from) * i) / 2000;
    most = Math.max(most, Math.abs(valueOf(a, frame) - valueOf(b, frame)));
  }
  return most;
}

/** The value of such a curve at a frame. */
export function sample(
  keys: readonly unknown[],
  frame: number,
  more: Readonly<Record<string, unknown>> = {},
): number {
  return valueAt(curveProject(keys, more), CHANNEL, frame);
}
export const key = (frame: number, value: number, more: object = {}) => ({ frame, value, ...more });
export const LINEAR = { in: { mode: 'linear' }, out: { mode: 'linear' } };
