import { Injectable, inject } from '@angular/core';
import { Assets } from '../state/assets';
import { Studio } from '../state/studio';
import { downloadProject, type ProjectFileKind } from '../ui/download';
import { Notices } from '../ui/notices';

/** The open project as a file among the user's downloads. */
@Injectable({ providedIn: 'root' })
export class ProjectFile {
  private readonly studio = inject(Studio);
  private readonly assets = inject(Assets);
  private readonly notices = inject(Notices);

  /** Writes it and gives the file's name; null where no project is open. */
  write(kind: ProjectFileKind): string | null {
    const project = this.studio.project();
    return project && downloadProject({ project, bytes: this.assets.beside }, kind);
  }

  /** Writes it and says so. */
  save(kind: ProjectFileKind = 'json'): void {
    const name = this.write(kind);
    if (name !== null) this.notices.tell(`${name} was saved to your downloads`);
  }
}
