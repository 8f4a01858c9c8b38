import type { Jet } from '../src';

/** Derivatives of a smooth function by Richardson-extrapolated central differences of its own next lower exact one. */
export function differenceOf(jetAt: (x: number) => Jet, x: number, h: number): [number, number, number] {
  const central = (k: number, step: number) =>
    ((jetAt(x + step)[k] ?? 0) - (jetAt(x - step)[k] ?? 0)) / (2 * step);
  const richardson = (k: number) => (4 * central(k, h / 2) - central(k, h)) / 3;
  return [richardson(0), richardson(1), richardson(2)];
}

export function expectClose(actual: number, expected: number, tolerance: number): void {
  expect(Math.abs(actual - expected)).toBeLessThanOrEqual(tolerance * Math.max(1, Math.abs(expected)));
}
