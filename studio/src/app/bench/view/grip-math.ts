import { Matrix4, Ray, Vector2, Vector3, type PerspectiveCamera } from 'three';

/** The view as grips need it: a camera and the size of its canvas in pixels. */
export interface Eye {
  readonly camera: PerspectiveCamera;
  readonly width: number;
  readonly height: number;
}

/** A place in the view in pixels; null behind the eye. */
export function toScreen(eye: Eye, place: Vector3): Vector2 | null {
  const at = place.clone().project(eye.camera);
  if (at.z > 1 || at.z < -1) return null;
  return new Vector2(((at.x + 1) / 2) * eye.width, ((1 - at.y) / 2) * eye.height);
}

/** How many metres one pixel is at a place. */
export function metresPerPixel(eye: Eye, place: Vector3): number {
  const toPlace = place.clone().applyMatrix4(new Matrix4().copy(eye.camera.matrixWorld).invert());
  return (2 * Math.max(1e-6, -toPlace.z) * Math.tan((eye.camera.fov * Math.PI) / 360)) / eye.height;
}

export function rayThrough(eye: Eye, x: number, y: number): Ray {
  const origin = new Vector3().setFromMatrixPosition(eye.camera.matrixWorld);
  const through = new Vector3((x / eye.width) * 2 - 1, 1 - (y / eye.height) * 2, 0.5).unproject(eye.camera);
  return new Ray(origin, through.sub(origin).normalize());
}

/** How far along an axis the pointer is: the place of the axis nearest to the ray through the pointer. */
export function alongAxis(ray: Ray, origin: Vector3, axis: Vector3): number {
  const between = origin.clone().sub(ray.origin);
  const b = axis.dot(ray.direction);
  const slant = 1 - b * b;
  if (slant < 1e-6) return 0;
  return (b * ray.direction.dot(between) - axis.dot(between)) / slant;
}

/** The place where a ray meets the plane through a place, or null where it runs along it. */
export function onPlane(ray: Ray, origin: Vector3, normal: Vector3): Vector3 | null {
  const facing = normal.dot(ray.direction);
  if (Math.abs(facing) < 0.08) return null;
  const distance = normal.dot(origin.clone().sub(ray.origin)) / facing;
  return distance > 0 ? ray.at(distance, new Vector3()) : null;
}

/**
 * The angle in degrees from one direction to another about an axis, right-handed, in (−180, 180]. Both are taken in the
 * plane across the axis.
 */
export function angleAbout(axis: Vector3, from: Vector3, to: Vector3): number {
  const a = from.clone().projectOnPlane(axis);
  const b = to.clone().projectOnPlane(axis);
  const sine = axis.dot(new Vector3().crossVectors(a, b));
  return (Math.atan2(sine, a.dot(b)) * 180) / Math.PI;
}

/** A circle across an axis as places, for drawing. */
export function circleAbout(origin: Vector3, axis: Vector3, radius: number, count = 64): Vector3[] {
  const aside = Math.abs(axis.y) < 0.9 ? new Vector3(0, 1, 0) : new Vector3(1, 0, 0);
  const u = new Vector3().crossVectors(aside, axis).normalize();
  const v = new Vector3().crossVectors(axis, u);
  return Array.from({ length: count + 1 }, (_, i) => {
    const angle = (i / count) * Math.PI * 2;
    return origin
      .clone()
      .addScaledVector(u, Math.cos(angle) * radius)
      .addScaledVector(v, Math.sin(angle) * radius);
  });
}
