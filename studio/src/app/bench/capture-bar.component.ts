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
      <button class="button" [matMenuTriggerFor]="scope" matTooltip="Which kinds of channels Capture takes">
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
    const { scope } = this.capture();
    if (scope.length === ALL_KINDS.length) return 'all kinds';
    return scope.length === 0 ? 'nothing' : scope.join(', ');
  });

  set(change: Partial<Capture>): void {
    this.studio.set({ capture: { ...this.capture(), ...change } });
  }

  toggle(kind: ChannelKind): void {
    this.set({ scope: toggled(this.capture().scope, kind) });
  }
}
