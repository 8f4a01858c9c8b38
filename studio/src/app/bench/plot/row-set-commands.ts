import { Injectable, inject } from '@angular/core';
import { onItem, type Command } from '../../commands/command';
import { RowSets } from './row-sets';

/** Named sets of rows: shown alone, let go of. Keys and palette mean the set that shows, else the one kept last. */
@Injectable({ providedIn: 'root' })
export class RowSetCommands {
  private readonly sets = inject(RowSets);

  list(): readonly Command[] {
    const meant = () => (this.sets.current() ?? this.sets.all().at(-1))?.name ?? null;
    return [
      onItem<string>({
        id: 'rows.set-show',
        label: 'Only the rows of the set kept last, or all again',
        group: 'Chart',
        meant,
        on: (name) => this.sets.current()?.name === name,
        run: (name) => this.sets.show(name),
      }),
      onItem<string>({
        id: 'rows.set-remove',
        label: 'Let go of the set of rows that shows; the rows stay',
        group: 'Chart',
        meant: () => this.sets.current()?.name ?? null,
        run: (name) => this.sets.remove(name),
      }),
    ];
  }
}
