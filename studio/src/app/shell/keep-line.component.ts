import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { Studio } from '../state/studio';
import { Keeper } from '../storage/keeper';
import { agoText } from '../ui/ago';

/** Whether all is kept, always true: it counts the seconds since the last save. */
@Component({
  selector: 'kz-keep-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<span class="numbers" [class.failed]="keeper.failed()" role="status">{{ text() }}</span>`,
  styles: `
    span {
      display: block;
      margin-right: 12px;
      overflow: hidden;
      font-size: 12px;
      opacity: 0.9;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .failed {
      padding: 3px 8px;
      border-radius: 3px;
      background: var(--warn);
      color: var(--sheet);
      opacity: 1;
    }
  `,
})
export class KeepLineComponent {
  readonly keeper = inject(Keeper);
  private readonly studio = inject(Studio);
  private readonly now = signal(Date.now());

  constructor() {
    const timer = setInterval(() => this.now.set(Date.now()), 1000);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }

  readonly text = computed(() => {
    const status = this.keeper.status();
    if (status.kind === 'failed') return `not kept: ${status.reason}; trying again`;
    if (!this.studio.project()) {
      const count = this.keeper.kept()?.length ?? 0;
      return count === 0
        ? 'nothing kept in this browser yet'
        : `${count} ${count === 1 ? 'project' : 'projects'} kept in this browser`;
    }
    if (status.kind === 'left-behind') return 'not kept: only in this tab';
    if (status.kind === 'removed') return 'not kept: removed in another tab';
    if (this.studio.readOnly()) return 'edited in another tab';
    if (status.kind === 'waiting') return 'keeping …';
    return status.kind === 'kept' ? `kept in this browser, ${agoText(status.at, this.now())}` : '';
  });
}
