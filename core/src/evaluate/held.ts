import type { Project, Curve } from '../project';
import { activeClip, firstAfter } from '../project';

const framesOfCurves = new WeakMap<readonly Curve[], Float64Array>();

/** All frames on which the active clip has a key, each once, in order. Muted curves do not count. */
function keyFrames(project: Project): Float64Array {
  const curves = activeClip(project)?.curves ?? [];
  let frames = framesOfCurves.get(curves);
  if (!frames) {
    const all = new Set(
      curves.filter(({ muted }) => !muted).flatMap(({ keys }) => keys.map(({ frame }) => frame)),
    );
    frames = Float64Array.from(all).sort();
    framesOfCurves.set(curves, frames);
  }
  return frames;
}

/**
 * Poses held: the frame whose picture a frame shows while the shot is seen as stills, the last one at or before it on which anything has a key.
 * Before the first key, and in the span that is released, every frame shows itself.
 */
export function heldFrame(
  project: Project,
  frame: number,
  released: { readonly start: number; readonly end: number } | null = null,
): number {
  if (released && frame >= released.start && frame <= released.end) return frame;
  const frames = keyFrames(project);
  const after = firstAfter(frames, frame);
  return after === 0 ? frame : frames[after - 1]!;
}
