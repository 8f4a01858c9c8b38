import { Injectable, inject } from '@angular/core';
import type { Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { Stage } from '../stage';
import { RulerTools } from './ruler-tools';

/** Commands of the ruler: markers, and stepping from one to the next. */
@Injectable({ providedIn: 'root' })
export class RulerCommands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly tools = inject(RulerTools);

  list(): readonly Command[] {
    const step = (way: 1 | -1) => () => {
      const frame = this.tools.neighbour(this.stage.frame(), way);
      if (frame !== null) this.stage.goTo(frame);
    };
    const hasMarkers = () => this.tools.markers().length > 0;
    return [
      {
        id: 'ruler.marker',
        label: 'Add a marker or note at the playhead',
        group: 'Time',
        shortcuts: ['N'],
        when: () => !this.studio.readOnly(),
        run: () => this.tools.add(),
      },
      {
        id: 'ruler.next',
        label: 'Next marker',
        group: 'Play',
        shortcuts: ['.'],
        when: hasMarkers,
        run: step(1),
      },
      {
        id: 'ruler.previous',
        label: 'Previous marker',
        group: 'Play',
        shortcuts: [','],
        when: hasMarkers,
        run: step(-1),
      },
    ];
  }
}
