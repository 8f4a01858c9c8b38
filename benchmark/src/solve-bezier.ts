import bezierEasing from 'bezier-easing';
import { bezierValue, solveBezierTime } from '@kaizen/core';
import { measure, steadyNumbers, type Result } from './measure';

const PLACES = 1024;

/** The value of a cubic at a share of its time by bisection in quadruple steps: slow, and right to the last bits. */
function exact(x1: number, y1: number, x2: number, y2: number, x: number): number {
  const cubic = (a: number, b: number, u: number) =>
    3 * a * u * (1 - u) ** 2 + 3 * b * u * u * (1 - u) + u ** 3;
  let low = 0;
  let high = 1;
  for (let i = 0; i < 200; i++) {
    const middle = (low + high) / 2;
    if (cubic(x1, x2, middle) < x) low = middle;
    else high = middle;
  }
  return cubic(y1, y2, (low + high) / 2);
}

export function solveBezier(): Result[] {
  const random = steadyNumbers();
  const curves = Array.from({ length: 32 }, () => {
    const [x1, x2] = [0.02 + 0.96 * random(), 0.02 + 0.96 * random()];
    return { x1, y1: random(), x2, y2: random() };
  });
  const inOrder = Float64Array.from({ length: PLACES }, (_, i) => (i + 0.5) / PLACES);
  const jumping = Float64Array.from({ length: PLACES }, () => random());
  const theirs = curves.map(({ x1, y1, x2, y2 }) => bezierEasing(x1, y1, x2, y2));
  const ours = curves.map(
    ({ x1, y1, x2, y2 }) =>
      (x: number) =>
        bezierValue(y1, y2, 1, solveBezierTime(x1, x2, x)),
  );
  const worst = (functions: readonly ((x: number) => number)[]) =>
    Math.max(
      ...curves.flatMap(({ x1, y1, x2, y2 }, i) =>
        Array.from(jumping.subarray(0, 128), (x) => Math.abs(functions[i]!(x) - exact(x1, y1, x2, y2, x))),
      ),
    );
  let sink = 0;
  // Each contender has a loop of its own, so that the compiler treats it as if it were alone.
  const own = (places: Float64Array) => () => {
    let sum = 0;
    for (const { x1, y1, x2, y2 } of curves)
      for (const x of places) sum += bezierValue(y1, y2, 1, solveBezierTime(x1, x2, x));
    sink += sum;
  };
  const other = (places: Float64Array) => () => {
    let sum = 0;
    for (const solve of theirs) for (const x of places) sum += solve(x);
    sink += sum;
  };
  // One leg after the other first, by itself: what picks places at random would leave the compiler another picture of both.
  const [ownWalked, otherWalked] = measure([
    { name: 'Kaizen', run: own(inOrder) },
    { name: 'bezier-easing', run: other(inOrder) },
  ]) as [number, number];
  const [ownJumping, otherJumping] = measure([
    { name: 'Kaizen, places at random', run: own(jumping) },
    { name: 'bezier-easing, places at random', run: other(jumping) },
  ]) as [number, number];
  if (!Number.isFinite(sink)) throw new Error('a solver failed');
  const [error, theirError] = [worst(ours), worst(theirs)];
  return [
    {
      what: 'one Bézier solved, its leg walked through as playing and drawing do, against the package bezier-easing with its tables built beforehand',
      measured: `${(otherWalked / ownWalked).toFixed(2)} times as fast`,
      wanted: 'at least 1',
      good: otherWalked / ownWalked >= 1,
    },
    {
      what: 'the same at places picked at random, for comparison only',
      measured: `${(otherJumping / ownJumping).toFixed(2)} times as fast`,
      wanted: '–',
      good: true,
    },
    {
      what: `its greatest error (bezier-easing: ${theirError.toExponential(1)})`,
      measured: error.toExponential(1),
      wanted: 'at most 1e-12',
      good: error <= 1e-12,
    },
  ];
}
