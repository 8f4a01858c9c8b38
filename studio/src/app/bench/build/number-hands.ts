import { Injectable, inject } from '@angular/core';
import { addOwnNumber, type Part } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { openLine } from './open-line';

/** What a new number of a part is until its user says more. */
const NEW_NUMBER = { name: 'number', value: 0, min: 0, max: 1, unit: '' };

/** Numbers of a part's own, made. */
@Injectable({ providedIn: 'root' })
export class NumberHands {
  private readonly studio = inject(Studio);
  /** The number whose range and unit show. */
  readonly open = openLine(this.studio);

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
