import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatMenu, MatMenuContent, MatMenuTrigger } from '@angular/material/menu';
import { MatTooltip } from '@angular/material/tooltip';
import type { ChannelKind, LegKind, SideMode } from '@kaizen/core';
import { CommandRegistry } from '../../commands/registry';
import { ALL_KINDS, type Capture } from '../../state/bench';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { CheckListComponent, type Check } from '../../ui/check-list.component';
import { toggled } from '../stage/picking';
import { legOfKind } from '../shaping/chosen-keys';
import { LEG_LABELS, SIDE_LABELS } from '../stage/words';

const NEW_MODES: readonly SideMode[] = ['smooth', 'bounded', 'flat', 'linear'];
const LEG_KINDS = Object.keys(LEG_LABELS) as readonly LegKind[];

/** Capture, always in sight: whether changes become keys by themselves, and which. */
@Component({
  selector: 'kz-capture-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CheckListComponent, MatMenu, MatMenuContent, MatMenuTrigger, MatTooltip, RunDirective],
  template: `
    <button
      class="button toggle"
      [class.on]="capture().on"
      kzRun="key.capture"
      kzTip="On: changed values become keys at the playhead"
    >
      {{ capture().on ? 'Capture on' : 'Capture off' }}
    </button>
    @if (capture().on) {
      <button
        class="button toggle"
        kzRun="key.start-new"
        kzTip="Whether a channel that has no keys yet gets its first one"
      >
        May start new channels
      </button>
      <span class="pair" role="group" aria-label="Mark with the old value">
        <button
          class="button toggle"
          kzRun="key.mark-start"
          kzTip="The first key of a channel brings one with its old value where the range starts, so that a move has its beginning"
        >
          Mark the start
        </button>
        <button
          class="button toggle"
          aria-label="Mark the end"
          kzRun="key.mark-end"
          kzTip="The first key of a channel brings one with its old value where the range ends, so that what moves comes back"
        >
          end
        </button>
      </span>
      <button
        class="button"
        [matMenuTriggerFor]="scope"
        matTooltip="Which kinds of channels Capture takes, and of which parts"
      >
        Scope: {{ scopeText() }}
      </button>
    }
    <button
      class="button"
      [matMenuTriggerFor]="fresh"
      matTooltip="What new keys get: how the curve meets them, and the leg after them"
    >
      New keys: {{ newText() }}
    </button>
    <mat-menu #fresh="matMenu">
      <ng-template matMenuContent>
        <kz-check-list name="New keys get" [groups]="newChecks()" (toggled)="setNew($event)" />
      </ng-template>
    </mat-menu>
    <mat-menu #scope="matMenu">
      <ng-template matMenuContent>
        <kz-check-list name="Scope" [groups]="scopeChecks()" (toggled)="toggle($event)" />
      </ng-template>
    </mat-menu>
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap-reverse;
      gap: 6px;
    }
    .pair {
      display: flex;
      gap: 2px;
    }
    .on {
      border-color: var(--select);
      background: var(--select-ground);
      color: var(--select);
      font-weight: 600;
    }
  `,
})
export class CaptureBarComponent {
  readonly studio = inject(Studio);
  readonly registry = inject(CommandRegistry);
  readonly capture = computed(() => this.studio.bench().capture);
  readonly scopeText = computed(() => {
    const { scope, parts } = this.capture();
    const kinds =
      scope.length === ALL_KINDS.length ? 'all kinds' : scope.length === 0 ? 'nothing' : scope.join(', ');
    return parts ? `${kinds} of ${this.partsText()}` : kinds;
  });
  /** The parts that Capture takes, or would take: the picked ones. */
  readonly partsText = computed(() => {
    const ids = this.capture().parts ?? this.studio.bench().parts;
    const first = this.studio.project()?.parts.find(({ id }) => id === ids[0]);
    if (ids.length === 0 || !first) return 'the picked parts';
    return ids.length === 1 ? first.name : `${ids.length} parts`;
  });

  readonly scopeChecks = computed(
    (): readonly (readonly Check<ChannelKind | 'every part' | 'picked parts'>[])[] => {
      const { scope, parts } = this.capture();
      return [
        ALL_KINDS.map((kind) => ({ value: kind, label: kind, on: scope.includes(kind) })),
        [
          { value: 'every part', label: 'every part', on: parts === null },
          {
            value: 'picked parts',
            label: `only ${this.partsText()}`,
            on: parts !== null,
            disabled: this.studio.bench().parts.length === 0 && parts === null,
          },
        ],
      ];
    },
  );

  readonly newText = computed(() => {
    const { mode, leg } = this.studio.bench().newKeys;
    return `${SIDE_LABELS[mode]}, ${LEG_LABELS[leg.kind]}`;
  });
  readonly newChecks = computed((): readonly (readonly Check<SideMode | LegKind>[])[] => {
    const { mode, leg } = this.studio.bench().newKeys;
    return [
      NEW_MODES.map((value) => ({ value, label: SIDE_LABELS[value], on: value === mode })),
      LEG_KINDS.map((value) => ({ value, label: `${LEG_LABELS[value]} after it`, on: value === leg.kind })),
    ];
  });

  setNew(what: SideMode | LegKind): void {
    const { newKeys } = this.studio.bench();
    const mode = NEW_MODES.find((each) => each === what);
    const kind = LEG_KINDS.find((each) => each === what);
    this.studio.set({
      newKeys: { ...newKeys, ...(mode ? { mode } : {}), ...(kind ? { leg: legOfKind(kind) } : {}) },
    });
  }

  set(change: Partial<Capture>): void {
    this.studio.set({ capture: { ...this.capture(), ...change } });
  }

  toggle(what: ChannelKind | 'every part' | 'picked parts'): void {
    if (what === 'every part') this.set({ parts: null });
    else if (what === 'picked parts') this.set({ parts: this.studio.bench().parts });
    else this.set({ scope: toggled(this.capture().scope, what) });
  }
}
