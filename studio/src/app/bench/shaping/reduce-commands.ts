import { Injectable, inject } from '@angular/core';
import type { Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { Reduce } from './reduce';
import { ShapeTools } from './shape-tools';

/** Fewer keys, or a key every so many frames, by the numbers of the sheet Curve; and what is done with what came out. */
@Injectable({ providedIn: 'root' })
export class ReduceCommands {
  private readonly studio = inject(Studio);
  private readonly tools = inject(ShapeTools);
  private readonly reduce = inject(Reduce);

  list(): readonly Command[] {
    const { reduce } = this;
    const isFree = () =>
      !this.studio.readOnly() && reduce.progress() === null && this.tools.channels().length > 0;
    const command = (id: string, label: string, when: () => boolean, run: () => unknown): Command => ({
      id,
      label,
      group: 'Shape',
      when,
      run: () => void run(),
    });
    const isShown = () => reduce.shown() !== null;
    return [
      command(
        'curve.simplify',
        'Simplify the chosen curves: the fewest keys within a tolerance',
        isFree,
        () => reduce.simplify(reduce.within()),
      ),
      command('curve.bake', 'Bake the chosen curves: a key every so many frames', isFree, () =>
        reduce.bake(reduce.every()),
      ),
      command(
        'curve.give-up',
        'Give up simplifying or baking',
        () => reduce.progress() !== null,
        () => reduce.cancel(),
      ),
      command('curve.apply', 'Keep the simplified or baked curves that are shown', isShown, () =>
        reduce.apply(),
      ),
      command('curve.discard', 'Leave the curves as they were', isShown, () => reduce.discard()),
    ];
  }
}
