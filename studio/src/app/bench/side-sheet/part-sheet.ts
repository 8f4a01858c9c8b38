import type { SideSheet } from '../stage/side-sheet';
import { PartSheetComponent } from './part-sheet.component';
import { ShotSheetComponent } from './shot-sheet.component';

/** The tab of the chosen part; of the shot, while none is chosen. */
export const partSheet: SideSheet = {
  id: 'part',
  label: 'Part',
  tip: 'The chosen part, or the shot',
  component: PartSheetComponent,
  withoutPart: { label: 'Shot', component: ShotSheetComponent },
};
