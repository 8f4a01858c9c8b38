import { CircleGeometry, Color, Matrix4, Mesh, Vector3 } from 'three';
import { groundMaterial } from './ink-material';

/** So far that its edge is the horizon. */
const HORIZON = 900;

/** The ground: paper up to the horizon with a grid of one metre, ten-metre lines darker, around what is looked at. */
export class Ground {
  private readonly colors = { paper: new Color(), fine: new Color(), coarse: new Color() };
  private readonly centre = new Vector3();
  private readonly reach = { value: 60 };
  readonly mesh = new Mesh(
    new CircleGeometry(HORIZON, 96).rotateX(-Math.PI / 2),
    groundMaterial(this.colors, this.centre, this.reach),
  );

  constructor() {
    this.mesh.renderOrder = -2;
  }

  recolor(paper: Color, fine: Color, coarse: Color): void {
    this.colors.paper.copy(paper);
    this.colors.fine.copy(fine);
    this.colors.coarse.copy(coarse);
  }

  /** Keeps the grid around what is looked at. */
  follow(target: Vector3, distance: number, floor: number): void {
    this.centre.copy(target);
    this.reach.value = Math.max(12, distance * 3);
    this.mesh.position.set(target.x, floor, target.z);
  }
}

/** Lays things flat on the floor along the light: the one flat shadow. */
export function shadowMatrix(floor: number, light: Vector3): Matrix4 {
  const [lx, lz] = [light.x / light.y, light.z / light.y];
  const height = floor + 0.002;
  return new Matrix4().set(1, -lx, 0, lx * height, 0, 0, 0, height, 0, -lz, 1, lz * height, 0, 0, 0, 1);
}
