import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { MatTooltip } from '@angular/material/tooltip';
import { activeClip } from '@kaizen/core';
import { CommandRegistry } from '../../commands/registry';
import type { RowFilter } from '../../state/bench';
import { Studio } from '../../state/studio';
import { ChartModel } from './chart-model';

/** The row over the Chart: which rows show, whether keys stay on whole frames, fitting. */
@Component({
  selector: 'kz-filter-row',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatIcon, MatTooltip],
  template: `
    <label class="search">
      <mat-icon svgIcon="search" />
      <input
        class="input"
        type="search"
        placeholder="Filter rows"
        aria-label="Filter rows by name"
        matTooltip="Parts and channels whose names have these words"
        [value]="model.search()"
        (input)="model.search.set($any($event.target).value)"
        (keydown)="onKey($event)"
      />
    </label>
    @for (filter of filters(); track filter.id) {
      <button
        class="chip"
        [attr.aria-pressed]="studio.bench().filter === filter.id"
        [matTooltip]="filter.tip"
        (click)="studio.set({ filter: filter.id })"
      >
        {{ filter.label }}
        @if (filter.count !== null) {
          <span class="numbers">{{ filter.count }}</span>
        }
      </button>
    }
    <button
      class="button toggle"
      [attr.aria-pressed]="studio.bench().everyChannel"
      matTooltip="Also the channels that nothing moves yet"
      (click)="studio.set({ everyChannel: !studio.bench().everyChannel })"
    >
      Every channel
    </button>
    <span class="space"></span>
    <button
      class="button"
      [matTooltip]="registry.tip('key.here', 'Key the chosen channels or part at the playhead')"
      [disabled]="studio.readOnly()"
      (click)="registry.run('key.here')"
    >
      Key here
    </button>
    <button
      class="button toggle"
      [attr.aria-pressed]="studio.bench().wholeFrames"
      matTooltip="Keys and playhead land on whole frames"
      (click)="studio.set({ wholeFrames: !studio.bench().wholeFrames })"
    >
      Whole frames
    </button>
    <div class="choice" role="group" aria-label="Fit">
      <button [matTooltip]="registry.tip('fit.selection')" (click)="model.fitSelection()">Fit</button>
      <button [matTooltip]="registry.tip('fit.all')" (click)="model.fitAll()">All</button>
      <button [matTooltip]="registry.tip('fit.time')" (click)="model.fitTime()">Time</button>
      <button [matTooltip]="registry.tip('fit.value')" (click)="model.fitValue()">Value</button>
    </div>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 8px;
      height: 38px;
      padding: 0 12px;
      border-top: 1px solid var(--rule);
      border-bottom: 1px solid var(--rule);
      background: var(--paper);
      overflow: hidden;
    }
    .search {
      position: relative;
      flex: 0 1 170px;
      min-width: 90px;
    }
    .search mat-icon {
      position: absolute;
      left: 8px;
      top: 6px;
      width: 14px;
      height: 14px;
      color: var(--ink-soft);
    }
    .search .input {
      padding-left: 27px;
    }
    .space {
      flex: 1;
    }
  `,
})
export class FilterRowComponent {
  readonly studio = inject(Studio);
  readonly model = inject(ChartModel);
  readonly registry = inject(CommandRegistry);
  readonly filters = computed(() => {
    const project = this.studio.project();
    const { parts, channels } = this.studio.bench();
    const keyed = project ? (activeClip(project)?.curves.length ?? 0) : 0;
    const list: readonly { id: RowFilter; label: string; tip: string; count: number | null }[] = [
      { id: 'all', label: 'All', tip: 'All parts', count: null },
      { id: 'keyed', label: 'Has keys', tip: 'Only channels that have keys', count: keyed },
      {
        id: 'selected',
        label: 'Selected',
        tip: 'Only the picked parts and channels',
        count: Math.max(parts.length, channels.length),
      },
    ];
    return list;
  });

  onKey(event: KeyboardEvent): void {
    if (event.key === 'Escape') {
      this.model.search.set('');
      (event.target as HTMLElement).blur();
    }
    event.stopPropagation();
  }
}
