import type { Type } from '@angular/core';

/** A tab of the side sheet: what it says and what it shows. */
export interface SideSheet {
  readonly id: string;
  readonly label: string;
  readonly tip: string;
  readonly component: Type<unknown>;
  /** What it says and shows while no part is chosen, where that is something else. */
  readonly withoutPart?: Pick<SideSheet, 'label' | 'component'>;
  /** The tab tells how many keys are chosen. */
  readonly countsKeys?: boolean;
}
