import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { MatTooltip } from '@angular/material/tooltip';
import type { Project } from '@kaizen/core';
import { ProjectFile } from '../open/project-file';

import type { LeaveAnswer } from '../storage/leave-question';

/** Asked when a project is left whose newest edits could not be kept: go on trying, save them as a file, or let them go. */
@Component({
  selector: 'kz-leave-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
  template: `
    <h2>The newest edits of {{ data.project.name }} are not kept</h2>
    <p>
      This browser could not keep them{{ data.reason ? ': ' + data.reason : '' }}. They are lost if you leave
      the project now without saving it as a file.
    </p>
    @if (saved(); as name) {
      <p role="status">
        Saved as <span class="numbers">{{ name }}</span>. Look in your downloads before you go on.
      </p>
    }
    <div class="buttons">
      <button
        class="button main"
        cdkFocusInitial
        matTooltip="Back to the project; Kaizen goes on trying to keep it (Esc)"
        (click)="answer('stay')"
      >
        Stay and keep trying
      </button>
      <button class="button" matTooltip="Download the project as it is now" (click)="save()">
        Save a file
      </button>
      <button class="button bare" matTooltip="Leave without the newest edits" (click)="answer('let-go')">
        {{ saved() ? 'Leave' : 'Let them go' }}
      </button>
    </div>
  `,
  styles: `
    :host {
      display: block;
      padding: 18px 20px;
    }
    h2 {
      font-size: 16px;
    }
    .buttons {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      margin-top: 14px;
    }
  `,
  host: { '(keydown.escape)': "answer('stay')" },
})
export class LeaveDialogComponent {
  private readonly dialog = inject<MatDialogRef<unknown, LeaveAnswer>>(MatDialogRef);
  private readonly file = inject(ProjectFile);
  readonly data = inject<{ readonly project: Project; readonly reason: string | null }>(MAT_DIALOG_DATA);
  readonly saved = signal('');

  save(): void {
    this.saved.set(this.file.write('json') ?? '');
  }

  answer(answer: LeaveAnswer): void {
    this.dialog.close(answer);
  }
}
