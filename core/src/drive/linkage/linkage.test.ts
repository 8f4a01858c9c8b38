import fc from 'fast-check';
import type { Jet } from '../../law';
import { LINKAGES } from './index';
import type { Mechanism } from './linkage';

type Params = Readonly<Record<string, unknown>>;

function made(name: string, params: Params): Mechanism {
  const read = LINKAGES.get(name)!.read(params);
  if ('message' in read) throw new Error(read.message);
  return read.make();
}

/** All outputs at some inputs; null where the mechanism does not reach. */
function at(mechanism: Mechanism, ...inputs: number[]): number[] | null {
  const out = new Float64Array(mechanism.outputs);
  return mechanism.solve(Float64Array.from(inputs), out, 0) === 0 ? [...out] : null;
}

const DEG = Math.PI / 180;
const tenTurns = fc.double({ min: -3600, max: 3600, noNaN: true });
const MANY = { numRuns: 10_000 };
const CAM = [
  { to: 90, lift: 0.05, law: 'cycloidal' },
  { to: 150, law: 'dwell' },
  { to: 260, lift: -0.02, law: 'modified-sine' },
  { to: 360, lift: 0.01, law: 's-curve', smoothing: 0.7 },
];

/** One example of each mechanism, with inputs that it reaches. */
const EXAMPLES: readonly (readonly [string, Params, readonly number[]])[] = [
  ['gear', { teethIn: 12, teethOut: 40, phase: 7 }, [33]],
  ['belt', { radiusIn: 0.2, radiusOut: 0.5, crossed: true }, [33]],
  ['worm', { starts: 2, teeth: 40 }, [33]],
  ['planetary', { sun: 20, ring: 60, from: 'sun', to: 'carrier', held: 'ring' }, [33]],
  ['rack', { radius: 0.3, offset: 0.1 }, [33]],
  ['wheel', { radius: 0.35, direction: -1 }, [1.2]],
  ['screw', { lead: 0.01 }, [33]],
  ['slider-crank', { crank: 0.2, rod: 0.5, offset: 0.05 }, [33]],
  ['scotch-yoke', { crank: 0.2 }, [33]],
  ['four-bar', { ground: 1, crank: 0.3, coupler: 0.9, rocker: 0.7, point: [0.4, 0.2] }, [33]],
  ['four-bar', { ground: 0.3, crank: 1, coupler: 0.9, rocker: 0.8, branch: -1 }, [433]],
  ['quick-return', { crank: 0.2, distance: 0.5 }, [33]],
  ['geneva', { slots: 4 }, [33]],
  ['cam', { program: CAM }, [33]],
  ['universal-joint', { bend: 25 }, [33]],
  ['two-link', { upper: 1, lower: 0.7 }, [0.9, 0.6]],
  ['scissor', { link: 1.5, stages: 3 }, [0.8]],
];

describe('the sixteen linkages', () => {
  it('are all there', () => {
    expect([...LINKAGES.keys()].sort()).toEqual([...new Set(EXAMPLES.map(([name]) => name))].sort());
  });

  it.each(EXAMPLES)('%s: first and second derivatives agree with differences', (name, params, inputs) => {
    const mechanism = made(name, params);
    // The inputs move as some function of time; its chain rule is part of what is tested.
    const moves = (t: number): number[] => inputs.map((input) => input + 0.31 * t + 0.17 * t * t);
    const jets = mechanism.jets(inputs.map((input): Jet => [input, 0.31, 0.34, 0]));
    const h = 1e-3;
    const value = (t: number, output: number) => at(mechanism, ...moves(t))![output]!;
    jets.forEach((jet, output) => {
      const v = (k: number) => value(k * h, output);
      const first = (-v(2) + 8 * v(1) - 8 * v(-1) + v(-2)) / (12 * h);
      const second = (-v(2) + 16 * v(1) - 30 * v(0) + 16 * v(-1) - v(-2)) / (12 * h * h);
      expect(jet[0]).toBeCloseTo(v(0), 12);
      expect(Math.abs(jet[1] - first)).toBeLessThan(1e-9 * Math.max(1, Math.abs(first)));
      expect(Math.abs(jet[2] - second)).toBeLessThan(1e-6 * Math.max(1, Math.abs(second)));
    });
  });

  it('close their loops within 1e-9 m at 10,000 angles over ten turns both ways', () => {
    const [g, a, b, c] = [1, 0.3, 0.9, 0.7];
    const bars = made('four-bar', { ground: g, crank: a, coupler: b, rocker: c, point: [0.4, -0.2] });
    const [r, l, e] = [0.2, 0.5, 0.07];
    const slider = made('slider-crank', { crank: r, rod: l, offset: e });
    fc.assert(
      fc.property(tenTurns, (angle) => {
        const [cos, sin] = [Math.cos(angle * DEG), Math.sin(angle * DEG)];
        const [rocker, coupler, x, y] = at(bars, angle)!.map(Number) as [number, number, number, number];
        const [ck, sk] = [Math.cos(coupler * DEG), Math.sin(coupler * DEG)];
        const joint = [a * cos + b * ck, a * sin + b * sk];
        expect(
          Math.hypot(joint[0]! - g - c * Math.cos(rocker * DEG), joint[1]! - c * Math.sin(rocker * DEG)),
        ).toBeLessThan(1e-9);
        expect(Math.hypot(x - a * cos - 0.4 * ck - 0.2 * sk, y - a * sin - 0.4 * sk + 0.2 * ck)).toBeLessThan(
          1e-9,
        );
        const [slide, rod] = at(slider, angle)! as [number, number];
        expect(
          Math.hypot(r * cos + l * Math.cos(rod * DEG) - slide, r * sin + l * Math.sin(rod * DEG) - e),
        ).toBeLessThan(1e-9);
      }),
      MANY,
    );
  });

  it.each([
    [{ ground: 1, crank: 0.3, coupler: 0.9, rocker: 0.7 }, 0],
    [{ ground: 0.3, crank: 1, coupler: 0.9, rocker: 0.8, branch: -1 }, 360],
    [{ ground: 0.3, crank: 1, coupler: 0.9, rocker: 0.8 }, 360],
  ])(
    'a four-bar of %j is never wrapped, goes on by %d a turn, and begins in (−180, 180]',
    (params, perTurn) => {
      const bars = made('four-bar', params);
      for (const output of [0, 1]) {
        const read = (angle: number) => at(bars, angle)![output]!;
        expect(read(0)).toBeGreaterThan(-180);
        expect(read(0)).toBeLessThanOrEqual(180);
        let last = read(-3600);
        for (let angle = -3599; angle <= 3600; angle++) {
          const next = read(angle);
          expect(Math.abs(next - last)).toBeLessThan(12);
          last = next;
        }
        expect(read(3600) - read(-3600)).toBeCloseTo(20 * perTurn, 8);
      }
    },
  );

  it('a two-link arm has its tip where it is asked for, its elbow on the side of the bend', () => {
    const [u, l] = [1, 0.7];
    fc.assert(
      fc.property(
        tenTurns,
        fc.double({ min: 0.31, max: 1.69, noNaN: true }),
        fc.constantFrom(1, -1),
        (angle, far, bend) => {
          const [x, y] = [far * Math.cos(angle * DEG), far * Math.sin(angle * DEG)];
          const [shoulder, elbow] = at(made('two-link', { upper: u, lower: l, bend }), x, y)! as [
            number,
            number,
          ];
          const both = (shoulder + elbow) * DEG;
          expect(
            Math.hypot(
              u * Math.cos(shoulder * DEG) + l * Math.cos(both) - x,
              u * Math.sin(shoulder * DEG) + l * Math.sin(both) - y,
            ),
          ).toBeLessThan(1e-9);
          expect(Math.sign(elbow)).toBe(bend);
          expect(shoulder > -180 && shoulder <= 180).toBe(true);
        },
      ),
    );
    expect(at(made('two-link', { upper: u, lower: l }), 1.8, 0)).toBeNull();
    expect(at(made('two-link', { upper: u, lower: l }), 0.2, 0)).toBeNull();
    expect(at(made('two-link', { upper: u, lower: l }), 1.7, 0)).toEqual([0, 0]);
  });

  it('a Geneva drive of n slots is a continuous n-th of a turn a turn, and dwells between', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 12 }), tenTurns, (slots, angle) => {
        const drive = made('geneva', { slots });
        const read = (a: number) => at(drive, a)![0]!;
        expect(read(angle + 360) - read(angle)).toBeCloseTo(-360 / slots, 9);
        expect(Math.abs(read(angle + 1e-6) - read(angle))).toBeLessThan(1e-4);
        const within = angle - 360 * Math.round(angle / 360);
        if (Math.abs(within) > 90 - 180 / slots) expect(drive.jets([[angle, 1, 0, 0]])[0]![1]).toBe(0);
      }),
    );
    // At mid-engagement the wheel turns r/(1 − r) as fast (Shigley and Uicker, Theory of Machines, Geneva mechanisms).
    const r = Math.SQRT1_2;
    expect(made('geneva', { slots: 4 }).jets([[0, 1, 0, 0]])[0]![1]).toBeCloseTo(-r / (1 - r), 12);
  });

  it('a cam is periodic, keeps its dwells, and meets its lifts', () => {
    const cam = made('cam', { program: CAM });
    const lift = (angle: number) => at(cam, angle)![0]!;
    expect([lift(0), lift(90), lift(120), lift(150), lift(260)]).toEqual([0.01, 0.05, 0.05, 0.05, -0.02]);
    expect(lift(45)).toBeCloseTo(0.03, 12);
    for (const angle of [10, 200, 300]) expect(lift(angle - 720)).toBeCloseTo(lift(angle), 12);
    expect(cam.jets([[90, 1, 0, 0]])[0]).toEqual([0.05, 0, 0, 0]);
    // Turning backward over 360 the cam is on its last stretch, not on its first.
    const backward = cam.jets([[0, -1, 0, 0]])[0]!;
    expect(backward[0]).toBeCloseTo(0.01, 12);
    expect(Math.sign(backward[3])).toBe(-Math.sign(cam.jets([[359.999999, 1, 0, 0]])[0]![3]));
  });

  it('a universal joint is in step at quarter turns, and its speed swings between cos β and 1/cos β', () => {
    const joint = made('universal-joint', { bend: 30 });
    for (const angle of [-450, -90, 0, 90, 180, 1170]) expect(at(joint, angle)).toEqual([angle]);
    expect(joint.jets([[0, 1, 0, 0]])[0]![1]).toBeCloseTo(1 / Math.cos(30 * DEG), 12);
    expect(joint.jets([[90, 1, 0, 0]])[0]![1]).toBeCloseTo(Math.cos(30 * DEG), 12);
  });

  it('an epicyclic train obeys Willis whichever wheel is held', () => {
    const [sun, ring] = [20, 60];
    for (const [from, to, held] of [
      ['sun', 'carrier', 'ring'],
      ['ring', 'sun', 'carrier'],
      ['carrier', 'ring', 'sun'],
    ] as const) {
      const angles = {
        [from]: 50,
        [held]: 0,
        [to]: at(made('planetary', { sun, ring, from, to, held }), 50)![0]!,
      };
      expect(sun * angles['sun']! + ring * angles['ring']! - (sun + ring) * angles['carrier']!).toBeCloseTo(
        0,
        10,
      );
    }
  });

  it.each([
    ['gear', { teethIn: 12, teethOut: 0 }, /teethOut is 0/],
    ['gear', { teethIn: 12, teethOut: 8, mesh: 'loose' }, /external or internal/],
    ['planetary', { sun: 1, ring: 2, from: 'sun', to: 'sun', held: 'ring' }, /each of sun, ring and carrier/],
    ['quick-return', { crank: 1, distance: 1 }, /more than the crank/],
    ['universal-joint', { bend: 90 }, /between -90 and 90/],
    ['geneva', { slots: 2 }, /at least 3/],
    ['four-bar', { ground: 1, crank: 1, coupler: 1, rocker: 1, point: [1] }, /2 numbers/],
    ['cam', { program: [] }, /empty/],
    ['cam', { program: [{ to: 90, lift: 1, law: 'cycloidal' }] }, /last stretch must go to 360/],
    ['cam', { program: [{ to: 360, law: 'cycloidal' }] }, /has no lift/],
    ['cam', { program: [{ to: 360, lift: 1, law: 'wavy' }] }, /"wavy" is no law/],
    ['belt', { radiusIn: 1, radiusOut: 1, crossed: 1 }, /true or false/],
  ])('a %s of %j is refused', (name, params, message) => {
    const read = LINKAGES.get(name)!.read(params);
    expect('message' in read ? read.message : 'accepted').toMatch(message);
  });
});
