import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { firstValueFrom } from 'rxjs';
import type { Project } from '@kaizen/core';
import { LeaveQuestion, type LeaveAnswer } from '../storage/leave-question';

/** Asks in a dialog, which is fetched ahead of its use: a full disk may fetch nothing. */
@Injectable()
export class AskInDialog extends LeaveQuestion {
  private readonly dialog = inject(MatDialog);

  override async ask(project: Project, reason: string | null): Promise<LeaveAnswer> {
    const { LeaveDialogComponent } = await import('./leave-dialog.component');
    const opened = this.dialog.open<unknown, unknown, LeaveAnswer>(LeaveDialogComponent, {
      width: '460px',
      maxWidth: '94vw',
      disableClose: true,
      ariaLabel: 'Edits that are not kept',
      data: { project, reason },
    });
    return (await firstValueFrom(opened.afterClosed())) ?? 'stay';
  }
}
