import { Injectable, inject } from '@angular/core';
import { curveOf, dropTake, keepTake, ownerOf, switchTake, type Project } from '@kaizen/core';
import type { Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { ShapeTools } from './shape-tools';

/** Commands of second takes: of the chosen channels one is kept, the two change places, the other is let go. */
@Injectable({ providedIn: 'root' })
export class TakeCommands {
  private readonly studio = inject(Studio);
  private readonly tools = inject(ShapeTools);

  /** The chosen channels, a weight’s as the channel it is of. */
  private channels(): readonly string[] {
    return [...new Set(this.tools.channels().map(ownerOf))];
  }

  list(): readonly Command[] {
    const editable = () => !this.studio.readOnly() && this.channels().length > 0;
    const hasTake = () => {
      const project = this.studio.project();
      return editable() && this.channels().some((channel) => project && curveOf(project, channel)?.otherTake);
    };
    const take = (
      id: string,
      label: string,
      when: () => boolean,
      edit: (project: Project, channels: readonly string[]) => Project,
    ): Command => ({
      id,
      label,
      group: 'Shape',
      when,
      run: () => {
        const channels = this.channels();
        this.studio.edit(label, (project) => edit(project, channels));
        this.studio.pick({ channels });
      },
    });
    return [
      take('take.keep', 'Keep a second take', editable, keepTake),
      take('take.switch', 'Switch takes', hasTake, switchTake),
      take('take.drop', 'Drop the other take', hasTake, dropTake),
    ];
  }
}
