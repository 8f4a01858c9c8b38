import { Injectable, inject } from '@angular/core';
import { partOf, type Part } from '@kaizen/core';
import { onItem, type Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { ContactHands } from './contact-hands';

/** Setting parts down on the floor or on each other. */
@Injectable({ providedIn: 'root' })
export class ContactCommands {
  private readonly studio = inject(Studio);
  private readonly hands = inject(ContactHands);

  list(): readonly Command[] {
    const about = (id: string, label: string, run: (part: Part) => void) =>
      onItem<Part>({
        id,
        label,
        group: 'Pose',
        meant: () => this.meant(),
        when: () => !this.studio.readOnly(),
        run,
      });
    return [
      about('part.set-down', 'Set the chosen part down on the floor', (part) => this.hands.setDown(part)),
      about('part.set-down-on', 'Set the chosen part down on one that is picked', (part) =>
        this.hands.askSetDown(part),
      ),
    ];
  }

  private meant(): Part | null {
    const project = this.studio.project();
    const part = project && partOf(project, this.studio.bench().parts.at(-1) ?? '');
    return part?.kind === 'mesh' || part?.kind === 'group' ? part : null;
  }
}
