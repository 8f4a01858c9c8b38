import { Vector3 } from 'three';
import type { Bead } from './trail';

const UP = new Vector3(0, 1, 0);
/** So many places of a motion are looked at when it is asked what stands before them. */
const PLACES = 16;

/** The direction to look from so that a motion reads left to right: across its longest way, level. */
export function acrossMotion(beads: readonly Bead[]): Vector3 {
  const first = beads[0]?.place;
  const along = new Vector3(1, 0, 0);
  let longest = 1e-3;
  for (const { place } of first ? beads : []) {
    const way = place.clone().sub(first!).setY(0);
    if (way.length() <= longest) continue;
    longest = way.length();
    along.copy(way).normalize();
  }
  return new Vector3().crossVectors(along, UP);
}

/** From where a motion is looked at side on. */
export interface SideOn {
  /** From what is looked at to the eye, of length 1. */
  readonly away: Vector3;
  /** Whether something stands before the motion, and has to be cut away. */
  readonly cuts: boolean;
}

/** A look at a motion that reads left to right. `hides` tells whether something lies between a place and far away in a direction. */
export function sideOn(beads: readonly Bead[], hides: (place: Vector3, away: Vector3) => boolean): SideOn {
  const away = acrossMotion(beads);
  const step = Math.max(1, Math.floor(beads.length / PLACES));
  const places = beads.filter((_, i) => i % step === 0);
  return { away, cuts: places.some(({ place }) => hides(place, away)) };
}
