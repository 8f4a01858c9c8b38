import { DestroyRef, inject } from '@angular/core';
import type { Command } from './command';
import { CommandRegistry } from './registry';

/**
 * Commands that work by what is chosen or typed in a form: they are there as long as the component that offers them. To be called
 * where it is constructed, and of a component that is shown once only: ids are unique.
 */
export function offerCommands(commands: readonly Command[]): void {
  inject(DestroyRef).onDestroy(inject(CommandRegistry).add(commands));
}
