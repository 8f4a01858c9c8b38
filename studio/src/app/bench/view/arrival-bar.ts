import type { Progress } from '../../ui/progress';

/** Tells with a bar how many of a model's meshes are ready to be drawn; each share is told as it comes, the last one is 1. */
export function arrivalBar(progress: Progress): (share: number) => void {
  let bar: ReturnType<Progress['begin']> | null = null;
  return (share) => {
    bar ??= progress.begin('Drawing the model');
    bar.at(share);
    if (share < 1) return;
    bar.end();
    bar = null;
  };
}
