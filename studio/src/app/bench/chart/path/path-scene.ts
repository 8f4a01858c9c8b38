import { curveOf, type KeyRef, type Program, type Project } from '@kaizen/core';
import type { PathPlane } from './path-plane';

/** A path as it is drawn: two place channels of a part against each other. */
export interface PathScene {
  readonly plane: PathPlane;
  readonly project: Project;
  readonly program: Program;
  readonly channels: readonly [string, string];
}

/** A key of the path: a frame on which one of the two channels has a key, or both. */
export interface PathKeyAt {
  readonly frame: number;
  readonly refs: readonly KeyRef[];
}

/** The two values at a frame, in metres. */
export function placeAt(
  program: Program,
  channels: readonly [string, string],
  frame: number,
): readonly [number, number] {
  const value = (channel: string) => program.channelValue(program.structure.slots.get(channel) ?? 0, frame);
  return [value(channels[0]), value(channels[1])];
}

/** The path over the range, in quarters of frames. */
export function pathPoints(
  project: Project,
  program: Program,
  channels: readonly [string, string],
): readonly (readonly [number, number])[] {
  const { start, end } = project.range;
  const count = Math.min(4000, Math.max(1, Math.round((end - start) * 4)));
  return Array.from({ length: count + 1 }, (_, i) =>
    placeAt(program, channels, start + ((end - start) * i) / count),
  );
}

/** The keys of the path. */
export function pathKeys(project: Project, [a, b]: readonly [string, string]): readonly PathKeyAt[] {
  const curves = [curveOf(project, a), curveOf(project, b)] as const;
  const frames = [...new Set(curves.flatMap((curve) => (curve?.keys ?? []).map(({ frame }) => frame)))];
  return frames.map((frame) => {
    const refs = curves.flatMap((curve): KeyRef[] =>
      curve?.keys.some((key) => key.frame === frame) ? [{ channel: curve.channel, frame }] : [],
    );
    return { frame, refs };
  });
}
