import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { offerCommands } from '../commands/offer-commands';
import { RunDirective } from '../commands/run.directive';
import { Notices } from '../ui/notices';

/** The quiet line about what just happened; a problem stands out and stays. */
@Component({
  selector: 'kz-notice-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatIcon, RunDirective],
  template: `
    <div class="live" role="status" aria-live="polite">
      @if (notices.current(); as notice) {
        <div class="line" [class.problem]="notice.kind === 'problem'">
          <span>{{ notice.text }}</span>
          @if (notice.action; as action) {
            <button class="button" kzRun="notice.act" [kzTip]="action.label">{{ action.label }}</button>
          }
          <button
            class="button bare icon-only"
            aria-label="Close this message"
            kzRun="notice.close"
            kzTip="Close this message"
          >
            <mat-icon svgIcon="close" />
          </button>
        </div>
      }
      @if (notices.beside(); as notice) {
        <div class="line beside">
          <span>{{ notice.text }}</span>
        </div>
      }
    </div>
  `,
  styles: `
    .live {
      position: fixed;
      left: 50%;
      top: calc(48px + var(--view-bar, 40px) + var(--pick-banner, 0px));
      transform: translateX(-50%);
      z-index: 900;
      max-width: min(760px, 90vw);
    }
    .line {
      display: flex;
      align-items: center;
      gap: 12px;
      padding: 6px 6px 6px 14px;
      border: 1px solid var(--ink);
      border-radius: var(--radius);
      background: var(--sheet);
      color: var(--ink);
    }
    .beside {
      margin-top: 6px;
      padding-right: 14px;
      border-color: var(--rule);
    }
    .problem {
      border-color: var(--warn);
      border-left-width: 4px;
    }
  `,
})
export class NoticeLineComponent {
  readonly notices = inject(Notices);

  constructor() {
    const { notices } = this;
    offerCommands([
      {
        id: 'notice.act',
        label: 'Do what the message offers',
        group: 'Help',
        when: () => notices.current()?.action !== undefined,
        run: () => notices.current()?.action?.run(),
      },
      {
        id: 'notice.close',
        label: 'Close the message',
        group: 'Help',
        when: () => notices.current() !== null,
        run: () => notices.clear(),
      },
    ]);
  }
}
