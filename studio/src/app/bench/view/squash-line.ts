import { LEAST_SQUASH, reachFrom, type Project } from '@kaizen/core';
import { Matrix4, Vector3 } from 'three';
import type { Evaluated } from '../stage/stage';

/** A squash as the view shows it: from its contact along its axis, with the part's height and half its width when unsquashed, in metres. */
export interface SquashLine {
  readonly part: string;
  readonly contact: Vector3;
  readonly axis: Vector3;
  readonly height: number;
  readonly radius: number;
  readonly amount: number;
}

/** A part without a simple shape is taken to be so high and wide. */
const UNKNOWN = { along: 1, across: 0.5 };

/** The squash of a part at the frame on show; null where it has none. */
export function squashLine(project: Project, now: Evaluated, id: string): SquashLine | null {
  const { structure } = now.program;
  const i = structure.partIndex.get(id);
  const part = i === undefined ? undefined : structure.parts[i];
  if (i === undefined || !part?.squash) return null;
  const { squash } = part;
  const world = new Matrix4().fromArray(now.out.world[i]!);
  const number = 'xyz'.indexOf(squash.axis);
  const above = squash.frame === 'parent' ? structure.hierarchy.parents[i]! : i;
  const from = above < 0 ? new Matrix4() : new Matrix4().fromArray(now.out.world[above]!);
  const axis = new Vector3().setFromMatrixColumn(from, number).normalize();
  const contact = new Vector3(...squash.anchor).applyMatrix4(world);
  const amount = now.out.channels[structure.firstSlot[i]! + 9]!;
  const reach = reachFrom(project, now.program, now.out, id, contact.toArray(), axis.toArray());
  const share = 1 + amountFor(1 + amount);
  const { along, across } = reach && reach.along > 0 && reach.across > 0 ? reach : UNKNOWN;
  return { part: id, contact, axis, height: along / share, radius: across * Math.sqrt(share), amount };
}

/** A place on the line of equal volume: so much of the height, and as much wider as keeps the volume; `aside` is a direction across. */
export function onEqualVolume(
  { contact, axis, height, radius }: SquashLine,
  share: number,
  aside: Vector3,
): Vector3 {
  return contact
    .clone()
    .addScaledVector(axis, height * share)
    .addScaledVector(aside, radius / Math.sqrt(share));
}

/** The squash that brings the part to a share of its height, no less than may be. */
export function amountFor(share: number): number {
  return Math.max(LEAST_SQUASH, share) - 1;
}
