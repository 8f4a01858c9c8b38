import { Injectable, inject } from '@angular/core';
import type { Project, Result } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { said } from './said';

/** Edits that may be refused: done as one step to undo, or told in one sentence, with nothing changed. */
@Injectable({ providedIn: 'root' })
export class Refusable {
  private readonly studio = inject(Studio);
  private readonly notices = inject(Notices);

  edit(label: string, edit: (project: Project) => Result<Project>): void {
    const project = this.studio.project();
    if (!project) return;
    const made = edit(project);
    if (made.ok) this.studio.edit(label, () => made.value);
    else this.notices.warn(said(made.problems));
  }
}
