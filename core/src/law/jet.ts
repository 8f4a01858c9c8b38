import type { Jet } from './law';

/**
 * Taylor arithmetic to the third derivative. A jet is `[f, f′, f″, f‴]` of some function of time; each
 * operation gives the jet of the result by the rules of Leibniz and Faà di Bruno, so rates of whatever is
 * composed of these are exact. Comparisons look just after the moment: where values tie, the first
 * derivative that differs decides.
 */
export function constantJet(value: number): Jet {
  return [value, 0, 0, 0];
}

export function addJets(a: Jet, b: Jet): Jet {
  return [a[0] + b[0], a[1] + b[1], a[2] + b[2], a[3] + b[3]];
}

export function subtractJets(a: Jet, b: Jet): Jet {
  return [a[0] - b[0], a[1] - b[1], a[2] - b[2], a[3] - b[3]];
}

export function scaleJet(a: Jet, factor: number): Jet {
  return [a[0] * factor, a[1] * factor, a[2] * factor, a[3] * factor];
}

export function multiplyJets(a: Jet, b: Jet): Jet {
  return [
    a[0] * b[0],
    a[1] * b[0] + a[0] * b[1],
    a[2] * b[0] + 2 * a[1] * b[1] + a[0] * b[2],
    a[3] * b[0] + 3 * a[2] * b[1] + 3 * a[1] * b[2] + a[0] * b[3],
  ];
}

/** The jet of `g(x)` from x's and `g, g′, g″, g‴` at x's value (Faà di Bruno). */
export function composeJet(g: Jet, x: Jet): Jet {
  const [, x1, x2, x3] = x;
  if (x1 === 0 && x2 === 0 && x3 === 0) return constantJet(g[0]);
  return [g[0], g[1] * x1, g[2] * x1 * x1 + g[1] * x2, g[3] * x1 ** 3 + 3 * g[2] * x1 * x2 + g[1] * x3];
}

export function reciprocalJet(x: Jet): Jet {
  const r = 1 / x[0];
  return composeJet([r, -r * r, 2 * r ** 3, -6 * r ** 4], x);
}

export function divideJets(a: Jet, b: Jet): Jet {
  const quotient = multiplyJets(a, reciprocalJet(b));
  return [a[0] / b[0], quotient[1], quotient[2], quotient[3]];
}

export function sqrtJet(x: Jet): Jet {
  const s = Math.sqrt(x[0]);
  return composeJet([s, 0.5 / s, -0.25 / s ** 3, 0.375 / s ** 5], x);
}

export function expJet(x: Jet): Jet {
  const e = Math.exp(x[0]);
  return composeJet([e, e, e, e], x);
}

export function logJet(x: Jet): Jet {
  const r = 1 / x[0];
  return composeJet([Math.log(x[0]), r, -r * r, 2 * r ** 3], x);
}

/** x^y: by the power rule where y stands still, else by exp(y·log x). */
export function powJet(x: Jet, y: Jet): Jet {
  const value = Math.pow(x[0], y[0]);
  if (y[1] === 0 && y[2] === 0 && y[3] === 0) {
    const n = y[0];
    const term = (factor: number, k: number) => (factor === 0 ? 0 : factor * Math.pow(x[0], n - k));
    return composeJet([value, term(n, 1), term(n * (n - 1), 2), term(n * (n - 1) * (n - 2), 3)], x);
  }
  const jet = expJet(multiplyJets(y, logJet(x)));
  return [value, jet[1], jet[2], jet[3]];
}

/** Sine of radians. */
export function sinJet(x: Jet): Jet {
  const s = Math.sin(x[0]);
  const c = Math.cos(x[0]);
  return composeJet([s, c, -s, -c], x);
}

/** Cosine of radians. */
export function cosJet(x: Jet): Jet {
  const s = Math.sin(x[0]);
  const c = Math.cos(x[0]);
  return composeJet([c, -s, -c, s], x);
}

export function tanJet(x: Jet): Jet {
  const t = Math.tan(x[0]);
  const d = 1 + t * t;
  return composeJet([t, d, 2 * t * d, d * (2 + 6 * t * t)], x);
}

/** Arcsine in radians. */
export function asinJet(x: Jet): Jet {
  const w = 1 - x[0] * x[0];
  const s = Math.sqrt(w);
  return composeJet([Math.asin(x[0]), 1 / s, x[0] / (w * s), (1 + 2 * x[0] * x[0]) / (w * w * s)], x);
}

export function acosJet(x: Jet): Jet {
  const jet = asinJet(x);
  return [Math.acos(x[0]), -jet[1], -jet[2], -jet[3]];
}

export function atanJet(x: Jet): Jet {
  const w = 1 / (1 + x[0] * x[0]);
  return composeJet([Math.atan(x[0]), w, -2 * x[0] * w * w, (6 * x[0] * x[0] - 2) * w ** 3], x);
}

/** atan2(y, x) in radians; its derivatives are those of atan(y/x), read where the quotient is tame. */
export function atan2Jet(y: Jet, x: Jet): Jet {
  const tame =
    Math.abs(x[0]) >= Math.abs(y[0]) ? atanJet(divideJets(y, x)) : scaleJet(atanJet(divideJets(x, y)), -1);
  return [Math.atan2(y[0], x[0]), tame[1], tame[2], tame[3]];
}

/** Sign of a jet just after its moment: the first derivative that is not zero decides. */
export function signAfter(x: Jet): number {
  for (const derivative of x) if (derivative !== 0) return derivative > 0 ? 1 : -1;
  return 0;
}

export function absJet(x: Jet): Jet {
  const jet = scaleJet(x, signAfter(x) < 0 ? -1 : 1);
  return [Math.abs(x[0]), jet[1], jet[2], jet[3]];
}

export function minJet(a: Jet, b: Jet): Jet {
  return signAfter(subtractJets(b, a)) >= 0 ? a : b;
}

export function maxJet(a: Jet, b: Jet): Jet {
  return signAfter(subtractJets(a, b)) >= 0 ? a : b;
}

/** A jet carried on by its Taylor series: exact where the fourth derivative is none. */
export function advanceJet([v, d1, d2, d3]: Jet, by: number): Jet {
  return [v + by * (d1 + by * (d2 / 2 + (by * d3) / 6)), d1 + by * (d2 + (by * d3) / 2), d2 + by * d3, d3];
}
