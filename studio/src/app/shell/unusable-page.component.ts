import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { RunDirective } from '../commands/run.directive';
import { Studio } from '../state/studio';
import type { Unusable } from '../storage/connection';

/** Stands in the place of every screen while this browser's storage can't be used by this Kaizen. */
@Component({
  selector: 'kz-unusable-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, RunDirective],
  template: `
    <section class="card">
      <h1>{{ text().title }}</h1>
      <p>{{ text().what }}</p>
      <p>{{ text().doing }}</p>
      <div class="buttons">
        <button class="button main" matTooltip="Load the page again (Ctrl+R)" (click)="reload()">
          Reload
        </button>
        @if (studio.project(); as project) {
          <button class="button" kzRun="project.save" kzTip="Download the project as it is now">
            Save {{ project.name }} as a file
          </button>
        }
      </div>
    </section>
  `,
  styles: `
    :host {
      display: grid;
      place-items: center;
      height: 100%;
      padding: 24px;
    }
    .card {
      max-width: 520px;
      padding: 24px 28px;
      border: 1px solid var(--rule);
      border-radius: var(--radius);
      background: var(--sheet);
    }
    h1 {
      font-size: 17px;
    }
    .buttons {
      display: flex;
      gap: 8px;
      margin-top: 16px;
    }
  `,
})
export class UnusablePageComponent {
  readonly studio = inject(Studio);
  readonly why = input.required<Unusable>();
  readonly text = computed(() =>
    this.why() === 'newer'
      ? {
          title: 'A newer Kaizen has kept your projects here',
          what: 'This browser’s storage was written by a newer version than this one. Nothing in it was touched.',
          doing:
            'Start the newer Kaizen again, or load the page anew if it was updated meanwhile; then everything is there.',
        }
      : {
          title: 'Kaizen was updated in another tab',
          what: 'What you did here until then is kept. This tab runs the older version and has given way.',
          doing: 'Load the page anew to go on where you were.',
        },
  );

  reload(): void {
    location.reload();
  }
}
