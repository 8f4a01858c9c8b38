import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import type { Command } from '../commands/command';
import { CommandRegistry } from '../commands/registry';
import { ProjectFile } from '../open/project-file';
import { Opener } from '../open/opener';
import { Studio } from '../state/studio';
import { HeldKeys } from '../ui/held-keys';
import { Notices } from '../ui/notices';
import { Theme } from '../ui/theme';

/** Commands that exist on every screen. */
@Injectable({ providedIn: 'root' })
export class AppCommands {
  private readonly studio = inject(Studio);
  private readonly file = inject(ProjectFile);
  private readonly theme = inject(Theme);
  private readonly router = inject(Router);
  private readonly opener = inject(Opener);
  private readonly registry = inject(CommandRegistry);
  private readonly dialog = inject(MatDialog);
  private readonly notices = inject(Notices);

  list(): readonly Command[] {
    const open = () => this.studio.project() !== null;
    const canUndo = () => !this.studio.readOnly() && this.studio.undoLabel() !== null;
    const canRedo = () => !this.studio.readOnly() && this.studio.redoLabel() !== null;
    const go = (screen: string) => () =>
      void this.router.navigate(['/', screen, this.studio.project()?.id ?? '']);
    return [
      {
        id: 'project.undo',
        label: 'Undo',
        group: 'Project',
        shortcuts: ['Ctrl+Z'],
        when: canUndo,
        run: () => {
          this.notices.clear();
          this.studio.undo();
        },
      },
      {
        id: 'project.redo',
        label: 'Redo',
        group: 'Project',
        shortcuts: ['Ctrl+Shift+Z', 'Ctrl+Y'],
        when: canRedo,
        run: () => {
          this.notices.clear();
          this.studio.redo();
        },
      },
      {
        id: 'project.open',
        label: 'Open a project or bring a model',
        group: 'Project',
        shortcuts: ['Ctrl+O'],
        run: () => void this.opener.choose(),
      },
      {
        id: 'project.new',
        label: 'New, empty project',
        group: 'Project',
        run: () => void this.opener.openNew(),
      },
      {
        id: 'project.save',
        label: 'Save as .kaizen.json',
        group: 'Project',
        shortcuts: ['Ctrl+S'],
        when: open,
        run: () => this.file.save('json'),
      },
      {
        id: 'project.save-zip',
        label: 'Save as .kaizen.zip',
        group: 'Project',
        when: open,
        run: () => this.file.save('zip'),
      },
      {
        id: 'project.list',
        label: 'Go to Projects',
        group: 'Project',
        run: () => void this.router.navigate(['/projects']),
      },
      { id: 'project.bench', label: 'Go to the Bench', group: 'Project', when: open, run: go('bench') },
      {
        id: 'project.drivetrain',
        label: 'Go to the Drivetrain: what drives what',
        group: 'Project',
        when: open,
        run: go('drivetrain'),
      },
      {
        id: 'project.timing',
        label: 'Timing sheet: what moves when, what waits for what; to print',
        group: 'Project',
        when: open,
        run: go('timing'),
      },
      {
        id: 'project.hand-over',
        label: 'Go to Hand over',
        group: 'Project',
        when: open,
        run: go('hand-over'),
      },
      {
        id: 'view.theme',
        label: 'Day or night',
        group: 'View',
        shortcuts: ['Ctrl+Shift+L'],
        run: () => this.theme.toggle(),
      },
      {
        id: 'help.palette',
        label: 'Find a command',
        group: 'Help',
        shortcuts: ['Ctrl+K', '/'],
        run: () => this.openPalette(),
      },
      {
        id: 'help.shortcuts',
        label: 'All shortcuts',
        group: 'Help',
        shortcuts: ['?'],
        run: () => this.openShortcuts(),
      },
      {
        id: 'help.reset-shortcuts',
        label: 'All shortcuts as Kaizen came with them',
        group: 'Help',
        when: () => this.registry.commands().some((command) => this.registry.isChanged(command)),
        run: () => this.registry.resetShortcuts(),
      },
    ];
  }

  private openPalette(): void {
    const held = new HeldKeys();
    const loaded = import('./palette.component');
    loaded.catch(() => held.release());
    void loaded.then(({ PaletteComponent }) => {
      if (held.gaveUp) return;
      const palette = this.dialog.open(PaletteComponent, {
        width: '560px',
        maxWidth: '94vw',
        position: { top: '64px' },
        ariaLabel: 'Find a command',
        data: held,
      });
      held.onGiveUp = () => palette.close();
    });
  }

  private openShortcuts(): void {
    void import('./shortcuts.component').then(({ ShortcutsComponent }) =>
      this.dialog.open(ShortcutsComponent, { width: '1060px', maxWidth: '94vw', ariaLabel: 'Shortcuts' }),
    );
  }
}
