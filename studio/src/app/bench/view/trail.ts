import {
  BufferAttribute,
  BufferGeometry,
  Color,
  Group,
  LineBasicMaterial,
  LineSegments,
  Matrix4,
  Points,
  ShaderMaterial,
  Vector3,
} from 'three';
import {
  channelKind,
  curvesOfPart,
  lastShownFrame,
  splitChannel,
  type ChannelKind,
  type Part,
  type Program,
  type Project,
} from '@kaizen/core';

/** More beads than this are thinned out. */
const MOST_BEADS = 600;

export interface Bead {
  readonly frame: number;
  readonly place: Vector3;
  /** Metres a second, just after the frame. */
  readonly speed: number;
  readonly key: boolean;
  /** The part jumps from here to the next bead: a hold ends. */
  readonly jumps: boolean;
}

/** Where a part's pivot is at each frame of the range, with its keys and its jumps over holds. */
export function trailBeads(project: Project, program: Program, partId: string): Bead[] {
  const index = program.structure.parts.findIndex((part) => part.id === partId);
  const part = program.structure.parts[index];
  if (!part) return [];
  const { start } = project.range;
  const last = lastShownFrame(project.range);
  const step = Math.max(1, Math.ceil((last - start) / MOST_BEADS));
  const matrix = new Float64Array(16);
  const world = new Matrix4();
  const placeAt = (frame: number): Vector3 => {
    program.worldMatrix(index, frame, matrix);
    return new Vector3(...part.pivot).applyMatrix4(world.fromArray(matrix));
  };
  const held = heldEnds(project, part);
  const keys = keyFrames(project, part);
  const beads: Bead[] = [];
  const seconds = program.context.secondsPerFrame;
  for (let frame = start; frame <= last; frame += step) {
    const place = placeAt(frame);
    const speed = placeAt(frame + 0.01).distanceTo(place) / (0.01 * seconds);
    beads.push({
      frame,
      place,
      speed,
      key: keys.has(frame),
      jumps: held.some((end) => end > frame && end <= frame + step),
    });
  }
  return beads;
}

function keyFrames(project: Project, part: Part): Set<number> {
  return new Set(curvesOfPart(project, part).flatMap((curve) => curve.keys.map((key) => key.frame)));
}

const MOVING: readonly ChannelKind[] = ['place', 'turn', 'size', 'squash'];

/** Frames at which a held leg that moves a part, or a part above it, ends with another value. */
function heldEnds(project: Project, part: Part): number[] {
  const above = project.parts.find((candidate) => candidate.id === part.parent);
  const own = curvesOfPart(project, part).filter(({ channel }) =>
    MOVING.includes(channelKind(splitChannel(channel).property)),
  );
  const ends = own.flatMap((curve) =>
    curve.keys.flatMap((key, i) => {
      const next = curve.keys[i + 1];
      return key.leg.kind === 'hold' && next && next.value !== key.value ? [next.frame] : [];
    }),
  );
  return above ? [...ends, ...heldEnds(project, above)] : ends;
}

/** Draws a trail: a bead a frame from slow to fast, larger at keys, a line between them but over jumps. */
export class TrailObject {
  readonly group = new Group();
  private readonly slow = new Color();
  private readonly fast = new Color();
  private readonly ink = new Color();
  private readonly line = new LineBasicMaterial({ color: this.ink, transparent: true, opacity: 0.35 });
  private readonly dots = new ShaderMaterial({
    depthTest: false,
    transparent: true,
    vertexShader: `
      attribute float size;
      attribute vec3 tint;
      varying vec3 vTint;
      void main() {
        vTint = tint;
        gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
        gl_PointSize = size;
      }`,
    fragmentShader: `
      varying vec3 vTint;
      void main() {
        if (length(gl_PointCoord - 0.5) > 0.5) discard;
        gl_FragColor = vec4(vTint, 1.0);
        #include <colorspace_fragment>
      }`,
  });

  recolor(slow: string, fast: string, ink: string): void {
    this.slow.set(slow);
    this.fast.set(fast);
    this.ink.set(ink);
    this.line.color.copy(this.ink);
  }

  show(beads: readonly Bead[], pixelRatio: number): void {
    for (const child of [...this.group.children]) {
      (child as Points).geometry.dispose();
      child.removeFromParent();
    }
    const moves = beads.some((bead) => bead.place.distanceTo(beads[0]!.place) > 1e-4);
    if (!moves) return;
    const fastest = Math.max(...beads.map((bead) => bead.speed), 1e-9);
    const geometry = new BufferGeometry().setFromPoints(beads.map((bead) => bead.place));
    const tints = beads.flatMap(({ key, speed }) =>
      (key ? this.ink : this.slow.clone().lerp(this.fast, speed / fastest)).toArray(),
    );
    geometry.setAttribute('tint', new BufferAttribute(Float32Array.from(tints), 3));
    geometry.setAttribute(
      'size',
      new BufferAttribute(
        Float32Array.from(beads, (bead) => (bead.key ? 8 : 4.5) * pixelRatio),
        1,
      ),
    );
    const links = beads.slice(1).flatMap((bead, i) => (beads[i]!.jumps ? [] : [beads[i]!.place, bead.place]));
    const lines = new LineSegments(new BufferGeometry().setFromPoints(links), this.line);
    const points = new Points(geometry, this.dots);
    points.renderOrder = 5;
    this.group.add(lines, points);
  }
}
