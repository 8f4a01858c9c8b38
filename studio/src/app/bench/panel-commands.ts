import { Injectable, inject } from '@angular/core';
import type { Command } from '../commands/command';
import { Studio } from '../state/studio';
import { Panels } from './panels';

/** Commands of the panels: one of them full size, and the view that goes with what is chosen. */
@Injectable({ providedIn: 'root' })
export class PanelCommands {
  private readonly panels = inject(Panels);
  private readonly studio = inject(Studio);

  list(): readonly Command[] {
    return [
      {
        id: 'panel.full',
        label: 'The panel under the pointer full size, or all panels again',
        group: 'View',
        shortcuts: ['Z'],
        run: () => this.panels.toggleFull(),
      },
    ];
  }
}
