import { computed, Injectable, inject } from '@angular/core';
import { splitChannel } from '@kaizen/core';
import type { RowSet } from '../../state/bench';
import { Studio } from '../../state/studio';
import { namedChannels } from '../stage/picking';
import { ChartModel } from './chart-model';

/** Sets of rows that were given a name: one of them can be all that shows. */
@Injectable({ providedIn: 'root' })
export class RowSets {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);

  readonly all = computed(() => this.studio.bench().rowSets);
  readonly current = computed(
    () => this.all().find(({ name }) => name === this.studio.bench().rowSet) ?? null,
  );

  /** The channels that a new set would have: those chosen, or with rows of the chosen parts, else all that have rows. */
  readonly chosen = computed((): readonly string[] => {
    const bench = this.studio.bench();
    const named = namedChannels(bench);
    if (named.length > 0) return named;
    const rows = this.model.rows().flatMap((row) => (row.kind === 'channel' ? [row.id] : []));
    const parts = new Set(bench.parts);
    const ofParts = rows.filter((channel) => parts.has(splitChannel(channel).part));
    return ofParts.length > 0 ? ofParts : rows;
  });

  /** What a new set is called where no name is given: by its parts, told apart from those there are. */
  nameOffered(): string {
    const parts = [...new Set(this.chosen().map((channel) => splitChannel(channel).part))];
    const first = this.studio.project()?.parts.find(({ id }) => id === parts[0])?.name ?? 'Rows';
    const plain = parts.length > 1 ? `${first} and ${parts.length - 1} more` : first;
    const taken = new Set(this.all().map(({ name }) => name));
    for (let i = 2, name = plain; ; name = `${plain} ${i++}`) if (!taken.has(name)) return name;
  }

  /** Keeps what is chosen under a name, in place of a set that has it, and shows it. */
  keep(name: string): void {
    const channels = this.chosen();
    if (channels.length === 0) return;
    const others = this.all().filter((set) => set.name !== name);
    const rowSets: readonly RowSet[] = [...others, { name, channels }];
    this.studio.set({ rowSets, rowSet: name });
  }

  /** Shows a set alone, or all rows where it shows already. */
  show(name: string): void {
    this.studio.set({ rowSet: this.studio.bench().rowSet === name ? null : name });
  }

  remove(name: string): void {
    const { rowSet } = this.studio.bench();
    this.studio.set({
      rowSets: this.all().filter((set) => set.name !== name),
      rowSet: rowSet === name ? null : rowSet,
    });
  }
}
