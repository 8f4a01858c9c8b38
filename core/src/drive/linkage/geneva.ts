import { whole } from '../../project';
import {
  atan2Jet,
  constantJet,
  cosDeg,
  cosSinDegJets,
  DEGREES,
  scaleJet,
  signAfter,
  sinDeg,
  subtractJets,
} from '../../law';
import { linkage } from './linkage';

/**
 * An external Geneva drive of n slots: the driver's pin turns the wheel by 360/n a turn while |θ′| < 90 − 180/n and it dwells
 * between; 0 at θ = 0.
 */
export const geneva = linkage<{ slots: number }>('geneva', {
  inputs: ['angle'],
  outputs: ['angle'],
  params: { slots: whole({ minimum: 3 }) },
  make: ({ slots }) => {
    const r = sinDeg(180 / slots);
    const limit = 90 - 180 / slots;
    const half = 180 / slots;
    const turnsOf = (angle: number) => Math.ceil((angle - 180) / 360);
    const driven = (angle: number): number => {
      const turns = turnsOf(angle);
      const within = angle - 360 * turns;
      const step = (360 / slots) * turns;
      if (Math.abs(within) >= limit) return -(Math.sign(within) * half + step);
      return -(Math.atan2(r * sinDeg(within), 1 - r * cosDeg(within)) * DEGREES + step);
    };
    return {
      solve: ([angle], out, at) => {
        out[at] = driven(angle!);
        return 0;
      },
      jets: ([angle]) => {
        const value = driven(angle![0]);
        const within = angle![0] - 360 * turnsOf(angle![0]);
        // On the limit itself it depends on which way the pin goes.
        const inward = signAfter([limit - Math.abs(within), ...slope(angle!, within)]) > 0;
        if (!inward) return [constantJet(value)];
        const [cos, sin] = cosSinDegJets([within, angle![1], angle![2], angle![3]]);
        const jet = scaleJet(
          atan2Jet(scaleJet(sin, r), subtractJets(constantJet(1), scaleJet(cos, r))),
          -DEGREES,
        );
        return [[value, jet[1], jet[2], jet[3]]];
      },
    };
  },
});

/** The derivatives of −|θ′|. */
function slope([, d1, d2, d3]: readonly number[], within: number): [number, number, number] {
  const sign = within > 0 ? -1 : 1;
  return [sign * d1!, sign * d2!, sign * d3!];
}
