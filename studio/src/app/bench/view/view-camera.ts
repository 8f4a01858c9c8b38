import { Box3, MOUSE, type PerspectiveCamera, Spherical, Vector3 } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { NamedView } from '../stage/view-control';
import type { SideOn } from './side-on';

/** What is nearer to the eye than this, in metres, is not drawn. */
const NEAR = 0.05;

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
    this.controls.addEventListener('start', () => this.setNear(NEAR));
    this.controls.addEventListener('change', () => {
      // Who asks where things are on the screen now may ask before the picture is drawn.
      camera.updateMatrixWorld();
      onChange();
    });
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
    this.setNear(NEAR);
    const distance = this.camera.position.distanceTo(this.target);
    this.camera.position.copy(this.target).addScaledVector(away.normalize(), distance);
    this.controls.update();
  }

  show(view: Exclude<NamedView, 'side-on'>): void {
    const ways = { side: [1, 0, 0], front: [0, 0, 1], top: [0, 1, 1e-4] } as const;
    this.lookFrom(new Vector3(...ways[view]));
  }

  /** Looks at some places from a side; where something stands before them, all that is nearer than they are is cut away until the view is moved. */
  sideOn({ away, cuts }: SideOn, places: readonly Vector3[]): void {
    this.lookFrom(away.clone());
    if (!cuts || places.length === 0) return;
    const nearest = Math.min(...places.map((place) => this.camera.position.clone().sub(place).dot(away)));
    this.setNear(Math.max(NEAR, nearest * 0.98));
  }

  private setNear(near: number): void {
    if (this.camera.near === near) return;
    this.camera.near = near;
    this.camera.updateProjectionMatrix();
  }

  dispose(): void {
    this.controls.dispose();
  }
}

const UP = new Vector3(0, 1, 0);
