import { Injectable, inject } from '@angular/core';
import { OUTSIDE_MODES, setOutside } from '@kaizen/core';
import type { Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { OUTSIDE_LABELS } from '../stage/words';
import { ShapeTools } from './shape-tools';

/** What the chosen channels do before their first and after their last key, each by a command of its own. */
@Injectable({ providedIn: 'root' })
export class OutsideCommands {
  private readonly studio = inject(Studio);
  private readonly tools = inject(ShapeTools);

  list(): readonly Command[] {
    const when = () => !this.studio.readOnly() && this.tools.channels().length > 0;
    return (['before', 'after'] as const).flatMap((end) =>
      OUTSIDE_MODES.map((mode): Command => {
        const label = `${end === 'before' ? 'Before' : 'After'} the keys: ${OUTSIDE_LABELS[mode]}`;
        return {
          id: `outside.${end}-${mode}`,
          label,
          group: 'Shape',
          when,
          run: () => {
            const channels = this.tools.channels();
            this.studio.edit(label, (project) => setOutside(project, channels, end, { mode }));
          },
        };
      }),
    );
  }
}
