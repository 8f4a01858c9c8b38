import { computed, Directive, effect, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { CommandRegistry } from './registry';

/**
 * A button that runs a command: whether it can be pressed, whether it is on, and its tooltip with the shortcut come from the command,
 * so that buttons, palette, keys and help say the same.
 */
@Directive({
  selector: 'button[kzRun]:not([mat-menu-item])',
  hostDirectives: [MatTooltip],
  host: {
    '[disabled]': '!usable()',
    '[attr.aria-pressed]': 'pressed()',
    '(click)': 'registry.run(id(), kzOf())',
  },
})
export class RunDirective {
  readonly registry = inject(CommandRegistry);
  /** The command's id. */
  readonly id = input.required<string>({ alias: 'kzRun' });
  /** What the command is told: which thing of a list it is about, or how it is meant here. */
  readonly kzOf = input<unknown>();
  /** What the tooltip says where the command's name is too short; its shortcut follows. */
  readonly kzTip = input('');
  readonly usable = computed(() => this.registry.applies(this.id(), this.kzOf()));
  readonly pressed = computed(() => this.registry.find(this.id())?.on?.(this.kzOf()) ?? null);

  constructor() {
    const tooltip = inject(MatTooltip);
    effect(() => (tooltip.message = this.registry.tip(this.id(), this.kzTip() || undefined)));
  }
}
