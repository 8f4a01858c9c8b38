import { activeClip, curvesOf, curvesOfPart, eachKey, type Curve, type Project } from '@kaizen/core';
import type { BenchState } from '../../state/bench';

/** The curves that stepping from key to key goes by: of the chosen channels, else of the chosen parts, else all. */
function steppedCurves(project: Project, bench: Pick<BenchState, 'channels' | 'parts'>): readonly Curve[] {
  const chosen = curvesOf(project, bench.channels);
  if (chosen.length > 0) return chosen;
  const ofParts = project.parts
    .filter((part) => bench.parts.includes(part.id))
    .flatMap((part) => curvesOfPart(project, part));
  return ofParts.length > 0 ? ofParts : (activeClip(project)?.curves ?? []);
}

/** The frame of the nearest key before or after a frame, or null. */
export function neighbourKeyFrame(
  project: Project,
  bench: Pick<BenchState, 'channels' | 'parts'>,
  frame: number,
  way: 1 | -1,
): number | null {
  let nearest: number | null = null;
  for (const curve of steppedCurves(project, bench))
    eachKey(curve, (at) => {
      const isBeyond = (at - frame) * way > 1e-6;
      if (isBeyond && (nearest === null || (nearest - at) * way > 0)) nearest = at;
    });
  return nearest;
}
