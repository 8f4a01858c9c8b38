import { compileExpression, formulaValue } from '@kaizen/core';

/** Factors to a field's own unit, for the units that may be typed there. */
const UNITS: Readonly<Record<string, Readonly<Record<string, number>>>> = {
  m: { m: 1, cm: 0.01, mm: 0.001, km: 1000 },
  mm: { mm: 1, cm: 10, m: 1000 },
  '°': { '°': 1, deg: 1, rad: 180 / Math.PI, turn: 360, turns: 360 },
  'm/s': { 'm/s': 1, 'cm/s': 0.01, 'mm/s': 0.001, 'km/h': 1 / 3.6 },
  '°/s': { '°/s': 1, 'deg/s': 1, rpm: 6, 'rad/s': 180 / Math.PI },
  s: { s: 1, ms: 0.001, min: 60 },
  h: { h: 1, min: 1 / 60 },
};

/** What was typed: a value for all, a sum or a factor on each, or one sentence on what would be right. */
export type Amount =
  | { readonly kind: 'set' | 'by' | 'times'; readonly value: number }
  | { readonly kind: 'wrong'; readonly message: string };

/**
 * Reads a typed amount: arithmetic (`12/5`), units (`40 cm`, `1.5 s`, `90 rpm`), `by 3`, `times 2`. `framesPerSecond` lets
 * frame fields take seconds.
 */
export function readAmount(text: string, unit: string, framesPerSecond = 24): Amount {
  const trimmed = text.trim().replaceAll('−', '-');
  const prefix = /^(by|times)\s+/i.exec(trimmed);
  const kind = (prefix?.[1]?.toLowerCase() ?? 'set') as 'set' | 'by' | 'times';
  const body = trimmed.slice(prefix?.[0].length ?? 0);
  const units =
    unit === 'f'
      ? { f: 1, s: framesPerSecond, ms: framesPerSecond / 1000, min: framesPerSecond * 60 }
      : (UNITS[unit] ?? {});
  const typed = Object.keys(units)
    .sort((a, b) => b.length - a.length)
    .find(
      (name) =>
        body.toLowerCase().endsWith(name.toLowerCase()) && !/[A-Za-z°/]$/.test(body.slice(0, -name.length)),
    );
  const clock = unit === 'h' ? /^(-?)(\d+):([0-5]?\d)$/.exec(body.trim()) : null;
  if (clock) {
    const hours = Number(clock[2]) + Number(clock[3]) / 60;
    return { kind, value: clock[1] === '-' ? -hours : hours };
  }
  const sum = typed === undefined ? body : body.slice(0, -typed.length);
  const compiled = compileExpression(sum.replace(/^\s*\+/, ''), []);
  const value = compiled.ok ? formulaValue(compiled.value.code, [0, 0]) : Number.NaN;
  if (!Number.isFinite(value)) {
    const known = Object.keys(units);
    return {
      kind: 'wrong',
      message: `“${trimmed}” is no number here; type one like 12/5${known.length > 0 ? ` or 3 ${known[1] ?? known[0]}` : ''}, by 3 or times 2`,
    };
  }
  return {
    kind,
    value:
      kind === 'times' || typed === undefined ? value : value * (units as Record<string, number>)[typed]!,
  };
}

export function applyAmount(amount: Exclude<Amount, { kind: 'wrong' }>, value: number): number {
  switch (amount.kind) {
    case 'set':
      return amount.value;
    case 'by':
      return value + amount.value;
    case 'times':
      return value * amount.value;
  }
}

/** Decimals a number is shown with, by its unit. */
export function decimalsOf(unit: string): number {
  if (unit === '°' || unit === 'mm') return 1;
  if (unit === 'f') return 0;
  return unit === 'm' || unit === '' ? 3 : 2;
}

/** A number at fixed decimals with a true minus sign; more of them only where it would not be told whole. */
export function shownNumber(value: number, decimals: number): string {
  if (!Number.isFinite(value)) return '—';
  const fixed = value.toFixed(decimals);
  return (Number(fixed) === 0 ? fixed.replace('-', '') : fixed).replace('-', '−');
}

/** Hours as a clock shows them: `6:40`. */
export function shownClock(hours: number): string {
  if (!Number.isFinite(hours)) return '—';
  const minutes = Math.round(Math.abs(hours) * 60);
  const sign = hours < 0 && minutes > 0 ? '−' : '';
  return `${sign}${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`;
}

/** A difference: with its sign, also when it is more. */
export function signedNumber(value: number, decimals: number): string {
  const text = shownNumber(value, decimals);
  return value > 0 ? `+${text}` : text;
}

/** A frame: whole without decimals, else with as many as it needs up to three. */
export function shownFrame(frame: number): string {
  return Number.isInteger(frame)
    ? shownNumber(frame, 0)
    : shownNumber(Number(frame.toFixed(3)), 3).replace(/0+$/, '');
}
