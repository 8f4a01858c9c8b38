import { Injectable } from '@angular/core';
import type { Program, Project } from '@kaizen/core';

/** A small curve in pixels, and so many places it is read at. */
const [WIDTH, HEIGHT, COUNT] = [48, 14, 25] as const;

/** Channels over the range as small curves, each read once as long as the project's motion is the same. */
@Injectable({ providedIn: 'root' })
export class Sparks {
  private readonly drawn = new WeakMap<Program, Map<string, string>>();

  path(program: Program, { start, end }: Project['range'], channel: string): string {
    let paths = this.drawn.get(program);
    if (!paths) this.drawn.set(program, (paths = new Map<string, string>()));
    const name = `${start} ${end} ${channel}`;
    let path = paths.get(name);
    if (path === undefined) paths.set(name, (path = draw(program, start, end, channel)));
    return path;
  }
}

function draw(program: Program, start: number, end: number, channel: string): string {
  const slot = program.structure.slots.get(channel);
  if (slot === undefined) return '';
  const values = Array.from({ length: COUNT }, (_, i) =>
    program.channelValue(slot, start + ((end - start) * i) / (COUNT - 1)),
  );
  const known = values.filter((value) => Number.isFinite(value));
  const [low, high] = [Math.min(...known), Math.max(...known)];
  const size = high - low || 1;
  const points = values.flatMap((value, i) =>
    Number.isFinite(value)
      ? [`${((i / (COUNT - 1)) * WIDTH).toFixed(1)} ${(HEIGHT - ((value - low) / size) * HEIGHT).toFixed(1)}`]
      : [],
  );
  return high === low ? `M0 ${HEIGHT / 2}H${WIDTH}` : `M${points.join('L')}`;
}
