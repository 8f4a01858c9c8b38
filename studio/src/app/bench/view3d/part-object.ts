import {
  BufferAttribute,
  BufferGeometry,
  Color,
  EdgesGeometry,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  Vector3,
  type Object3D,
  type ShaderMaterial,
  type Texture,
  type Vector2,
} from 'three';
import { shapeMesh, type Geometry, type Part, type PathPart } from '@kaizen/core';
import { fillMaterial, outlineMaterial } from './ink-material';

/** Faces that meet at less than this have no line between them. */
const EDGE_ANGLE = 32;

/** Colours that all parts share; changed in place with the theme. */
export interface Inks {
  readonly ink: Color;
  readonly edge: Color;
  readonly select: Color;
  readonly shadow: Color;
  readonly size: Vector2;
  /** How much the night dims the fills. */
  dim: number;
}

interface Drawn {
  readonly solid: BufferGeometry;
  readonly edges: BufferGeometry;
}
const drawnCache = new WeakMap<object, Drawn>();

/** Geometry with its crease lines and the normals its outline grows along, made once. */
export function drawnGeometry(key: object, make: () => BufferGeometry): Drawn {
  let drawn = drawnCache.get(key);
  if (!drawn) {
    const solid = make();
    addOutward(solid);
    drawn = { solid, edges: new EdgesGeometry(solid, EDGE_ANGLE) };
    drawnCache.set(key, drawn);
  }
  return drawn;
}

export function shapeGeometry(geometry: Exclude<Geometry, { shape: 'asset' }>): BufferGeometry {
  const { positions, normals, indices } = shapeMesh(geometry);
  const buffer = new BufferGeometry();
  buffer.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3));
  buffer.setAttribute('normal', new BufferAttribute(Float32Array.from(normals), 3));
  buffer.setAttribute('uv', new BufferAttribute(new Float32Array((positions.length / 3) * 2), 2));
  buffer.setIndex(Array.from(indices));
  return buffer;
}

/** Averages the normals of vertices that share a place, so that an outline has no gaps at corners. */
function addOutward(geometry: BufferGeometry): void {
  const place = geometry.getAttribute('position');
  if (!geometry.getAttribute('normal')) geometry.computeVertexNormals();
  const normal = geometry.getAttribute('normal');
  const sums = new Map<string, Vector3>();
  const name = (i: number) =>
    `${place.getX(i).toFixed(5)} ${place.getY(i).toFixed(5)} ${place.getZ(i).toFixed(5)}`;
  for (let i = 0; i < place.count; i++) {
    const key = name(i);
    const sum = sums.get(key) ?? new Vector3();
    sums.set(key, sum.add(new Vector3(normal.getX(i), normal.getY(i), normal.getZ(i))));
  }
  const outward = new Float32Array(place.count * 3);
  for (let i = 0; i < place.count; i++)
    sums
      .get(name(i))!
      .clone()
      .normalize()
      .toArray(outward, i * 3);
  geometry.setAttribute('outward', new BufferAttribute(outward, 3));
}

/** Everything drawn for one part. Its matrices are set from outside; nothing in it moves by itself. */
export class PartObject {
  readonly group = new Group();
  readonly shadow = new Group();
  readonly solids: Mesh[] = [];
  private readonly outlines: ShaderMaterial[] = [];
  private readonly fills: { readonly color: Color; readonly base: Color }[] = [];

  constructor(
    readonly part: Part,
    private readonly inks: Inks,
  ) {
    this.group.matrixAutoUpdate = false;
    this.shadow.matrixAutoUpdate = false;
    if (part.kind === 'mesh' && part.geometry.shape !== 'asset') {
      const { geometry } = part;
      const drawn = drawnGeometry(geometry, () => shapeGeometry(geometry));
      this.addSolid(drawn, new Color(...part.material.baseColor.slice(0, 3)));
    } else if (part.kind === 'camera') {
      this.addLines(CAMERA_LINES);
    } else if (part.kind === 'light') {
      this.addLines(LIGHT_LINES);
    } else if (part.kind === 'path') {
      this.addLines(pathLines(part));
    }
  }

  addSolid({ solid, edges }: Drawn, base: Color, map: Texture | null = null): void {
    const color = base.clone();
    const mesh = new Mesh(solid, fillMaterial(color, map));
    mesh.userData['part'] = this.part.id;
    const outline = outlineMaterial(this.inks.ink, this.inks.size, 1.35);
    this.outlines.push(outline);
    this.fills.push({ color, base });
    this.solids.push(mesh);
    const lines = new LineSegments(edges, new LineBasicMaterial({ color: this.inks.edge }));
    this.group.add(mesh, new Mesh(solid, outline), lines);
    this.shadow.add(
      new Mesh(
        solid,
        new MeshBasicMaterial({
          color: this.inks.shadow,
          polygonOffset: true,
          polygonOffsetFactor: 2,
          polygonOffsetUnits: 2,
        }),
      ),
    );
    this.recolor();
  }

  private addLines(points: readonly (readonly [number, number, number])[]): void {
    const geometry = new BufferGeometry().setFromPoints(points.map((point) => new Vector3(...point)));
    const lines = new LineSegments(
      geometry,
      new LineBasicMaterial({ color: this.inks.ink, transparent: true, opacity: 0.55 }),
    );
    lines.userData['part'] = this.part.id;
    this.group.add(lines);
  }

  setSelected(selected: boolean): void {
    for (const outline of this.outlines) {
      outline.uniforms['color']!.value = selected ? this.inks.select : this.inks.ink;
      outline.uniforms['width']!.value = selected ? 2.6 : 1.35;
    }
  }

  /** Fills from the material's channels, dimmed at night. */
  setBase(r: number, g: number, b: number): void {
    const [fill] = this.fills;
    if (!fill || (fill.base.r === r && fill.base.g === g && fill.base.b === b)) return;
    fill.base.setRGB(r, g, b);
    this.recolor();
  }

  recolor(): void {
    for (const { color, base } of this.fills) color.copy(base).multiplyScalar(this.inks.dim);
  }

  dispose(): void {
    this.group.traverse(disposeMaterial);
    this.shadow.traverse(disposeMaterial);
    this.group.removeFromParent();
    this.shadow.removeFromParent();
  }
}

function disposeMaterial(object: Object3D): void {
  const material = (object as Mesh).material as ShaderMaterial | undefined;
  material?.dispose();
}

type Line = readonly [number, number, number];

/** A small frustum and body: a camera looking along −Z. */
const CAMERA_LINES: readonly Line[] = (() => {
  const corners: Line[] = [
    [-0.24, -0.15, -0.4],
    [0.24, -0.15, -0.4],
    [0.24, 0.15, -0.4],
    [-0.24, 0.15, -0.4],
  ];
  const lines: Line[] = [];
  corners.forEach((corner, i) => lines.push([0, 0, 0], corner, corner, corners[(i + 1) % 4]!));
  lines.push([-0.08, 0.17, -0.4], [0, 0.27, -0.4], [0, 0.27, -0.4], [0.08, 0.17, -0.4]);
  return lines;
})();

/** A star with a ray along −Z. */
const LIGHT_LINES: readonly Line[] = [
  [-0.15, 0, 0],
  [0.15, 0, 0],
  [0, -0.15, 0],
  [0, 0.15, 0],
  [0, 0, 0.15],
  [0, 0, -0.5],
];

function pathLines(part: PathPart): Line[] {
  const { points, closed } = part.path;
  const ends = closed ? [...points, points[0]!] : points;
  return ends.slice(1).flatMap((point, i) => [ends[i]!, point]);
}
