import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';

/** Dialogs of the Bench, loaded when they are first opened. */
@Injectable({ providedIn: 'root' })
export class ShapeSheets {
  private readonly dialog = inject(MatDialog);

  pasteAs(): void {
    void import('./paste-as.component').then(({ PasteAsComponent }) =>
      this.dialog.open(PasteAsComponent, { width: '420px', ariaLabel: 'Paste keys as' }),
    );
  }

  rowSets(): void {
    void import('../plot/row-sets.component').then(({ RowSetsComponent }) =>
      this.dialog.open(RowSetsComponent, { width: '400px', ariaLabel: 'Sets of rows' }),
    );
  }

  pasteTable(): void {
    void import('./paste-table.component').then(({ PasteTableComponent }) =>
      this.dialog.open(PasteTableComponent, { width: '560px', ariaLabel: 'Paste a table of keys' }),
    );
  }
}
