import {
  spaceAxes,
  translateOf,
  turnedAboutDirection,
  turnedAngles,
  withDescendants,
  type Part,
  type Vec3,
} from '@kaizen/core';
import { Matrix4, Quaternion, Vector3 } from 'three';
import type { Axes } from '../../state/bench';
import type { Evaluated } from '../stage/stage';
import type { ChannelValue } from '../posing/poser';

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

/** The chosen parts as they stand, the one chosen last at the end; those below another chosen one go along with it anyway. */
export function readPoses(now: Evaluated, partIds: readonly string[]): readonly PartPose[] {
  const { parts } = now.program.structure;
  const below = new Set(partIds.flatMap((id) => withDescendants(parts, id).filter((each) => each !== id)));
  return partIds.filter((id) => !below.has(id)).flatMap((id) => readPose(now, id) ?? []);
}

/** The world directions of the three axes of a space at a pose; `view` is the matrix of the camera that looks on. */
export function axesOf(pose: PartPose, space: Axes, view: Matrix4): readonly [Vector3, Vector3, Vector3] {
  if (space === 'view') {
    const [x, y, z] = [new Vector3(), new Vector3(), new Vector3()];
    view.extractBasis(x, y, z);
    return [x.normalize(), y.normalize(), z.normalize()];
  }
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

/** What a tool does to parts: how far along or about which axis, or about all where `axis` is null. */
export interface Handling {
  readonly space: Axes;
  readonly axis: number | null;
  readonly amount: number;
  /** A point of the world to turn and size about instead of each part's own pivot. */
  readonly point: Vector3 | null;
  /** The matrix of the camera that looks on. */
  readonly view: Matrix4;
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

/** Channel values after turning by an amount in degrees. */
export function turned(pose: PartPose, { space, axis, amount, point, view }: Handling): ChannelValue[] {
  const about = axis ?? 0;
  const direction = axesOf(pose, space, view)[about]!;
  const angles =
    space === 'view'
      ? turnedAboutDirection(direction.toArray(), amount, pose.part.turnOrder, pose.rotate, pose.parent)
      : turnedAngles(space, about, amount, pose.part.turnOrder, pose.rotate, pose.parent);
  const values = changedValues(pose, 'rotate', angles);
  if (!point) return values;
  const turn = new Quaternion().setFromAxisAngle(direction, (amount * Math.PI) / 180);
  const spoke = pose.pivot.clone().sub(point);
  return [...values, ...moved(pose, spoke.clone().applyQuaternion(turn).sub(spoke))];
}

/** Channel values after sizing by a factor along one of the part's own axes, or all. */
export function sized(pose: PartPose, { axis, amount, point, view }: Handling): ChannelValue[] {
  const scale = pose.scale.map((value, i) => (axis === null || axis === i ? value * amount : value));
  const values = changedValues(pose, 'scale', scale as unknown as Vec3);
  if (!point) return values;
  const spoke = pose.pivot.clone().sub(point);
  const along = axis === null ? spoke : spoke.clone().projectOnVector(axesOf(pose, 'own', view)[axis]!);
  return [...values, ...moved(pose, along.multiplyScalar(amount - 1))];
}
