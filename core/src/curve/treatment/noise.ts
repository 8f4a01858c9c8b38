import { frames, maybe, number, orNull, whole, type Treatment } from '../../project';
import { addJets, composeJet, scaleJet, type Jet } from '../../law';
import type { TreatmentKind } from './treatment';

type Noise = Extract<Treatment, { kind: 'noise' }>;

/** The contract's integer hash, modulo 2³². */
export function hash(x: number): number {
  x = Math.imul(x ^ (x >>> 16), 0x7feb352d);
  x = Math.imul(x ^ (x >>> 15), 0x846ca68b);
  return (x ^ (x >>> 16)) >>> 0;
}

/** The gradient at lattice point i of an octave, in [−1, 1). */
function gradient(octaveSeed: number, i: number): number {
  return (2 * hash((octaveSeed + i) | 0)) / 4294967296 - 1;
}

/** i modulo 2³² as an integer that `|0` keeps, for lattice points beyond 2³¹ too. */
function wrapped(i: number): number {
  return i % 4294967296;
}

/** Gradient noise with a quintic blend, twice differentiable. `modulus` makes the lattice repeat, 0 leaves it endless. */
function octave(octaveSeed: number, modulus: number, u: number): Jet {
  const i = Math.floor(u);
  const d = u - i;
  const lattice = (at: number) =>
    gradient(octaveSeed, wrapped(modulus > 0 ? at - modulus * Math.floor(at / modulus) : at));
  const a = lattice(i);
  const b = lattice(i + 1);
  const t = d ** 3 * (6 * d * d - 15 * d + 10);
  const t1 = 30 * d * d * (d - 1) ** 2;
  const t2 = 60 * d * (d - 1) * (2 * d - 1);
  const t3 = 360 * d * d - 360 * d + 60;
  const gap = b * (d - 1) - a * d;
  const gap1 = b - a;
  return [
    2 * (a * d + gap * t),
    2 * (a + gap1 * t + gap * t1),
    2 * (2 * gap1 * t1 + gap * t2),
    2 * (3 * gap1 * t2 + gap * t3),
  ];
}

/** N(f): octaves of halving weight and doubling rate, |N| ≤ 1. */
export function noiseJet(noise: Pick<Noise, 'period' | 'seed' | 'octaves' | 'loop'>, frame: number): Jet {
  const { octaves = 1, loop = null } = noise;
  const cells = loop === null ? 0 : Math.max(1, Math.floor(loop / noise.period + 0.5));
  const period = loop === null ? noise.period : loop / cells;
  const seed = hash(wrapped(noise.seed) | 0);
  let sum: Jet = [0, 0, 0, 0];
  let weights = 0;
  for (let o = 0; o < octaves; o++) {
    const rate = 2 ** o / period;
    const jet = octave(hash((seed + o) | 0), cells * 2 ** o, (2 ** o * frame) / period);
    sum = addJets(sum, scaleJet(composeJet(jet, [0, rate, 0, 0]), 2 ** -o));
    weights += 2 ** -o;
  }
  return scaleJet(sum, 1 / weights);
}

export const noise: TreatmentKind<Noise> = {
  fields: {
    amplitude: number(),
    period: frames({ exclusiveMinimum: 0 }),
    seed: whole(),
    octaves: maybe(whole({ minimum: 1, maximum: 24 })),
    loop: maybe(orNull(frames({ exclusiveMinimum: 0 }))),
  },
  make: (treatment, below) => ({
    value: (frame) => below.value(frame) + treatment.amplitude * noiseJet(treatment, frame)[0],
    jet: (frame) => addJets(below.jet(frame), scaleJet(noiseJet(treatment, frame), treatment.amplitude)),
  }),
};
