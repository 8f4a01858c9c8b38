import { Injectable, inject } from '@angular/core';
import { keysAsTable } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';

/** Keys for a spreadsheet: as a table on the clipboard. */
@Injectable({ providedIn: 'root' })
export class KeyTableExchange {
  private readonly studio = inject(Studio);
  private readonly notices = inject(Notices);

  /** Puts the chosen keys on the clipboard as a table: frame, seconds, a column a channel. */
  async copy(): Promise<void> {
    const project = this.studio.project();
    const { keys } = this.studio.bench();
    if (!project || keys.length === 0) return;
    try {
      await navigator.clipboard.writeText(keysAsTable(project, keys));
      this.notices.tell(
        `${keys.length === 1 ? 'One key' : `${keys.length} keys`} copied as a table; paste it into a spreadsheet`,
      );
    } catch {
      this.notices.warn(
        'The browser does not let this page write to the clipboard; allow it in the address bar and copy again',
      );
    }
  }
}
