import type { Mechanism } from './linkage';

type Point = readonly [number, number];

/** A disc cam with a roller follower that moves straight towards its axle, all in metres and degrees. */
export interface CamProfile {
  /** The way of the roller's middle, seen from the cam, at even steps of its turn from 0 on. */
  readonly pitch: readonly Point[];
  /** The edge that the roller runs on, point by point for the same turns. */
  readonly profile: readonly Point[];
  /** The greatest angle between the push and the follower's way, and the turn at which it is. */
  readonly pressure: { readonly angle: number; readonly at: number };
  /** The smallest radius of the pitch curve where it bulges outwards, and its turn; a roller that is larger cuts into the cam. */
  readonly curvature: { readonly radius: number; readonly at: number };
}

const RADIANS = Math.PI / 180;
const TO_DEGREES = 180 / Math.PI;

/**
 * The pitch curve, profile and pressure angle of a cam for a base circle and a roller: with r = base + roller + lift the roller's middle
 * is at r·(cos −θ, sin −θ), seen from the cam; the profile lies the roller's radius inwards of it, across its direction; tan of the
 * pressure angle is (dr/dθ)/r. Follower straight towards the axle (Norton, Design of Machinery, ch. 8: pressure angle of a
 * translating roller follower without offset, radius of curvature of a pitch curve in polar form).
 */
export function camProfile(cam: Mechanism, base: number, roller: number, count = 360): CamProfile {
  const pitch: Point[] = [];
  const profile: Point[] = [];
  let pressure = { angle: 0, at: 0 };
  let curvature = { radius: Infinity, at: 0 };
  for (let i = 0; i < count; i++) {
    const at = (360 * i) / count;
    const [lift, perDegree, perDegree2] = cam.jets([[at, 1, 0, 0]])[0]!;
    const r = base + roller + lift;
    const speed = perDegree * TO_DEGREES;
    const acceleration = perDegree2 * TO_DEGREES ** 2;
    const [cos, sin] = [Math.cos(at * RADIANS), Math.sin(at * RADIANS)];
    // seen from the cam the follower goes round the other way
    const out: Point = [cos, -sin];
    const round: Point = [-sin, -cos];
    const along = Math.hypot(speed, r);
    const normal: Point = [(r * out[0] - speed * round[0]) / along, (r * out[1] - speed * round[1]) / along];
    pitch.push([r * out[0], r * out[1]]);
    profile.push([r * out[0] - roller * normal[0], r * out[1] - roller * normal[1]]);
    const angle = Math.atan2(Math.abs(speed), r) * TO_DEGREES;
    if (angle > pressure.angle) pressure = { angle, at };
    const bend = r * r + 2 * speed * speed - r * acceleration;
    const radius = bend > 0 ? along ** 3 / bend : Infinity;
    if (radius < curvature.radius) curvature = { radius, at };
  }
  return { pitch, profile, pressure, curvature };
}
