import fc from 'fast-check';
import { Follower, type FollowerSpring } from './follower';

const SECONDS = 1 / 24;

/** x at whole frames from `start`: some uneven motion. */
const x = (frame: number) =>
  Math.sin(frame * 0.37) * 2 + Math.cos(frame * 0.11 + 1) + 0.3 * ((frame * 7919) % 5);

function follower(spring: FollowerSpring, lead: (frame: number) => number = x): (frame: number) => number {
  const made = new Follower(spring, 1, SECONDS, (frame, out) => {
    out[0] = lead(frame);
  });
  const [place, speed] = [new Float64Array(1), new Float64Array(1)];
  return (frame) => (made.at(frame, place, speed) ? place[0]! : Number.NaN);
}

/** ÿ = ω²(x − y) − 2ζω·ẏ by the classical Runge–Kutta method in steps that end on every frame. */
function rungeKutta({ frequency, damping, start }: FollowerSpring, frame: number, steps = 400): number {
  const omega = 2 * Math.PI * frequency;
  const led = (t: number) => {
    const k = Math.floor(t);
    return x(start + k) + (x(start + k + 1) - x(start + k)) * (t - k);
  };
  let [y, v] = [x(start), 0];
  const whole = frame - start;
  for (let k = 0; k < whole; k++) {
    const length = Math.min(1, whole - k);
    const h = length / steps;
    for (let i = 0; i < steps; i++) {
      const t = k + i * h;
      const pull = (place: number, speed: number, at: number) =>
        omega * omega * (led(Math.min(at, k + 1 - 1e-12)) - place) - 2 * damping * omega * speed;
      const dt = h * SECONDS;
      const [k1, a1] = [v, pull(y, v, t)];
      const [k2, a2] = [v + (dt / 2) * a1, pull(y + (dt / 2) * k1, v + (dt / 2) * a1, t + h / 2)];
      const [k3, a3] = [v + (dt / 2) * a2, pull(y + (dt / 2) * k2, v + (dt / 2) * a2, t + h / 2)];
      const [k4, a4] = [v + dt * a3, pull(y + dt * k3, v + dt * a3, t + h)];
      y += (dt / 6) * (k1 + 2 * k2 + 2 * k3 + k4);
      v += (dt / 6) * (a1 + 2 * a2 + 2 * a3 + a4);
    }
  }
  return y;
}

const springs = fc.record({
  frequency: fc.double({ min: 0.3, max: 4, noNaN: true }),
  damping: fc.oneof(fc.constantFrom(0, 1, 0.9999999, 1.0000001), fc.double({ min: 0, max: 3, noNaN: true })),
  start: fc.constantFrom(0, -7.5, 12),
  loop: fc.constant(null),
});

describe('a follower', () => {
  it('agrees with a fine Runge–Kutta, under, at and over critical damping', () => {
    fc.assert(
      fc.property(springs, fc.double({ min: 0, max: 30, noNaN: true }), (spring, after) => {
        const frame = spring.start + after;
        expect(Math.abs(follower(spring)(frame) - rungeKutta(spring, frame))).toBeLessThan(1e-8);
      }),
      { numRuns: 60 },
    );
  });

  it('stands at x(start) until its start, and gives the same whatever was asked before', () => {
    fc.assert(
      fc.property(
        springs,
        fc.array(fc.double({ min: -50, max: 3000, noNaN: true }), { minLength: 1, maxLength: 12 }),
        (spring, frames) => {
          const one = follower(spring);
          const asked = frames.map((frame) => one(frame));
          frames.forEach((frame, i) => {
            expect(follower(spring)(frame)).toBe(asked[i]);
            if (frame <= spring.start) expect(asked[i]).toBe(x(spring.start));
          });
        },
      ),
      { numRuns: 50 },
    );
  });

  it('begun late is the one begun at its start, to what can be told apart', () => {
    const spring = { frequency: 2, damping: 0.4, start: 0, loop: null };
    const late = follower(spring);
    // Carried from the start by the same exact steps: one long block after another.
    const whole = new Follower({ ...spring, damping: 0.4 }, 1, SECONDS, (frame, out) => {
      out[0] = x(frame);
    });
    const [place, speed] = [new Float64Array(1), new Float64Array(1)];
    for (let frame = 0; frame <= 2000; frame += 50) whole.at(frame, place, speed);
    for (const frame of [700, 1500, 1999.5]) {
      whole.at(frame, place, speed);
      expect(late(frame)).toBeCloseTo(place[0]!, 12);
    }
    expect(late(1999.5)).toBeCloseTo(rungeKutta({ ...spring, start: 1700 }, 1999.5, 60), 5);
  });

  it('in a loop is periodic, solves its equation round the seam, and is what a long run settles to', () => {
    const loop = 37;
    const spring = { frequency: 1.1, damping: 0.3, start: 5, loop };
    const periodic = follower(spring);
    const repeated = follower({ ...spring, loop: null }, (frame) => {
      const since = frame - 5;
      return x(5 + since - loop * Math.floor(since / loop));
    });
    for (const frame of [5, 11.25, 41.9, 42]) {
      expect(periodic(frame + loop)).toBeCloseTo(periodic(frame), 12);
      expect(periodic(frame - 3 * loop)).toBeCloseTo(periodic(frame), 12);
      expect(repeated(frame + 40 * loop)).toBeCloseTo(periodic(frame), 10);
    }
  });

  it('has no periodic solution undamped and in step with the loop', () => {
    expect(follower({ frequency: 1, damping: 0, start: 0, loop: 24 })(3)).toBeNaN();
    expect(follower({ frequency: 1.1, damping: 0, start: 0, loop: 24 })(3)).not.toBeNaN();
  });

  it('has the rates of its own equation, right-sided', () => {
    const spring = { frequency: 1.3, damping: 0.6, start: 2, loop: null };
    const made = new Follower(spring, 1, SECONDS, (frame, out) => {
      out[0] = x(frame);
    });
    const read = follower(spring);
    for (const frame of [7.3, 80.6]) {
      const h = 1e-3;
      const [v, d1, d2] = made.jet(frame);
      expect(v).toBe(read(frame));
      expect(d1).toBeCloseTo((read(frame + h) - read(frame - h)) / (2 * h), 6);
      expect(d2).toBeCloseTo((read(frame + h) - 2 * v + read(frame - h)) / (h * h), 4);
    }
    expect(made.jet(1)).toEqual([x(2), 0, 0, 0]);
    expect(made.jet(2)[1]).toBe(0);
    expect(made.jet(2)[3]).not.toBe(0);
  });
});
