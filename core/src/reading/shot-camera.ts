import { SLOT_VISIBLE, type FrameOutput, type Program } from '../evaluate';

/** The place among the parts of the camera that shows the shot at a frame: the first that is visible, else the first; −1 without one. */
export function shotCamera({ structure }: Program, out: FrameOutput): number {
  let first = -1;
  for (const [i, { kind }] of structure.parts.entries()) {
    if (kind !== 'camera') continue;
    if (out.channels[structure.firstSlot[i]! + SLOT_VISIBLE]! >= 0.5) return i;
    if (first < 0) first = i;
  }
  return first;
}
