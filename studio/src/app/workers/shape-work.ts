import { bake, curveOf, simplify, type Project, type ShapeEdit } from '@kaizen/core';
import type { ShapeApi, Shaped } from './shape-api';

/** What the shape worker does: simplifies and bakes, and gives back the curves that changed. */
export const shapeWork: ShapeApi = {
  simplify: (project, refs, tolerance, progress) =>
    changed(
      project,
      refs.map(({ channel }) => channel),
      simplify(project, refs, tolerance, (share) => void progress(share)),
    ),
  bake: (project, channels, every, span, progress) =>
    changed(
      project,
      channels,
      bake(project, channels, every, span, (share) => void progress(share)),
    ),
};

function changed(before: Project, channels: readonly string[], { project, ...told }: ShapeEdit): Shaped {
  const curves = [...new Set(channels)].flatMap((channel) => {
    const curve = curveOf(project, channel);
    return curve && curve !== curveOf(before, channel) ? [curve] : [];
  });
  return { curves, ...told };
}
