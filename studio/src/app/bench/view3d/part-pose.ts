import { spaceAxes, translateOf, turnedAngles, type AxisSpace, type Part, type Vec3 } from '@kaizen/core';
import { Matrix4, Vector3 } from 'three';
import type { Evaluated } from '../stage';
import type { ChannelValue } from '../poser';

/** A part as it stands at the frame on show, for posing by hand. */
export interface PartPose {
  readonly part: Part;
  readonly translate: Vec3;
  readonly rotate: Vec3;
  readonly scale: Vec3;
  readonly parent: readonly number[] | null;
  /** The pivot in the world. */
  readonly pivot: Vector3;
}

export function readPose(now: Evaluated, partId: string): PartPose | null {
  const { structure } = now.program;
  const index = structure.parts.findIndex((part) => part.id === partId);
  const part = structure.parts[index];
  if (!part) return null;
  const slot = structure.firstSlot[index]!;
  const three = (at: number): Vec3 => [
    now.out.channels[slot + at]!,
    now.out.channels[slot + at + 1]!,
    now.out.channels[slot + at + 2]!,
  ];
  const above = structure.hierarchy.parents[index]!;
  const pivot = new Vector3(...part.pivot).applyMatrix4(new Matrix4().fromArray(now.out.world[index]!));
  return {
    part,
    translate: three(0),
    rotate: three(3),
    scale: three(6),
    parent: above >= 0 ? Array.from(now.out.world[above]!) : null,
    pivot,
  };
}

/** The world directions of the three axes of a space at a pose. */
export function axesOf(pose: PartPose, space: AxisSpace): readonly [Vector3, Vector3, Vector3] {
  const m = spaceAxes(space, pose.parent, pose.part.turnOrder, pose.rotate);
  const axis = (n: number) => new Vector3(m[n * 3], m[n * 3 + 1], m[n * 3 + 2]).normalize();
  return [axis(0), axis(1), axis(2)];
}

const XYZ = ['x', 'y', 'z'] as const;

function changedValues(
  pose: PartPose,
  group: 'translate' | 'rotate' | 'scale',
  values: Vec3,
): ChannelValue[] {
  return XYZ.flatMap((axis, i) => {
    const value = rounded(values[i]!);
    return Math.abs(value - pose[group][i]!) < 1e-9
      ? []
      : [{ channel: `${pose.part.id}/${group}.${axis}`, value }];
  });
}

/** What a hand can mean: a tenth of a micrometre, or as much of a degree. */
function rounded(value: number): number {
  return Math.round(value * 1e7) / 1e7;
}

/** Channel values after moving by a shift in the world. */
export function moved(pose: PartPose, shift: Vector3): ChannelValue[] {
  const by = translateOf([shift.x, shift.y, shift.z], pose.parent);
  return changedValues(pose, 'translate', [
    pose.translate[0] + by[0],
    pose.translate[1] + by[1],
    pose.translate[2] + by[2],
  ]);
}

/** Channel values after turning about an axis of a space. */
export function turned(pose: PartPose, space: AxisSpace, axis: number, degrees: number): ChannelValue[] {
  return changedValues(
    pose,
    'rotate',
    turnedAngles(space, axis, degrees, pose.part.turnOrder, pose.rotate, pose.parent),
  );
}

/** Channel values after sizing along one of the part's own axes, or all where `axis` is null. */
export function sized(pose: PartPose, axis: number | null, factor: number): ChannelValue[] {
  const scale = pose.scale.map((value, i) => (axis === null || axis === i ? value * factor : value));
  return changedValues(pose, 'scale', scale as unknown as Vec3);
}
