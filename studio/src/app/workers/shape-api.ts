import type { Curve, KeyRef, Project, Span } from '@kaizen/core';

/** What many keys become: the curves that changed, and how far they are off where they are farthest. */
export interface Shaped {
  readonly curves: readonly Curve[];
  readonly keysBefore: number;
  readonly keysAfter: number;
  readonly error: number;
  readonly at: KeyRef | null;
}

/** Work on many keys that takes longer than a frame. `progress` is told a share from 0 to 1. */
export interface ShapeApi {
  simplify(
    project: Project,
    refs: readonly KeyRef[],
    tolerance: number,
    progress: (share: number) => void | Promise<void>,
  ): Shaped;
  bake(
    project: Project,
    channels: readonly string[],
    every: number,
    span: Span,
    progress: (share: number) => void | Promise<void>,
  ): Shaped;
}
