import { oneOf, positive } from '../../project';
import { linkage, proportional } from './linkage';

interface Planetary {
  readonly sun: number;
  readonly ring: number;
  readonly from: string;
  readonly to: string;
  readonly held: string;
}
const WHEELS = ['sun', 'ring', 'carrier'] as const;

/** An epicyclic train with one of its three held: sun·θs + ring·θr = (sun + ring)·θc, sun and ring their teeth. */
export const planetary = linkage<Planetary>('planetary', {
  inputs: ['angle'],
  outputs: ['angle'],
  params: {
    sun: positive(),
    ring: positive(),
    from: oneOf(...WHEELS),
    to: oneOf(...WHEELS),
    held: oneOf(...WHEELS),
  },
  refuse: ({ from, to, held }) =>
    new Set([from, to, held]).size < 3
      ? `from, to and held are ${from}, ${to} and ${held}; each of sun, ring and carrier must be one of them`
      : null,
  make: ({ sun, ring, from, to }) => {
    const weight: Readonly<Record<string, number>> = { sun, ring, carrier: -(sun + ring) };
    return proportional(-weight[from]! / weight[to]!);
  },
});
