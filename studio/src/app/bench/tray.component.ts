import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { CommandRegistry } from '../commands/registry';
import { Studio } from '../state/studio';
import { decimalsOf, shownFrame, shownNumber } from '../ui/amount';
import { channelLabel } from './channel-label';
import { Poser } from './poser';
import { Stage } from './stage';

const MOST_SHOWN = 2;

/** The tray of loose edits: changed values that wait to be keyed or discarded. */
@Component({
  selector: 'kz-tray',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
  template: `
    @if (edits().length > 0) {
      <div class="tray" role="region" aria-label="Loose edits">
        <strong>{{ edits().length }} loose {{ edits().length === 1 ? 'edit' : 'edits' }}</strong>
        @for (edit of shown(); track edit.key) {
          <button class="edit" matTooltip="Go to where it was made" (click)="stage.goTo(edit.frame)">
            {{ edit.name }} <span class="numbers">{{ edit.value }}</span>, was
            <span class="numbers">{{ edit.was }}</span>
            @if (edit.elsewhere) {
              <span class="numbers">at f {{ edit.at }}</span>
            }
          </button>
        }
        @if (edits().length > shown().length) {
          <span class="soft">and {{ edits().length - shown().length }} more</span>
        }
        <button
          class="button main"
          [matTooltip]="registry.tip('key.loose', 'Key them, each at its frame')"
          [disabled]="studio.readOnly()"
          (click)="poser.keyLoose()"
        >
          Key them
        </button>
        <button
          class="button bare"
          matTooltip="Let the changed values go"
          [disabled]="studio.readOnly()"
          (click)="poser.discardLoose()"
        >
          Discard
        </button>
      </div>
    }
  `,
  styles: `
    .tray {
      display: flex;
      align-items: center;
      gap: 10px;
      padding: 2px 4px 2px 10px;
      border: 1px dashed var(--loose);
      border-radius: 4px;
      background: var(--sheet);
      white-space: nowrap;
      overflow: hidden;
    }
    strong {
      color: var(--loose);
      font-weight: 600;
    }
    .edit {
      padding: 0;
      border: 0;
      background: none;
      color: inherit;
      font: inherit;
      cursor: pointer;
    }
    .numbers {
      font-size: 12px;
    }
  `,
})
export class TrayComponent {
  readonly studio = inject(Studio);
  readonly stage = inject(Stage);
  readonly poser = inject(Poser);
  readonly registry = inject(CommandRegistry);
  readonly edits = this.studio.loose;
  readonly shown = computed(() => {
    const project = this.studio.project();
    const frame = this.studio.bench().frame;
    if (!project) return [];
    return this.edits()
      .slice(-MOST_SHOWN)
      .map((edit) => {
        const label = channelLabel(project, edit.channel);
        const text = (value: number) =>
          shownNumber(value, decimalsOf(label.unit)) +
          (label.unit === '°' ? '°' : label.unit && ` ${label.unit}`);
        return {
          key: `${edit.channel}@${edit.frame}`,
          name: label.full,
          value: text(edit.value),
          was: text(edit.was),
          frame: edit.frame,
          at: shownFrame(edit.frame),
          elsewhere: edit.frame !== frame,
        };
      });
  });
}
