import type { Vec3 } from '../../project';
import { TrackedPoints, type Program } from '../../evaluate';

/** The frames `start + i·step`, the end included within 1e-9. */
export function frameList(start: number, end: number, step = 1): number[] {
  const count = Math.floor((end - start) / step + 1e-9 / Math.abs(step)) + 1;
  return Array.from({ length: Math.max(0, count) }, (_, i) => start + i * step);
}

export interface CsvOptions {
  readonly frames: readonly number[];
  readonly channels: readonly string[];
  /** Adds `:velocity`, `:acceleration`, `:jerk`, per second, after each channel. */
  readonly rates?: boolean;
}

/**
 * CSV lines of channels over frames: header first, LF after each, numbers in the shortest form that reads back to
 * the same double, a value that is not finite an empty cell (contract §9).
 */
export function* csvLines(program: Program, options: CsvOptions): Generator<string> {
  const { channels, rates = false } = options;
  const names = channels.flatMap((name) =>
    rates ? [name, `${name}:velocity`, `${name}:acceleration`, `${name}:jerk`] : [name],
  );
  yield ['frame', ...names].map(cell).join(',') + '\n';
  const slots = channels.map((name) => {
    const slot = program.structure.slots.get(name);
    if (slot === undefined) throw new RangeError(`no channel ${name}`);
    return slot;
  });
  const text = columnTexts(names.length);
  const out = program.createOutput();
  for (const frame of options.frames) {
    let line = csvNumber(frame);
    let column = 0;
    if (rates)
      for (const slot of slots)
        for (const number of program.channelRates(slot, frame)) line += `,${text(column++, number)}`;
    else {
      program.run(frame, out);
      for (const slot of slots) line += `,${text(column++, out.channels[slot]!)}`;
    }
    yield `${line}\n`;
  }
}

/** Numbers in columns as text; one that is the same as in the row before, as where a channel rests, is not written out again. */
function columnTexts(columns: number): (column: number, number: number) => string {
  const numbers = new Float64Array(columns).fill(Number.NaN);
  const texts = Array.from({ length: columns }, () => '');
  return (column, number) => {
    if (number !== numbers[column]) {
      numbers[column] = number;
      texts[column] = csvNumber(number);
    }
    return texts[column]!;
  };
}

/**
 * CSV lines of the world places of points, which are given in the own space of a part's undeformed mesh: `frame,1.x,1.y,1.z,2.x,…`.
 * `part` is the part's place in the file.
 */
export function* pointLines(
  program: Program,
  frames: readonly number[],
  points: readonly { readonly part: number; readonly at: Vec3 }[],
): Generator<string> {
  const names = points.flatMap((_, i) => ['x', 'y', 'z'].map((axis) => `${i + 1}.${axis}`));
  yield ['frame', ...names].join(',') + '\n';
  const out = program.createOutput();
  const tracked = new TrackedPoints(program, points);
  const places = new Float64Array(points.length * 3);
  for (const frame of frames) {
    program.run(frame, out);
    tracked.read(out, places);
    yield [frame, ...places].map(csvNumber).join(',') + '\n';
  }
}

/** The shortest text that reads back to the same double; zero never negative, what is not finite an empty cell. */
export function csvNumber(value: number): string {
  return Number.isFinite(value) ? String(value === 0 ? 0 : value) : '';
}

function cell(text: string): string {
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

/** JSON lines of world matrices: `{"frame":0,"parts":{"<id>":[16 numbers]}}`, parts in file order. */
export function* worldLines(program: Program, frames: readonly number[]): Generator<string> {
  const out = program.createOutput();
  for (const frame of frames) {
    program.run(frame, out);
    const parts = Object.fromEntries(
      program.structure.parts.map((part, i) => [part.id, Array.from(out.world[i]!, plain)]),
    );
    yield JSON.stringify({ frame, parts }) + '\n';
  }
}

function plain(value: number): number {
  return value === 0 ? 0 : value;
}
