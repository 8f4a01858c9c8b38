import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { MatTooltip } from '@angular/material/tooltip';
import { Notices } from '../ui/notices';

/** The quiet line about what just happened; a problem stands out and stays. */
@Component({
  selector: 'kz-notice-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatIcon, MatTooltip],
  template: `
    <div class="live" role="status" aria-live="polite">
      @if (notices.current(); as notice) {
        <div class="line" [class.problem]="notice.kind === 'problem'">
          <span>{{ notice.text }}</span>
          @if (notice.action; as action) {
            <button class="button" (click)="action.run()">{{ action.label }}</button>
          }
          <button
            class="button bare icon-only"
            aria-label="Close this message"
            matTooltip="Close this message"
            (click)="notices.clear()"
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
      top: 88px;
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
}
