import { BufferGeometry, Color, LineBasicMaterial, LineSegments, Vector3 } from 'three';
import { ArcCurve, type CameraPart, type LightPart, type PathPart } from '@kaizen/core';

/** Parts without a mesh are drawn as lines. */
export type LinedPart = CameraPart | LightPart | PathPart;

type Line = readonly [number, number, number];

/** What a camera's or light's lines show of its channels. */
export interface LineLook {
  /** Camera: focal length over sensor height; distance of focus in metres. */
  readonly lens?: readonly [focal: number, focus: number];
  /** Of a chosen camera the place where it is sharp shows too. */
  readonly chosen?: boolean;
  /** Light: its colour, 0 to 1 each, and its intensity. */
  readonly light?: readonly [r: number, g: number, b: number, intensity: number];
}

/** The lines of a camera, light or path; they follow its channels. */
export class PartLines {
  readonly object: LineSegments<BufferGeometry, LineBasicMaterial>;
  private shown = '';

  constructor(
    readonly part: LinedPart,
    private readonly ink: Color,
  ) {
    const material = new LineBasicMaterial({ transparent: true, opacity: 0.7 });
    material.color = ink;
    this.object = new LineSegments(new BufferGeometry(), material);
    this.object.matrixAutoUpdate = false;
    this.object.userData['part'] = part.id;
    if (part.kind === 'path') this.draw(pathLines(part));
    else this.show({});
  }

  show({ lens, light, chosen = false }: LineLook): void {
    const look = JSON.stringify([lens, light, chosen]);
    if (this.part.kind === 'path' || look === this.shown) return;
    this.shown = look;
    if (this.part.kind === 'camera') this.draw(cameraLines(lens ?? [35 / 24, 5], chosen));
    else {
      const [r, g, b, intensity] = light ?? [1, 1, 1, 1];
      this.draw(lightLines(intensity));
      const strongest = Math.max(r, g, b, 1e-6);
      const isWhite = Math.min(r, g, b) / strongest > 0.97;
      this.object.material.color = isWhite
        ? this.ink
        : new Color(r / strongest, g / strongest, b / strongest);
    }
  }

  dispose(): void {
    this.object.geometry.dispose();
    this.object.material.dispose();
    this.object.removeFromParent();
  }

  private draw(points: readonly Line[]): void {
    this.object.geometry.dispose();
    this.object.geometry = new BufferGeometry().setFromPoints(points.map((point) => new Vector3(...point)));
  }
}

/** How long the drawn frustum is, in metres. */
const FRUSTUM = 0.4;
const ASPECT = 1.6;

/** A frustum as wide as the lens sees, a mark on top, and where asked a cross where it is sharp; looking along −Z. */
function cameraLines([focal, focus]: readonly [number, number], sharp: boolean): Line[] {
  const high = FRUSTUM / Math.max(0.05, focal) / 2;
  const wide = high * ASPECT;
  const corners: Line[] = [
    [-wide, -high, -FRUSTUM],
    [wide, -high, -FRUSTUM],
    [wide, high, -FRUSTUM],
    [-wide, high, -FRUSTUM],
  ];
  const lines: Line[] = [];
  corners.forEach((corner, i) => lines.push([0, 0, 0], corner, corner, corners[(i + 1) % 4]!));
  const top = high + 0.02;
  lines.push(
    [-0.08, top, -FRUSTUM],
    [0, top + 0.1, -FRUSTUM],
    [0, top + 0.1, -FRUSTUM],
    [0.08, top, -FRUSTUM],
  );
  const arm = 0.06;
  if (sharp) lines.push([-arm, 0, -focus], [arm, 0, -focus], [0, -arm, -focus], [0, arm, -focus]);
  return lines;
}

/** A star with a ray along −Z, the longer the stronger the light. */
function lightLines(intensity: number): Line[] {
  const ray = 0.3 + 0.2 * Math.log2(1 + Math.max(0, intensity));
  return [
    [-0.15, 0, 0],
    [0.15, 0, 0],
    [0, -0.15, 0],
    [0, 0.15, 0],
    [0, 0, 0.15],
    [0, 0, -ray],
  ];
}

/** Straight pieces that a path is drawn with, for each of its points. */
const STEPS_A_POINT = 16;

function pathLines(part: PathPart): Line[] {
  const { points, closed } = part.path;
  const curve = new ArcCurve(points, closed);
  const steps = points.length * STEPS_A_POINT;
  const [place, tangent] = [new Float64Array(3), new Float64Array(3)];
  const places = Array.from({ length: steps + 1 }, (_, i): Line => {
    // The last place of a closed path is the first again.
    curve.at(closed && i === steps ? 0 : (curve.length * i) / steps, place, tangent);
    return [place[0]!, place[1]!, place[2]!];
  });
  return places.slice(1).flatMap((point, i) => [places[i]!, point]);
}
