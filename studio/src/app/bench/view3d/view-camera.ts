import { Box3, MOUSE, type PerspectiveCamera, Quaternion, Spherical, Vector3 } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { CameraPart, FrameOutput, Program } from '@kaizen/core';
import type { Bead } from './trail';

export type NamedView = 'side-on' | 'side' | 'front' | 'top';

/** The working view: orbit, pan and zoom at the pointer, and the views with a name. */
export class ViewCamera {
  readonly controls: OrbitControls;

  constructor(
    readonly camera: PerspectiveCamera,
    element: HTMLElement,
    onChange: () => void,
  ) {
    this.controls = new OrbitControls(camera, element);
    this.controls.zoomToCursor = true;
    this.controls.screenSpacePanning = true;
    this.controls.maxPolarAngle = Math.PI * 0.98;
    this.controls.mouseButtons = { LEFT: MOUSE.ROTATE, MIDDLE: MOUSE.PAN, RIGHT: MOUSE.PAN };
    this.controls.addEventListener('change', onChange);
    camera.position.set(5, 4, 8);
  }

  get target(): Vector3 {
    return this.controls.target;
  }

  /** While Space is held the left button pans. */
  setPanning(panning: boolean): void {
    this.controls.mouseButtons.LEFT = panning ? MOUSE.PAN : MOUSE.ROTATE;
  }

  /** Moves so that some places fill the view, from where it looks now; bars lie over its top and foot. */
  frame(places: readonly Vector3[]): void {
    const { camera } = this;
    const centre = new Box3().setFromPoints([...places]).getCenter(new Vector3());
    const back = camera.position.clone().sub(this.target).normalize();
    const right = new Vector3().crossVectors(UP, back).normalize();
    const up = new Vector3().crossVectors(back, right);
    const tall = Math.tan((camera.fov * Math.PI) / 360);
    let distance = 0.2;
    for (const place of places) {
      const corner = place.clone().sub(centre);
      const aside = Math.abs(corner.dot(right)) / (tall * camera.aspect * 0.94);
      const above = Math.abs(corner.dot(up)) / (tall * 0.78);
      distance = Math.max(distance, corner.dot(back) + Math.max(aside, above));
    }
    this.target.copy(centre);
    camera.position.copy(centre).addScaledVector(back, distance);
    this.controls.update();
  }

  /** Goes along with a place that moved, looking on as before. */
  follow(way: Vector3): void {
    this.target.add(way);
    this.camera.position.add(way);
    this.controls.update();
  }

  /** The view a project opens with: a little from the side and above, the whole of it. */
  open(places: readonly Vector3[]): void {
    const direction = new Vector3().setFromSpherical(new Spherical(1, 1.3, 0.42));
    this.camera.position.copy(this.target).add(direction);
    this.frame(places);
  }

  /** Looks along a direction: `away` is from what is looked at to the eye. */
  lookFrom(away: Vector3): void {
    const distance = this.camera.position.distanceTo(this.target);
    this.camera.position.copy(this.target).addScaledVector(away.normalize(), distance);
    this.controls.update();
  }

  show(view: NamedView, beads: readonly Bead[]): void {
    switch (view) {
      case 'side':
        this.lookFrom(new Vector3(1, 0, 0));
        break;
      case 'front':
        this.lookFrom(new Vector3(0, 0, 1));
        break;
      case 'top':
        this.lookFrom(new Vector3(0, 1, 1e-4));
        break;
      case 'side-on':
        this.lookFrom(sideOn(beads));
        break;
    }
  }

  dispose(): void {
    this.controls.dispose();
  }
}

const UP = new Vector3(0, 1, 0);

/** The direction to look from so that a motion reads left to right: across its longest way, level. */
export function sideOn(beads: readonly Bead[]): Vector3 {
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

/** Sets a three.js camera to a camera part at a frame. */
export function shotCamera(
  camera: PerspectiveCamera,
  program: Program,
  out: FrameOutput,
  index: number,
  part: CameraPart,
  aspect: number,
): void {
  const slot = program.structure.slots.get(`${part.id}/camera.focalLength`);
  const focal = slot === undefined ? part.camera.focalLength : out.channels[slot]!;
  camera.fov = (2 * Math.atan(part.camera.sensorHeight / 2 / Math.max(1, focal)) * 180) / Math.PI;
  camera.near = part.camera.near;
  camera.far = part.camera.far;
  camera.aspect = aspect;
  camera.updateProjectionMatrix();
  camera.matrixWorld.fromArray(out.world[index]!);
  const scale = new Vector3();
  camera.matrixWorld.decompose(camera.position, new Quaternion(), scale);
  camera.quaternion.setFromRotationMatrix(
    camera.matrixWorld.clone().scale(new Vector3(1 / scale.x, 1 / scale.y, 1 / scale.z)),
  );
  camera.updateMatrixWorld();
}
