import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { MatMenu, MatMenuContent, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import { MatTooltip } from '@angular/material/tooltip';
import { activeClip, keysOffTheFrame, type ChannelKind } from '@kaizen/core';
import { MenuRunDirective } from '../../commands/menu-run.directive';
import { ALL_KINDS, type RowFilter, type Shaping } from '../../state/bench';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { CheckListComponent, type Check } from '../../ui/check-list.component';
import { OneStopDirective } from '../../ui/one-stop.directive';
import { toggled } from '../stage/picking';
import { Stage } from '../stage/stage';
import { PoseCommands } from '../posing/pose-commands';
import { ShapeCommands } from '../shaping/shape-commands';
import { ChartModel } from '../plot/chart-model';
import { RowSets } from '../plot/row-sets';
import { tiedChannels } from '../plot/thread-rows';

/** A line of the menu Rows: a kind of channel, what pegs stand for, a named set. */
type RowCheck = ChannelKind | 'every' | 'below' | { readonly set: string };

/** The row over the Chart: which rows show, whether keys stay on whole frames, fitting. */
@Component({
  selector: 'kz-filter-row',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CheckListComponent,
    MatIcon,
    MatMenu,
    MatMenuContent,
    MatMenuItem,
    MatMenuTrigger,
    MatTooltip,
    MenuRunDirective,
    OneStopDirective,
    RunDirective,
  ],
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
    <div class="chips" role="group" aria-label="Which rows show" kzOneStop>
      @for (filter of filters(); track filter.id) {
        <button class="chip" [kzRun]="'rows.' + filter.id" [kzTip]="filter.tip">
          {{ filter.label }}
          @if (filter.count !== null) {
            <span class="numbers">{{ filter.count }}</span>
          }
        </button>
      }
    </div>
    <button
      class="button"
      [matMenuTriggerFor]="rows"
      matTooltip="Which kinds of channels have rows, and what the pegs of a part stand for"
    >
      {{ studio.bench().rowSet ?? 'Rows' }}
    </button>
    <mat-menu #rows="matMenu">
      <ng-template matMenuContent>
        <kz-check-list name="Rows" [groups]="rowChecks()" (toggled)="toggle($event)" />
        <button mat-menu-item kzRun="rows.sets">Sets of rows…</button>
      </ng-template>
    </mat-menu>
    <span class="space"></span>
    <button
      class="button"
      [matMenuTriggerFor]="shaping"
      matTooltip="What is drawn beside the curves, and how they are shaped: boxes, pictures of legs, locks"
    >
      Shape
    </button>
    <mat-menu #shaping="matMenu">
      <ng-template matMenuContent>
        <kz-check-list name="Shape" [groups]="shapeChecks()" (toggled)="shapes.toggle($event)" />
      </ng-template>
    </mat-menu>
    @if (studio.bench().density === 'rates') {
      <button
        class="button toggle"
        kzRun="chart.area-lock"
        kzTip="On: dragging the speed leaves every key’s place. Off: the area under the speed is the way that is gone, and the keys behind move along"
      >
        Places stay
      </button>
    }
    <span class="pair">
      <button class="button" kzRun="key.here" kzTip="Key the chosen channels or part at the playhead">
        Key here
      </button>
      <button
        class="button more"
        aria-label="Other ways to key here"
        matTooltip="Other ways to key here"
        [disabled]="studio.readOnly()"
        [matMenuTriggerFor]="keyed"
      >
        ▾
      </button>
    </span>
    <mat-menu #keyed="matMenu">
      <ng-template matMenuContent>
        @for (way of poses.keyed; track way.which) {
          <button mat-menu-item [kzRun]="'key.' + way.which">{{ way.label }}</button>
        }
        <button mat-menu-item kzRun="key.loose">Key all that changed</button>
      </ng-template>
    </mat-menu>
    <button class="button toggle" kzRun="snap.frames" kzTip="Keys and playhead land on whole frames">
      Whole frames
    </button>
    <button
      class="button icon-only"
      aria-label="Chart in two halves"
      [class.pressed]="studio.bench().split.on"
      kzRun="chart.split"
      kzTip="Two halves over one time, each with a density of its own"
    >
      <mat-icon svgIcon="rows" />
    </button>
    <div class="choice" role="group" aria-label="Fit" kzOneStop>
      <button kzRun="fit.selection">Fit</button>
      <button kzRun="fit.all">All</button>
      <button kzRun="fit.time">Time</button>
      <button kzRun="fit.value">Value</button>
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px 8px;
      min-height: 38px;
      padding: 5px 12px;
      border-top: 1px solid var(--rule);
      border-bottom: 1px solid var(--rule);
      background: var(--paper);
    }
    .search {
      position: relative;
      flex: 0 1 150px;
      min-width: 84px;
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
    .pair {
      display: flex;
      flex: none;
    }
    .pair .button:first-child {
      border-radius: var(--radius) 0 0 var(--radius);
    }
    .more {
      padding: 0 5px;
      border-left: 0;
      border-radius: 0 var(--radius) var(--radius) 0;
    }
    .pressed {
      border-color: var(--select);
      color: var(--select);
    }
    .chips {
      display: flex;
      gap: 8px;
    }
    .chip {
      flex: none;
      white-space: nowrap;
    }
    .space {
      flex: 1;
    }
  `,
})
export class FilterRowComponent {
  readonly studio = inject(Studio);
  readonly model = inject(ChartModel);
  private readonly stage = inject(Stage);
  readonly poses = inject(PoseCommands);
  readonly shapes = inject(ShapeCommands);
  private readonly sets = inject(RowSets);
  readonly filters = computed(() => {
    const project = this.studio.project();
    const { parts, channels } = this.studio.bench();
    const keyed = project ? (activeClip(project)?.curves.length ?? 0) : 0;
    const list: { id: RowFilter; label: string; tip: string; count: number | null }[] = [
      { id: 'all', label: 'All', tip: 'All parts', count: null },
      { id: 'keyed', label: 'Has keys', tip: 'Only channels that have keys', count: keyed },
      {
        id: 'selected',
        label: 'Selected',
        tip: 'Only the picked parts and channels',
        count: Math.max(parts.length, channels.length),
      },
    ];
    const tied = project ? tiedChannels(project).size : 0;
    if (tied > 0 || this.studio.bench().filter === 'tied')
      list.push({
        id: 'tied',
        label: 'Tied',
        tip: 'Only channels whose keys wait for each other',
        count: tied,
      });
    // Every key is looked at for that, which can wait until the project is shown.
    const off =
      project && this.stage.prepared()
        ? new Set(keysOffTheFrame(project).map(({ channel }) => channel)).size
        : 0;
    if (off === 0 && this.studio.bench().filter !== 'off') return list;
    return [
      ...list,
      {
        id: 'off' as const,
        label: 'Off frame',
        tip: 'Only channels with keys between frames',
        count: off,
      },
    ];
  });

  readonly rowChecks = computed((): readonly (readonly Check<RowCheck>[])[] => {
    const { kinds, everyChannel, summary, rowSet } = this.studio.bench();
    return [
      ALL_KINDS.map((kind) => ({ value: kind, label: kind, on: kinds.includes(kind) })),
      [
        { value: 'every', label: 'channels that nothing moves yet', on: everyChannel },
        { value: 'below', label: 'pegs of parts stand for all below', on: summary === 'below' },
      ],
      ...(this.sets.all().length > 0
        ? [this.sets.all().map(({ name }) => ({ value: { set: name }, label: name, on: name === rowSet }))]
        : []),
    ];
  });

  readonly shapeChecks = computed((): readonly (readonly Check<keyof Shaping>[])[] => {
    const { shaping } = this.studio.bench();
    const check = (value: Exclude<keyof Shaping, 'lock'>, label: string) => ({
      value,
      label,
      on: shaping[value],
    });
    return [
      [
        check('pictures', 'pictures of legs'),
        check('box', 'scale box around chosen keys'),
        check('together', 'lengths of both handles together'),
      ],
      [
        check('jerk', 'jerk in Rates'),
        { value: 'lock', label: 'places stay while speed is reshaped', on: shaping.lock === 'places' },
        check('valueLock', 'scales of value locked'),
      ],
      [
        check('takes', 'second takes'),
        check('untreated', 'curves before their treatments'),
        check('path', 'metres against metres, 1:1'),
      ],
    ];
  });

  toggle(what: RowCheck): void {
    const { kinds, everyChannel, summary } = this.studio.bench();
    if (typeof what === 'object') this.sets.show(what.set);
    else if (what === 'every') this.studio.set({ everyChannel: !everyChannel });
    else if (what === 'below') this.studio.set({ summary: summary === 'own' ? 'below' : 'own' });
    else this.studio.set({ kinds: toggled(kinds, what) });
  }

  onKey(event: KeyboardEvent): void {
    if (event.key === 'Escape') {
      this.model.search.set('');
      (event.target as HTMLElement).blur();
    }
    event.stopPropagation();
  }
}
