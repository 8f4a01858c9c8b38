import { Directive, effect, inject, input } from '@angular/core';
import { MatMenuItem } from '@angular/material/menu';
import { MatTooltip } from '@angular/material/tooltip';
import { CommandRegistry } from './registry';

/** An entry of a menu that runs a command: whether it can be chosen, and its shortcut beside it, come from the command. */
@Directive({
  selector: 'button[mat-menu-item][kzRun]',
  hostDirectives: [MatTooltip],
  host: { '(click)': 'registry.run(kzRun(), kzOf())' },
})
export class MenuRunDirective {
  readonly registry = inject(CommandRegistry);
  /** The command's id. */
  readonly kzRun = input.required<string>();
  /** What the command is told: which thing of a list it is about, or how it is meant here. */
  readonly kzOf = input<unknown>();

  constructor() {
    const [item, tooltip] = [inject(MatMenuItem), inject(MatTooltip)];
    tooltip.position = 'after';
    effect(() => (item.disabled = !this.registry.applies(this.kzRun(), this.kzOf())));
    effect(() => (tooltip.message = this.registry.tip(this.kzRun())));
  }
}
