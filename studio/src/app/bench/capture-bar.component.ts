import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatMenu, MatMenuTrigger } from '@angular/material/menu';
import { MatTooltip } from '@angular/material/tooltip';
import type { ChannelKind } from '@kaizen/core';
import { CommandRegistry } from '../commands/registry';
import { ALL_KINDS, type Capture } from '../state/bench';
import { Studio } from '../state/studio';
import { toggled } from './picking';

/** Capture, always in sight: whether changes become keys by themselves, and which. */
@Component({
  selector: 'kz-capture-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatMenu, MatMenuTrigger, MatTooltip],
  template: `
    <button
      class="button toggle"
      [class.on]="capture().on"
      [attr.aria-pressed]="capture().on"
      [matTooltip]="registry.tip('key.capture', 'On: changed values become keys at the playhead')"
      (click)="set({ on: !capture().on })"
    >
      {{ capture().on ? 'Capture on' : 'Capture off' }}
    </button>
    @if (capture().on) {
      <button
        class="button toggle"
        [attr.aria-pressed]="capture().startNew"
        matTooltip="Whether a channel that has no keys yet gets its first one"
        (click)="set({ startNew: !capture().startNew })"
      >
        May start new channels
      </button>
      <button
        class="button toggle"
        [attr.aria-pressed]="capture().markStart"
        matTooltip="The first key of a channel brings one with its old value where the range starts, so that a move has its beginning"
        (click)="set({ markStart: !capture().markStart })"
      >
        Mark the start
      </button>
      <button
        class="button"
        [matMenuTriggerFor]="scope"
        matTooltip="Which kinds of channels Capture takes, and of which parts"
      >
        Scope: {{ scopeText() }}
      </button>
    }
    <mat-menu #scope="matMenu">
      <div
        class="scope"
        role="group"
        aria-label="Scope"
        tabindex="-1"
        (click)="$event.stopPropagation()"
        (keydown.enter)="$event.stopPropagation()"
      >
        @for (kind of kinds; track kind) {
          <button
            class="button bare toggle"
            role="menuitemcheckbox"
            [attr.aria-checked]="capture().scope.includes(kind)"
            (click)="toggle(kind)"
          >
            {{ kind }}
          </button>
        }
        <hr />
        <button
          class="button bare toggle"
          role="menuitemcheckbox"
          [attr.aria-checked]="capture().parts === null"
          (click)="set({ parts: null })"
        >
          every part
        </button>
        <button
          class="button bare toggle"
          role="menuitemcheckbox"
          [attr.aria-checked]="capture().parts !== null"
          [disabled]="studio.bench().parts.length === 0 && capture().parts === null"
          (click)="set({ parts: studio.bench().parts })"
        >
          only {{ partsText() }}
        </button>
      </div>
    </mat-menu>
  `,
  styles: `
    :host {
      display: flex;
      gap: 6px;
    }
    .on {
      border-color: var(--select);
      background: var(--select-ground);
      color: var(--select);
      font-weight: 600;
    }
    hr {
      width: 100%;
      margin: 4px 0;
      border: 0;
      border-top: 1px solid var(--rule);
    }
    .scope {
      display: flex;
      flex-direction: column;
      align-items: flex-start;
      padding: 4px 8px;
    }
  `,
})
export class CaptureBarComponent {
  readonly studio = inject(Studio);
  readonly registry = inject(CommandRegistry);
  readonly kinds = ALL_KINDS;
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

  set(change: Partial<Capture>): void {
    this.studio.set({ capture: { ...this.capture(), ...change } });
  }

  toggle(kind: ChannelKind): void {
    this.set({ scope: toggled(this.capture().scope, kind) });
  }
}
