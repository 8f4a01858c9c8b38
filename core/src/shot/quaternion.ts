import { addJets, composeJet, cosJet, multiplyJets, scaleJet, sinJet, subtractJets, type Jet } from '../law';
import type { TurnOrder } from '../project';

type QuaternionJets = readonly [Jet, Jet, Jet, Jet];

const HALF_RADIANS = Math.PI / 360;

/**
 * The unit quaternion `[x, y, z, w]` of three Euler channels in degrees, from half angles, as jets. It is continuous
 * over whole revolutions by itself, so its sign is never forced.
 */
export function quaternionJets(order: TurnOrder, angles: readonly [Jet, Jet, Jet]): QuaternionJets {
  const turns = [...order].map((letter) => {
    const axis = 'XYZ'.indexOf(letter);
    return axisQuaternion(axis, angles[axis]!);
  });
  return turns.reduce(multiply);
}

function axisQuaternion(axis: number, angle: Jet): QuaternionJets {
  const half = scaleJet(angle, HALF_RADIANS);
  const zero: Jet = [0, 0, 0, 0];
  const parts: [Jet, Jet, Jet, Jet] = [zero, zero, zero, cosJet(half)];
  parts[axis] = sinJet(half);
  return parts;
}

function multiply(a: QuaternionJets, b: QuaternionJets): QuaternionJets {
  const [ax, ay, az, aw] = a;
  const [bx, by, bz, bw] = b;
  const sum = (p: Jet, q: Jet, r: Jet, s: Jet): Jet => addJets(addJets(p, q), subtractJets(r, s));
  const times = multiplyJets;
  return [
    sum(times(aw, bx), times(ax, bw), times(ay, bz), times(az, by)),
    sum(times(aw, by), times(ay, bw), times(az, bx), times(ax, bz)),
    sum(times(aw, bz), times(az, bw), times(ax, by), times(ay, bx)),
    subtractJets(times(aw, bw), addJets(addJets(times(ax, bx), times(ay, by)), times(az, bz))),
  ];
}

/** Squash factors along and across for the squash channel: k = max(0.05, 1 + s) and 1/√k. */
export function squashFactors(squash: Jet): { readonly along: Jet; readonly across: Jet } {
  const k = 1 + squash[0];
  if (k <= 0.05) {
    return { along: [0.05, 0, 0, 0], across: [1 / Math.sqrt(0.05), 0, 0, 0] };
  }
  const root = 1 / Math.sqrt(k);
  return {
    along: [k, squash[1], squash[2], squash[3]],
    across: composeJet(
      [root, -root / (2 * k), (3 * root) / (4 * k * k), (-15 * root) / (8 * k ** 3)],
      [k, squash[1], squash[2], squash[3]],
    ),
  };
}

/** Euler angles in degrees, turn order XYZ (R = Rx·Ry·Rz), of a unit quaternion. */
export function eulerXyz([x = 0, y = 0, z = 0, w = 1]: readonly number[]): [number, number, number] {
  const sinY = 2 * (x * z + w * y);
  const degrees = 180 / Math.PI;
  if (Math.abs(sinY) > 1 - 1e-12) {
    const turn = 2 * Math.atan2(x, w) * degrees;
    return [turn > 180 ? turn - 360 : turn, sinY > 0 ? 90 : -90, 0];
  }
  return [
    Math.atan2(2 * (w * x - y * z), 1 - 2 * (x * x + y * y)) * degrees,
    Math.asin(sinY) * degrees,
    Math.atan2(2 * (w * z - x * y), 1 - 2 * (y * y + z * z)) * degrees,
  ];
}
