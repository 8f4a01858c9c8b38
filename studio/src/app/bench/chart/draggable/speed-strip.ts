import { curvesOf, type Curve, type Project } from '@kaizen/core';
import { MOST_BY_ONE } from '../../plot/crowd/crowds';
import type { Strip } from '../../plot/plot';

/** The curves that can be reshaped in a strip: of a strip of speed those that are not locked, while they are drawn one by one. */
export function openCurves(project: Project, strip: Strip | null): readonly Curve[] {
  if (strip?.order !== 1 || strip.channels.length > MOST_BY_ONE) return [];
  return curvesOf(project, strip.channels).filter(({ locked }) => !locked);
}
