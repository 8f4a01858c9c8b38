import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { offerCommands } from '../commands/offer-commands';
import { RunDirective } from '../commands/run.directive';
import { Studio } from '../state/studio';
import { Keeper } from '../storage/keeper';
import { Notices } from '../ui/notices';

/**
 * The quiet line about what just happened, in the bar, where it covers nothing but what is kept. A problem stands out below, and stays; so does
 * any message while the bar tells that something is not kept.
 */
@Component({
  selector: 'kz-notice-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatIcon, RunDirective],
  template: `
    <div class="live" [class.below]="isBelow()" role="status" aria-live="polite">
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
      position: absolute;
      inset: 4px 10px auto auto;
      width: max-content;
      // in a narrow window it lies over the names of screens rather than being tall
      max-width: max(100% - 20px, 300px);
      display: flex;
      flex-direction: column;
      align-items: flex-end;
      gap: 4px;
      line-height: 16px;
      white-space: normal;
      // what lies under a quiet line can be pressed through it
      pointer-events: none;
    }
    .below {
      position: fixed;
      inset: calc(48px + var(--view-bar, 40px) + var(--pick-banner, 0px)) auto auto 50%;
      max-width: min(760px, 90vw);
      align-items: stretch;
      transform: translateX(-50%);
    }
    .problem,
    button {
      pointer-events: auto;
    }
    .line {
      display: flex;
      align-items: center;
      gap: 12px;
      min-height: 36px;
      padding: 2px 4px 2px 14px;
      border: 1px solid var(--ink);
      border-radius: var(--radius);
      background: var(--sheet);
      color: var(--ink);
    }
    .beside {
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
  private readonly studio = inject(Studio);
  private readonly keeper = inject(Keeper);

  readonly isBelow = computed(
    () => this.notices.current()?.kind === 'problem' || this.studio.readOnly() || this.keeper.isInDoubt(),
  );
  readonly isInBar = computed(
    () => !this.isBelow() && (this.notices.current() !== null || this.notices.beside() !== null),
  );

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
