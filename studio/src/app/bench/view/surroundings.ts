import { Vector3 } from 'three';
import { channelName, SLOT_VISIBLE, type FrameOutput, type Program } from '@kaizen/core';

/** What lights the whole scene at a frame. */
export interface Surroundings {
  /** Towards the light, in the world. */
  readonly towards: Vector3;
  /** Whether it is above the ground. */
  readonly up: boolean;
  /** How bright the sky is, 0 to 1. */
  readonly sky: number;
}

/** Where the light of the drawing comes from where no sun is in the scene. */
export const DRAWN: Surroundings = { towards: new Vector3(0.45, 0.85, 0.4).normalize(), up: true, sky: 1 };

/** As low as this above the ground, as a sine, shadows end: lower they would reach to the horizon. */
const LOWEST = 0.06;

/** The surroundings by the first light of the scene that has a sky and is shown; else those of the drawing. */
export function surroundingsAt({ structure }: Program, out: FrameOutput): Surroundings {
  const i = structure.parts.findIndex(
    (part, at) =>
      part.kind === 'light' &&
      part.light.sky !== undefined &&
      out.channels[structure.firstSlot[at]! + SLOT_VISIBLE]! >= 0.5,
  );
  if (i < 0) return DRAWN;
  const world = out.world[i]!;
  const towards = new Vector3(world[8], world[9], world[10]).normalize();
  const sky = out.channels[structure.slots.get(channelName(structure.parts[i]!.id, 'light.sky'))!]!;
  return { towards, up: towards.y > LOWEST, sky: Math.min(1, Math.max(0, sky)) };
}
