import { spawnSync } from 'node:child_process';

/** Runs the built command line, as `npx kaizen` does. */
export function kaizen(...args: readonly string[]): {
  readonly out: string;
  readonly err: string;
  readonly code: number | null;
} {
  const ran = spawnSync(process.execPath, ['cli/dist/kaizen.js', ...args], {
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  });
  return { out: ran.stdout, err: ran.stderr, code: ran.status };
}

/** One channel as `sample` prints it: values by frame. */
export function sampled(file: string, channel: string, frames: string): Map<number, number> {
  const { out, err, code } = kaizen('sample', file, '--channels', channel, '--frames', frames);
  if (code !== 0) throw new Error(err);
  const rows = out.trim().split('\n').slice(1);
  return new Map(rows.map((row) => row.split(',').map(Number) as [number, number]));
}

/** The values of a channel just after each of some frames and its speeds per second there. */
export function rates(
  file: string,
  channel: string,
  frames: string,
): Map<number, { value: number; speed: number }> {
  const { out } = kaizen('sample', file, '--channels', channel, '--frames', frames, '--rates');
  const rows = out.trim().split('\n').slice(1);
  return new Map(
    rows.map((row) => {
      const [frame, value, speed] = row.split(',').map(Number);
      return [frame!, { value: value!, speed: speed! }];
    }),
  );
}

type Matrices = Readonly<Record<string, readonly number[]>>;

/** Up to which frame a saved file is sampled in one go: these tests ask for none after it. */
const LAST_FRAME = 250;

/** What was sampled of each saved file; a file is never written twice. */
const worlds = new Map<string, readonly Matrices[]>();

function worldOf(file: string): readonly Matrices[] {
  const known = worlds.get(file);
  if (known) return known;
  const { out, err, code } = kaizen('sample', file, '--world', '--frames', `0:${LAST_FRAME}`);
  if (code !== 0) throw new Error(err);
  const lines = out.trim().split('\n');
  const world = lines.map((line) => (JSON.parse(line) as { parts: Matrices }).parts);
  worlds.set(file, world);
  return world;
}

/** A part's matrix in the world at a whole frame, column by column, as `sample --world` prints it. */
export function matrixOf(file: string, part: string, frame: number): readonly number[] {
  const matrix = worldOf(file)[frame]?.[part];
  if (!matrix) throw new Error(`${file} has no part ${part} at frame ${frame}`);
  return matrix;
}

/** The place of a part's origin in the world at a whole frame. */
export function placeOf(file: string, part: string, frame: number): readonly number[] {
  return matrixOf(file, part, frame).slice(12, 15);
}
