import { ChangeDetectionStrategy, Component, effect, inject, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { ProjectFile } from '../open/project-file';
import { Studio } from '../state/studio';
import { Keeper } from '../storage/keeper';
import { Notices } from '../ui/notices';

/** The line under the bar that tells what another tab does with this project, and what can be done about it. */
@Component({
  selector: 'kz-edited-elsewhere',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
  template: `
    @if (keeper.status().kind === 'left-behind') {
      <div class="line problem" role="alert">
        <span>
          Another tab took this project over while edits made here could not be kept. They are only here: save
          them as a file before you close this tab.
        </span>
        <button class="button" matTooltip="Download the project with these edits" (click)="save()">
          Save a file
        </button>
        <button class="button bare" matTooltip="Show what the other tab keeps instead" (click)="letGo()">
          Let them go
        </button>
      </div>
    } @else if (keeper.status().kind === 'removed') {
      <div class="line problem" role="alert">
        <span>This project was removed from this browser in another tab. It is still open here.</span>
        <button class="button" matTooltip="Write the whole project again" (click)="keepAgain()">
          Keep it again
        </button>
        <button class="button" matTooltip="Download the project as it is now" (click)="save()">
          Save a file
        </button>
      </div>
    } @else if (studio.readOnly()) {
      <div class="line" role="status">
        @if (refused(); as reason) {
          <span>
            The other tab has edits it could not keep ({{ reason }}); they stay only there if you take over.
          </span>
          <button
            class="button"
            matTooltip="Edit here; go to the other tab to save its edits"
            (click)="takeOver(true)"
          >
            Take over all the same
          </button>
        } @else {
          <span>This project is being edited in another tab; here you see what it keeps.</span>
          <button
            class="button"
            matTooltip="Edit here; the other tab keeps what it has and follows"
            [disabled]="asking()"
            (click)="takeOver(false)"
          >
            Take over here
          </button>
        }
      </div>
    }
  `,
  styles: `
    .line {
      display: flex;
      align-items: center;
      gap: 14px;
      padding: 5px 16px;
      border-bottom: 1px solid var(--rule);
      background: var(--select-ground);
    }
    .problem {
      border-left: 4px solid var(--warn);
      background: var(--sheet);
    }
  `,
})
export class EditedElsewhereComponent {
  readonly studio = inject(Studio);
  private readonly file = inject(ProjectFile);
  readonly keeper = inject(Keeper);
  private readonly notices = inject(Notices);
  readonly asking = signal(false);
  /** Why the other tab could not hand the project over. */
  readonly refused = signal('');

  constructor() {
    effect(() => {
      if (this.keeper.writtenAgain() > 0)
        this.notices.tell('This browser’s storage was cleared: the open project was kept again, whole');
    });
  }

  async takeOver(must: boolean): Promise<void> {
    this.asking.set(true);
    const answer = await this.keeper.takeOver(must);
    this.asking.set(false);
    this.refused.set(typeof answer === 'object' ? answer.reason : '');
  }

  letGo(): void {
    void this.keeper.letGoUnkept();
  }

  keepAgain(): void {
    void this.keeper.keepAgain();
  }

  save(): void {
    this.file.save();
  }
}
