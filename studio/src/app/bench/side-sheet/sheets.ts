import { linksSheet } from '../links/links-sheet';
import { poseSheet } from '../posing/pose-sheet.component';
import { rulerSheet } from '../ruler/ruler-sheet.component';
import { curveSheet } from '../shaping/curve-sheet.component';
import type { SideSheet } from '../stage/side-sheet';
import { timeSheet } from '../timing/time-sheet.component';
import { keySheet } from './key-sheet.component';
import { partSheet } from './part-sheet';

/** The tabs of the side sheet, in their order. One line a tab. */
export const SHEETS: readonly SideSheet[] = [
  keySheet,
  curveSheet,
  partSheet,
  linksSheet,
  timeSheet,
  poseSheet,
  rulerSheet,
];
