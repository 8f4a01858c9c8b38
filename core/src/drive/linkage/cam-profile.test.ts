import fc from 'fast-check';
import { camProfile } from './cam-profile';
import { LINKAGES } from '.';

function made(program: readonly object[]) {
  const read = LINKAGES.get('cam')!.read({ program });
  if ('message' in read) throw new Error(read.message);
  return read.make();
}

/** A rise and a fall with two dwells between. */
const dwelling = (lift: number, law: string) =>
  made([
    { to: 100, lift, law },
    { to: 150, law: 'dwell' },
    { to: 260, lift: 0, law },
    { to: 360, law: 'dwell' },
  ]);

describe('the profile of a cam', () => {
  it('is a circle where nothing is lifted, with no pressure angle', () => {
    const { profile, pitch, pressure, curvature } = camProfile(
      made([{ to: 360, law: 'dwell' }]),
      0.2,
      0.05,
      36,
    );
    for (const [x, y] of profile) expect(Math.hypot(x, y)).toBeCloseTo(0.2, 12);
    for (const [x, y] of pitch) expect(Math.hypot(x, y)).toBeCloseTo(0.25, 12);
    expect(pressure.angle).toBe(0);
    expect(curvature.radius).toBeCloseTo(0.25, 12);
  });

  it('touches the roller and never cuts it, at every angle, as long as the roller is smaller than the curve', () => {
    const set = fc.record({
      base: fc.double({ min: 0.15, max: 0.4, noNaN: true }),
      lift: fc.double({ min: 0.01, max: 0.06, noNaN: true }),
      roller: fc.double({ min: 0.01, max: 0.04, noNaN: true }),
      law: fc.constantFrom('cycloidal', 'modified-sine', 'poly-345'),
      turn: fc.integer({ min: 0, max: 359 }),
    });
    fc.assert(
      fc.property(set, ({ base, lift, roller, law, turn }) => {
        const cam = dwelling(lift, law);
        const { profile, pitch, curvature } = camProfile(cam, base, roller, 1440);
        fc.pre(curvature.radius > roller * 1.5);
        const [x, y] = pitch[turn * 4]!;
        const nearest = Math.min(...profile.map(([a, b]) => Math.hypot(a - x, b - y)));
        expect(nearest).toBeGreaterThan(roller - 2e-5);
        expect(nearest).toBeLessThan(roller + 1e-9);
        const out = new Float64Array(1);
        cam.solve(Float64Array.of(turn), out, 0);
        expect(Math.hypot(x, y)).toBeCloseTo(base + roller + out[0]!, 12);
      }),
      { numRuns: 60 },
    );
  });

  it('has the pressure angle of the textbooks: a harmonic rise is steepest near its middle', () => {
    const [base, roller, lift, beta] = [0.2, 0.05, 0.06, 100];
    const { pressure } = camProfile(dwelling(lift, 'harmonic'), base, roller, 3600);
    let greatest = 0;
    for (let i = 0; i <= 10_000; i++) {
      const u = i / 10_000;
      const s = (lift / 2) * (1 - Math.cos(Math.PI * u));
      const speed = ((lift / 2) * Math.PI * Math.sin(Math.PI * u)) / ((beta * Math.PI) / 180);
      greatest = Math.max(greatest, (Math.atan(speed / (base + roller + s)) * 180) / Math.PI);
    }
    expect(pressure.angle).toBeCloseTo(greatest, 3);
    expect(pressure.at).toBeGreaterThan(30);
    expect(pressure.at).toBeLessThan(50);
  });

  it('tells where a roller is too large: the smallest radius of the pitch curve agrees with its differences', () => {
    const { pitch, curvature } = camProfile(dwelling(0.08, 'cycloidal'), 0.1, 0.02, 3600);
    const radii = pitch.map(([x, y], i) => {
      const [ax, ay] = pitch.at(i - 1)!;
      const [bx, by] = pitch[(i + 1) % pitch.length]!;
      const cross = (x - ax) * (by - y) - (y - ay) * (bx - x);
      const [p, q, r] = [
        Math.hypot(x - ax, y - ay),
        Math.hypot(bx - x, by - y),
        Math.hypot(bx - ax, by - ay),
      ];
      return cross < 0 ? (p * q * r) / (2 * Math.abs(cross)) : Infinity;
    });
    expect(curvature.radius).toBeCloseTo(Math.min(...radii), 4);
  });
});
