import type { SideSheet } from '../stage/side-sheet';
import { LinksSheetComponent } from './links-sheet.component';

/** The tab of what links the chosen part to others. */
export const linksSheet: SideSheet = {
  id: 'links',
  label: 'Links',
  tip: 'What it rides on, carries, is driven and held by',
  component: LinksSheetComponent,
};
