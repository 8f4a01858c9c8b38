import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { firstValueFrom } from 'rxjs';
import type { Project } from '@kaizen/core';
import type { LeaveAnswer } from './leave-dialog.component';

/** Asks what becomes of edits that can't be kept. Its dialog is there before it is needed: a full disk may fetch nothing. */
@Injectable({ providedIn: 'root' })
export class LeaveQuestion {
  private readonly dialog = inject(MatDialog);

  async ask(project: Project, reason: string | null): Promise<LeaveAnswer> {
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
