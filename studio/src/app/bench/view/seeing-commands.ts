import { Injectable, inject } from '@angular/core';
import { withDescendants } from '@kaizen/core';
import type { Command } from '../../commands/command';
import type { Seeing } from '../../state/bench';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';

/** What shows in the view while one works, and what can be picked in it: only the chosen parts, hidden ones, locked ones. */
@Injectable({ providedIn: 'root' })
export class SeeingCommands {
  private readonly studio = inject(Studio);
  private readonly notices = inject(Notices);

  list(): readonly Command[] {
    return [
      this.switched('alone', {
        id: 'view.alone',
        label: 'Only the chosen parts in the view, or all again',
        shortcuts: ['Shift+O'],
      }),
      this.switched('hidden', {
        id: 'view.hide',
        label: 'Hide the chosen parts while working, or show them again',
        shortcuts: ['Shift+I'],
      }),
      this.switched('locked', {
        id: 'view.lock',
        label: 'Lock the chosen parts against being picked in the view, or unlock them',
        shortcuts: ['Shift+L'],
      }),
      {
        id: 'select.below',
        label: 'Choose all that rides on the chosen parts too',
        group: 'Select',
        shortcuts: ['Ctrl+Shift+A'],
        when: () => this.studio.bench().parts.length > 0,
        run: () => this.chooseBelow(),
      },
    ];
  }

  /** `item` is the part whose row's button was pressed; by key and palette the chosen ones are meant. */
  private switched(name: keyof Seeing, command: Pick<Command, 'id' | 'label' | 'shortcuts'>): Command {
    const meant = (item: unknown) => (typeof item === 'string' ? [item] : this.studio.bench().parts);
    const isOn = (item: unknown) => {
      const parts = meant(item);
      const list = this.studio.bench().seeing[name];
      return name === 'alone' ? list.length > 0 : parts.length > 0 && parts.every((id) => list.includes(id));
    };
    return {
      ...command,
      group: 'View',
      when: (item) => meant(item).length > 0 || this.studio.bench().seeing[name].length > 0,
      on: isOn,
      run: (item) => {
        const parts = meant(item);
        const { seeing } = this.studio.bench();
        const next = isOn(item)
          ? seeing[name].filter((id) => name !== 'alone' && !parts.includes(id))
          : [...new Set([...(name === 'alone' ? [] : seeing[name]), ...parts])];
        this.studio.set({ seeing: { ...seeing, [name]: next } });
        if (name === 'alone' && next.length > 0)
          this.notices.tell(
            'Only the chosen parts show in the view; the shot itself is as it was. Shift+O shows all again',
          );
      },
    };
  }

  private chooseBelow(): void {
    const project = this.studio.project();
    if (!project) return;
    const below = this.studio.bench().parts.flatMap((id) => withDescendants(project.parts, id));
    this.studio.pick({ parts: [...new Set(below)], channels: [], keys: [], handles: [] });
  }
}
