import { Injectable, inject } from '@angular/core';
import type { Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { SHEETS } from '../side-sheet/sheets';
import { Panels } from '../stage/panels';

/** Commands of the panels: one of them full size, and each tab of the side sheet. */
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
      ...SHEETS.map(({ id, label }): Command => ({
        id: `sheet.${id}`,
        label: `Side sheet: ${label}`,
        group: 'View',
        run: () => this.studio.set({ sheet: id }),
      })),
    ];
  }
}
