import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import type { Command } from '../commands/command';
import { CommandRegistry } from '../commands/registry';
import { RunDirective } from '../commands/run.directive';
import { shortcutOfEvent } from '../commands/shortcut';
import { GESTURES } from './gestures';

/** Every shortcut and gesture on one sheet; a shortcut is changed by pressing it and then the new keys. */
@Component({
  selector: 'kz-shortcuts',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, RunDirective],
  template: `
    <div class="head">
      <h2>Shortcuts</h2>
      <span class="soft">Press one to change it, then press the new keys; Esc leaves it as it was.</span>
      <button class="button" kzRun="help.reset-shortcuts" kzTip="Back to the shortcuts Kaizen came with">
        Reset all
      </button>
    </div>
    <div class="scroll" tabindex="0" cdkFocusInitial role="region" aria-label="List of shortcuts">
      <div class="sheet">
        @for (group of groups(); track group.name) {
          <section>
            <h3>{{ group.name }}</h3>
            @for (command of group.commands; track command.id) {
              <div class="row">
                <span>{{ command.label }}</span>
                <button
                  class="key numbers"
                  [class.changed]="registry.isChanged(command)"
                  [attr.aria-label]="'Shortcut of ' + command.label + ': ' + (shortcuts(command) || 'none')"
                  matTooltip="Change this shortcut"
                  (click)="waiting.set(command.id)"
                  (keydown)="onKey($event, command)"
                  (blur)="waiting.set(null)"
                >
                  {{ waiting() === command.id ? 'press keys' : shortcuts(command) || '–' }}
                </button>
              </div>
            }
          </section>
        }
        <section>
          <h3>By hand</h3>
          @for (gesture of gestures; track gesture.how) {
            <div class="row">
              <span>{{ gesture.what }}</span>
              <span class="soft">{{ gesture.how }}</span>
            </div>
          }
        </section>
      </div>
    </div>
  `,
  styles: `
    :host {
      display: block;
      padding: 16px 20px;
    }
    .head {
      display: flex;
      align-items: baseline;
      gap: 14px;
      margin-bottom: 10px;
    }
    .head .button {
      margin-left: auto;
    }
    h2 {
      font-size: 17px;
    }
    .scroll {
      max-height: 74vh;
      overflow-y: auto;
    }
    .sheet {
      columns: 3;
      column-gap: 28px;
    }
    section {
      break-inside: avoid-column;
      margin-bottom: 14px;
    }
    h3 {
      padding-bottom: 3px;
      border-bottom: 1px solid var(--rule);
      font-size: 13.5px;
    }
    .row {
      display: flex;
      justify-content: space-between;
      gap: 10px;
      align-items: center;
      min-height: 24px;
    }
    .row .soft {
      text-align: right;
    }
    .key {
      flex: none;
      min-width: 32px;
      height: 20px;
      padding: 0 6px;
      border: 1px solid var(--rule);
      border-radius: 4px;
      background: var(--field);
      color: var(--ink);
      font-size: 11px;
      cursor: pointer;
    }
    .changed {
      border-color: var(--select);
      color: var(--select);
    }
  `,
})
export class ShortcutsComponent {
  readonly registry = inject(CommandRegistry);
  readonly gestures = GESTURES;
  readonly waiting = signal<string | null>(null);
  readonly groups = computed(() => {
    const groups = new Map<string, Command[]>();
    for (const command of this.registry.commands()) {
      groups.set(command.group, [...(groups.get(command.group) ?? []), command]);
    }
    return [...groups].map(([name, commands]) => ({ name, commands }));
  });

  shortcuts(command: Command): string {
    return this.registry.shortcutsOf(command).join('  ');
  }

  onKey(event: KeyboardEvent, command: Command): void {
    if (this.waiting() !== command.id) return;
    const shortcut = shortcutOfEvent(event);
    if (shortcut === '') return;
    event.preventDefault();
    event.stopPropagation();
    this.waiting.set(null);
    if (event.key !== 'Escape') this.registry.setShortcut(command, shortcut);
  }
}
