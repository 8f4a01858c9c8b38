import { Injectable, inject, linkedSignal } from '@angular/core';
import { addOwnNumber, type Part } from '@kaizen/core';
import { Studio } from '../../state/studio';

/** What a new number of a part is until its user says more. */
const NEW_NUMBER = { name: 'number', value: 0, min: 0, max: 1, unit: '' };

/** Numbers of a part's own, made. */
@Injectable({ providedIn: 'root' })
export class NumberHands {
  private readonly studio = inject(Studio);
  /** The number whose range and unit show, by its name. None of another part that is chosen. */
  readonly open = linkedSignal<string | undefined, string | null>({
    source: () => this.studio.bench().parts.at(-1),
    computation: (part, last) => (last && last.source === part ? last.value : null),
  });

  add({ id }: Part): void {
    let made = NEW_NUMBER.name;
    this.studio.edit('New number', (project) => {
      const result = addOwnNumber(project, id, NEW_NUMBER);
      made = result.name;
      return result.project;
    });
    this.open.set(made);
    this.studio.set({ sheet: 'part' });
  }
}
