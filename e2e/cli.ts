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

/** The place of a part's origin in the world at a frame, as `sample --world` prints it. */
export function placeOf(file: string, part: string, frame: number): readonly number[] {
  const { out, err, code } = kaizen('sample', file, '--world', '--frames', `${frame}:${frame}`);
  if (code !== 0) throw new Error(err);
  const { parts } = JSON.parse(out.trim().split('\n')[0]!) as { parts: Record<string, readonly number[]> };
  return parts[part]!.slice(12, 15);
}
