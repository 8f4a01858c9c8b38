import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import type { Command } from '../commands/command';
import { CommandRegistry } from '../commands/registry';
import type { HeldKeys } from '../ui/held-keys';

/** The searchable list of every command there is now, with its shortcut. */
@Component({
  selector: 'kz-palette',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      #field
      class="input"
      type="text"
      role="combobox"
      aria-expanded="true"
      aria-controls="palette-list"
      aria-label="Find a command"
      placeholder="Type what you want to do"
      [attr.aria-activedescendant]="'command-' + at()"
      (input)="search($any($event.target).value)"
      (keydown)="onKey($event)"
      cdkFocusInitial
    />
    <div id="palette-list" role="listbox" aria-label="Commands" tabindex="-1">
      @for (command of found(); track command.id; let i = $index) {
        <div
          role="option"
          tabindex="-1"
          [id]="'command-' + i"
          [attr.aria-selected]="i === at()"
          [class.off]="!usable(command)"
          (click)="run(command)"
          (keydown.enter)="run(command)"
          (pointermove)="point($event, i)"
        >
          <span>{{ command.label }}</span>
          <span class="soft">{{ command.group }}</span>
          <kbd class="numbers">{{ registry.shortcutsOf(command)[0] }}</kbd>
        </div>
      } @empty {
        <p class="soft">No command is called that. Try “key”, “loop” or “fit”.</p>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      padding: 12px;
    }
    .input {
      height: 34px;
      font-size: 15px;
    }
    [role='listbox'] {
      margin-top: 8px;
      height: 380px;
      overflow-y: auto;
    }
    [role='option'] {
      display: grid;
      grid-template-columns: 1fr 70px 110px;
      gap: 8px;
      align-items: center;
      height: 28px;
      padding: 0 8px;
      border-radius: 4px;
      cursor: pointer;
    }
    [role='option'] span {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    [role='option'][aria-selected='true'] {
      background: var(--select-ground);
      color: var(--select);
    }
    .off {
      opacity: 0.6;
    }
    kbd {
      justify-self: end;
      font-size: 12px;
    }
    p {
      padding: 8px;
    }
  `,
})
export class PaletteComponent {
  readonly registry = inject(CommandRegistry);
  private readonly dialog = inject<MatDialogRef<PaletteComponent>>(MatDialogRef);
  private readonly text = signal('');
  private readonly held = inject<HeldKeys>(MAT_DIALOG_DATA);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  readonly at = signal(0);
  readonly found = computed(() => {
    const words = this.text().toLowerCase().split(/\s+/).filter(Boolean);
    const matching = this.registry.commands().filter((command) => {
      const name = `${command.label} ${command.group}`.toLowerCase();
      return words.every((word) => name.includes(word));
    });
    const [first = ''] = words;
    // What can be done now comes first, of that what begins with the first word.
    const rank = (command: Command) =>
      (this.usable(command) ? 0 : 2) + (command.label.toLowerCase().startsWith(first) ? 0 : 1);
    return [...matching].sort((a, b) => rank(a) - rank(b));
  });

  constructor() {
    afterNextRender(() => this.takeHeld());
  }

  /** What was typed before the field was there stands in it now. */
  private takeHeld(): void {
    const { held } = this;
    held.release();
    if (held.gaveUp) return;
    const field = this.field().nativeElement;
    field.focus();
    field.value = held.text;
    this.search(held.text);
    const [first] = this.found();
    if (!held.entered || !first || !this.usable(first)) return;
    this.dialog.afterClosed().subscribe(() => held.pressLater());
    this.run(first);
  }

  usable(command: Command): boolean {
    return command.when?.() ?? true;
  }

  search(text: string): void {
    this.text.set(text);
    this.at.set(0);
  }

  /** The pointer chooses only as it moves: a list that comes up under one that rests is not pointed at. */
  point({ movementX, movementY }: PointerEvent, i: number): void {
    if (movementX !== 0 || movementY !== 0) this.at.set(i);
  }

  onKey(event: KeyboardEvent): void {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step !== undefined) {
      event.preventDefault();
      const count = Math.max(1, this.found().length);
      this.at.update((at) => (at + step + count) % count);
      document.getElementById(`command-${this.at()}`)?.scrollIntoView({ block: 'nearest' });
    }
    const command = this.found()[this.at()];
    if (event.key === 'Enter' && command) this.run(command);
  }

  run(command: Command): void {
    if (!this.usable(command)) return;
    this.dialog.close();
    command.run();
  }
}
