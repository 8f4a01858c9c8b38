import type { Curve, Project } from '../../project';
import { compileKeys, keyedValue, type CurveContext } from '../../curve';
import { changeKeys, curvesByChannel, type KeyRef } from '../curves';
import { curveContext } from '../curve-context';

const SAMPLES = 48;

/** Keys whose Curve leg leaves the range of its two keys: it dips below them or overshoots. */
export function straying(project: Project, channels: readonly string[]): readonly KeyRef[] {
  const context = curveContext(project);
  const curves = curvesByChannel(project);
  return channels.flatMap((channel) => {
    const curve = curves.get(channel);
    return curve ? strayingLegs(curve, context).map((frame) => ({ channel, frame })) : [];
  });
}

function strayingLegs(curve: Curve, context: CurveContext): number[] {
  const compiled = compileKeys(curve, context);
  return curve.keys.flatMap((key, i) => {
    const next = curve.keys[i + 1];
    if (!next || key.leg.kind !== 'curve') return [];
    const [low, high] = [Math.min(key.value, next.value), Math.max(key.value, next.value)];
    const slack = 1e-9 * Math.max(1, Math.abs(low), Math.abs(high));
    for (let k = 1; k < SAMPLES; k++) {
      const value = keyedValue(compiled, key.frame + ((next.frame - key.frame) * k) / SAMPLES, 0);
      if (value < low - slack || value > high + slack) return [key.frame];
    }
    return [];
  });
}

/** Makes the sides of legs that stray Bounded, so that each stays between its keys. Sides that touch no such leg stay. */
export function keepBetweenKeys(project: Project, legs: readonly KeyRef[]): Project {
  const curves = curvesByChannel(project);
  const ends = legs.map(({ channel, frame }) => {
    const keys = curves.get(channel)?.keys ?? [];
    return { channel, frame: keys.find((key) => key.frame > frame)?.frame ?? frame };
  });
  const bound = (at: Project, refs: readonly KeyRef[], side: 'in' | 'out') =>
    changeKeys(at, refs, (key) => {
      const bounded = { ...key[side], mode: 'bounded' as const };
      const other = side === 'in' ? 'out' : 'in';
      return key.joined
        ? { ...key, [side]: bounded, [other]: { ...key[other], mode: 'bounded' as const } }
        : { ...key, [side]: bounded };
    });
  return bound(bound(project, legs, 'out'), ends, 'in');
}
