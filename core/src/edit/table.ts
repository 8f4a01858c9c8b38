import type { Project, Rate } from '../project';
import { frameToSeconds, secondsToFrame } from '../project';
import { changeCurves, curveOf, framesByChannel, newKey, withKeys, type KeyRef } from './curves';

/** A row of a table of keys. */
export interface TableRow {
  readonly frame: number;
  readonly value: number;
}

/** What a pasted table was read as: its rows, whether its times are seconds, and the lines that were no numbers. */
export interface KeyTable {
  readonly rows: readonly TableRow[];
  readonly seconds: boolean;
  /** Lines, counted from 1, that were left out; a first line of words is a heading and is not among them. */
  readonly wrong: readonly number[];
}

/** Keys as a table for a spreadsheet: tab between columns, a heading, one row a frame, an empty cell where a channel has no key. */
export function keysAsTable(project: Project, refs: readonly KeyRef[]): string {
  const named = framesByChannel(refs);
  const channels = [...named.keys()];
  const values = channels.map((channel) => {
    const keys = curveOf(project, channel)?.keys ?? [];
    return new Map(keys.map(({ frame, value }) => [frame, value]));
  });
  const frames = [...new Set(refs.map(({ frame }) => frame))].sort((a, b) => a - b);
  const lines = frames.map((frame) => [
    frame,
    frameToSeconds(frame, project.rate),
    ...channels.map((channel, i) => (named.get(channel)!.has(frame) ? (values[i]!.get(frame) ?? '') : '')),
  ]);
  return [['frame', 'seconds', ...channels], ...lines].map((line) => line.join('\t')).join('\n') + '\n';
}

/**
 * Reads two columns, a time and a value, as spreadsheets copy them (tabs), or with semicolons, commas or spaces between. Decimal commas are read where
 * the columns are not parted by commas. Times are seconds where the heading says so or `seconds` is asked for, else frames.
 */
export function readKeyTable(text: string, rate: Rate, seconds?: boolean): KeyTable {
  const lines = text.split(/\r?\n/);
  const first = lines.findIndex((line) => line.trim() !== '');
  const heading =
    first >= 0 && cells(lines[first]!).every((cell) => Number.isNaN(number(cell))) ? lines[first]! : null;
  const columns = heading === null ? [] : cells(heading).map((cell) => cell.toLowerCase());
  const hasFrames = columns.some((name) => /^f(rame|$)/.test(name));
  const inSeconds = seconds ?? (!hasFrames && columns.some((name) => /^s(ec|$)|^t(ime|$)/.test(name)));
  const timeAt = Math.max(
    0,
    columns.findIndex((name) => (inSeconds ? /^s(ec|$)|^t(ime|$)/ : /^f(rame|$)/).test(name)),
  );
  const valueAt = hasFrames && columns.some((name) => /^s(ec|$)/.test(name)) ? 2 : timeAt + 1;
  const rows: TableRow[] = [];
  const wrong: number[] = [];
  lines.forEach((line, i) => {
    if (line.trim() === '' || line === heading) return;
    const numbers = cells(line).map(number);
    const [time = Number.NaN, value = Number.NaN] = [numbers[timeAt], numbers[valueAt]];
    if (Number.isNaN(time) || Number.isNaN(value)) wrong.push(i + 1);
    else rows.push({ frame: inSeconds ? secondsToFrame(time, rate) : time, value });
  });
  return { rows, seconds: inSeconds, wrong };
}

function cells(line: string): readonly string[] {
  const trimmed = line.trim();
  for (const mark of ['\t', ';'] as const)
    if (trimmed.includes(mark)) return trimmed.split(mark).map((cell) => cell.trim());
  return trimmed.includes(' ') ? trimmed.split(/,?\s+/) : trimmed.split(',');
}

function number(cell: string | undefined): number {
  if (cell === undefined || cell === '') return Number.NaN;
  return Number(cell.replace('−', '-').replace(',', '.'));
}

/** Keys a table on some channels, over what is there: a row takes the place of a key on its frame. */
export function keyTable(project: Project, channels: readonly string[], rows: readonly TableRow[]): Project {
  return changeCurves(project, channels, (curve) =>
    rows.length === 0
      ? curve
      : withKeys(curve, [...curve.keys, ...rows.map(({ frame, value }) => newKey(frame, value))]),
  );
}
