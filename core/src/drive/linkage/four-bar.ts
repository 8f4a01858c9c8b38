import { numbers, oneOf, otherwise, positive, TOO_FAR, TOO_NEAR } from '../../project';
import {
  acosJet,
  addJets,
  atan2Jet,
  constantJet,
  cornerBetween,
  cosDeg,
  cosSinDegJets,
  DEGREES,
  divideJets,
  RADIANS,
  scaleJet,
  sinDeg,
  sqrtJet,
  subtractJets,
  wrapDeg,
  type Jet,
} from '../../law';
import { linkage } from './linkage';
import { withinOne } from './two-link';

interface FourBar {
  readonly ground: number;
  readonly crank: number;
  readonly coupler: number;
  readonly rocker: number;
  readonly branch: number;
  readonly point: readonly [number, number];
}

/**
 * A four-bar linkage: crank pin A on a circle about (0, 0), fixed pivot D at (ground, 0), joint C left of A→D for branch 1. The
 * angles are the direction of A→D, which goes round with a crank longer than the ground, and the corners of the triangle A C D,
 * so they are continuous; and they are in (−180, 180] at the reachable angle nearest to 0.
 */
export const fourBar = linkage<FourBar>('four-bar', {
  inputs: ['angle'],
  outputs: ['rocker', 'coupler', 'x', 'y'],
  params: {
    ground: positive('m'),
    crank: positive('m'),
    coupler: positive('m'),
    rocker: positive('m'),
    branch: otherwise(oneOf(1, -1), 1),
    point: otherwise(numbers(2), [0, 0]),
  },
  make: (params) => {
    const bars = new Bars(params);
    return {
      solve: ([angle], out, at) => {
        const reason = bars.solve(angle!, out, at);
        out[at] = out[at]! + bars.rockerShift;
        out[at + 1] = out[at + 1]! + bars.couplerShift;
        return reason;
      },
      jets: ([angle]) => {
        const [rocker, coupler, x, y] = bars.jets(angle!);
        const shifted = ([v, d1, d2, d3]: Jet, by: number): Jet => [v + by, d1, d2, d3];
        return [shifted(rocker!, bars.rockerShift), shifted(coupler!, bars.couplerShift), x!, y!];
      },
    };
  },
});

class Bars {
  readonly rockerShift: number = 0;
  readonly couplerShift: number = 0;
  private readonly u: number;
  private readonly v: number;

  constructor(private readonly bars: FourBar) {
    [this.u, this.v] = bars.point;
    const out = new Float64Array(4);
    this.solve(this.nearestToZero(), out, 0);
    if (!Number.isFinite(out[0]!)) return;
    this.rockerShift = wrapDeg(out[0]!) - out[0]!;
    this.couplerShift = wrapDeg(out[1]!) - out[1]!;
  }

  /** The reachable angle nearest to 0: the pin's distance from D grows with |θ| up to half a turn. */
  private nearestToZero(): number {
    const { ground: g, crank: a, coupler: b, rocker: c } = this.bars;
    const least = Math.abs(b - c);
    if (Math.abs(g - a) >= least) return 0;
    const cosine = (a * a + g * g - least * least) / (2 * a * g);
    return Math.acos(Math.max(-1, Math.min(1, cosine))) * DEGREES + 1e-7;
  }

  /** The direction of A→D, continuous in θ, in degrees. */
  private lineOfCentres(angle: number, c: number, s: number): number {
    const { ground: g, crank: a } = this.bars;
    if (a < g) return Math.atan2(-a * s, g - a * c) * DEGREES;
    if (a > g) return angle + 180 + Math.atan2(g * s, a - g * c) * DEGREES;
    const within = angle - 360 * Math.floor(angle / 360);
    return within / 2 - 90;
  }

  /** Writes rocker, coupler, x and y, the angles not yet taken to their place at 0. */
  solve(angle: number, out: Float64Array, at: number): number {
    const { ground: g, crank: a, coupler: b, rocker: c, branch } = this.bars;
    const cos = cosDeg(angle);
    const sin = sinDeg(angle);
    const square = a * a + g * g - 2 * a * g * cos;
    const d = Math.sqrt(square);
    const atA = cornerBetween(b, d, c);
    const atD = cornerBetween(c, d, b);
    const line = this.lineOfCentres(angle, cos, sin);
    const coupler = line + branch * atA * DEGREES;
    out[at] = line + 180 - branch * atD * DEGREES;
    out[at + 1] = coupler;
    const [ck, sk] = [Math.cos(coupler * RADIANS), Math.sin(coupler * RADIANS)];
    out[at + 2] = a * cos + this.u * ck - this.v * sk;
    out[at + 3] = a * sin + this.u * sk + this.v * ck;
    if (Number.isFinite(atA + atD)) return 0;
    return d > b + c ? TOO_FAR : TOO_NEAR;
  }

  jets(angle: Jet): readonly Jet[] {
    const { ground: g, crank: a, coupler: b, rocker: c, branch } = this.bars;
    const [cos, sin] = cosSinDegJets(angle);
    const square = subtractJets(constantJet(a * a + g * g), scaleJet(cos, 2 * a * g));
    const d = sqrtJet(square);
    const cornerJet = (near: number, far: number): Jet => {
      const cosine = divideJets(addJets(constantJet(near * near - far * far), square), scaleJet(d, 2 * near));
      return acosJet([withinOne(cosine[0]), cosine[1], cosine[2], cosine[3]]);
    };
    const direction = scaleJet(
      atan2Jet(scaleJet(sin, -a), subtractJets(constantJet(g), scaleJet(cos, a))),
      DEGREES,
    );
    const line: Jet = [
      this.lineOfCentres(angle[0], cosDeg(angle[0]), sinDeg(angle[0])),
      direction[1],
      direction[2],
      direction[3],
    ];
    const coupler = addJets(line, scaleJet(cornerJet(b, c), branch * DEGREES));
    const rocker = addJets(addJets(line, constantJet(180)), scaleJet(cornerJet(c, b), -branch * DEGREES));
    const [ck, sk] = cosSinDegJets(coupler);
    const x = addJets(scaleJet(cos, a), subtractJets(scaleJet(ck, this.u), scaleJet(sk, this.v)));
    const y = addJets(scaleJet(sin, a), addJets(scaleJet(sk, this.u), scaleJet(ck, this.v)));
    return [rocker, coupler, x, y];
  }
}
