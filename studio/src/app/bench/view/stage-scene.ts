import {
  Color,
  Matrix4,
  PerspectiveCamera,
  Raycaster,
  Scene,
  Vector2,
  Vector3,
  WebGLRenderer,
  type Object3D,
} from 'three';
import { SLOT_VISIBLE, type FrameOutput, type Program, type Project } from '@kaizen/core';
import { token } from '../../ui/theme';
import type { BytesOf } from './asset-loader';
import { Daylight } from './daylight';
import { DepthPass, type Lens } from './depth-pass';
import { isSkinned, lookAt, placePart, showLines, UNMOVED } from './drawn-part';
import { Ghosts } from './ghosts';
import { Ground } from './ground';
import type { Inks } from './ink-material';
import { partOnRay, type PartHit } from './part-on-ray';
import { SceneParts } from './scene-parts';
import type { DeformedSolid } from './solids/deformed-solid';
import type { ModelSolid } from './solids/model-solid';
import { RoughPass } from './rough-pass';
import { Seen } from './seen';
import { surroundingsAt } from './surroundings';
import { TrailObject, type Bead } from './trail';
import type { DrawnSoFar } from './view-screen';
import { drawsWithoutCard } from './without-card';

/** The three.js scene of a project: parts as ink drawings, ground, shadow, trail, ghosts. It only copies matrices and draws. */
export class StageScene {
  readonly renderer: WebGLRenderer;
  readonly camera = new PerspectiveCamera(37.8, 1, 0.05, 1000);
  private readonly scene = new Scene();
  private readonly ground = new Ground();
  private readonly ghosts = new Ghosts();
  private readonly trail = new TrailObject();
  private readonly inks: Inks = {
    ink: new Color(),
    edge: new Color(),
    select: new Color(),
    shadow: new Color(),
    size: new Vector2(1, 1),
    light: new Vector3(0, 1, 0),
    direct: { value: 1 },
    dim: { value: 1 },
    flatten: new Matrix4(),
  };
  private readonly parts: SceneParts;
  private readonly daylight = new Daylight(this.inks, this.scene, this.ground);
  readonly seen = new Seen();
  private depth: DepthPass | null = null;
  private rough: RoughPass | null = null;
  private readonly slow: boolean;
  private onChange: () => void = () => undefined;
  private onArrival: (share: number) => void = () => undefined;
  private onFailure: (model: string, reason: string) => void = () => undefined;

  constructor(
    canvas: HTMLCanvasElement | OffscreenCanvas,
    bytesOf: BytesOf,
    /** Runs something soon, or after all else, a few milliseconds of such things at a time. */
    inTurn: (run: () => void) => void,
  ) {
    this.parts = new SceneParts(this.inks, bytesOf, inTurn, {
      changed: () => this.onChange(),
      arrived: (share) => this.onArrival(share),
      failed: (model, reason) => this.onFailure(model, reason),
    });
    this.renderer = new WebGLRenderer({ canvas, antialias: true, preserveDrawingBuffer: true });
    this.slow = drawsWithoutCard(this.renderer.getContext() as WebGL2RenderingContext);
    this.renderer.setPixelRatio(Math.min(2, devicePixelRatio));
    this.scene.matrixWorldAutoUpdate = false;
    this.scene.add(
      this.ground.mesh,
      this.parts.solids.shadows,
      this.ghosts.group,
      this.parts.solids.group,
      this.parts.lines,
      this.trail.group,
    );
    this.recolor();
  }

  /** Called when something arrived late, such as a model's meshes, when a model can't be shown, and how many of those awaited have come, 0 to 1. */
  whenChanged(
    callback: () => void,
    failed: (model: string, reason: string) => void,
    arrived: (share: number) => void,
  ): void {
    this.onChange = callback;
    this.onFailure = failed;
    this.onArrival = arrived;
  }

  /** Takes another size; the canvas takes it when it is drawn next. */
  resize(width: number, height: number): void {
    if (width < 1 || height < 1) return;
    this.inks.size.set(width, height);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
  }

  recolor(): void {
    this.inks.ink.set(token('ink'));
    this.inks.edge.set(token('ink')).lerp(new Color(token('paper')), 0.35);
    this.inks.select.set(token('select'));
    this.ghosts.recolor(this.inks.select);
    this.inks.shadow.set(token('shadow'));
    this.daylight.recolor();
    this.trail.recolor(token('axis-x'), token('select'), token('ink'));
  }

  /** Takes over a list of parts: only parts that are other objects than before are drawn anew. */
  setProject(project: Project): void {
    this.daylight.takeFloor(project.floor);
    this.parts.setProject(project);
  }

  setSelected(ids: readonly string[]): void {
    this.parts.setSelected(ids);
  }

  /** Whether meshes of models are still on their way. */
  get isArriving(): boolean {
    return this.parts.isArriving;
  }

  get drawnSoFar(): DrawnSoFar {
    return this.parts.drawnSoFar;
  }

  /** A drawing was shown that had so much. */
  wasSeen(soFar: DrawnSoFar): void {
    this.parts.wasSeen(soFar);
  }

  /** Copies a frame's matrices, looks and visibility. */
  setFrame(program: Program, out: FrameOutput): void {
    const { parts, firstSlot, hierarchy } = program.structure;
    this.daylight.take(surroundingsAt(program, out));
    const hidden = new Uint8Array(parts.length);
    for (const i of hierarchy.order) {
      const slot = firstSlot[i]!;
      const parent = hierarchy.parents[i]!;
      hidden[i] = (parent >= 0 && hidden[parent] === 1) || out.channels[slot + SLOT_VISIBLE]! < 0.5 ? 1 : 0;
      const drawn = this.parts.of(parts[i]!.id);
      if (!drawn) continue;
      drawn.matrix.set(out.world[i]!);
      drawn.placement.set(isSkinned(drawn) ? UNMOVED : drawn.matrix);
      // Whether a camera shows the shot does not hide it from the hand that places it.
      const isHidden = drawn.part.kind === 'camera' ? parent >= 0 && hidden[parent] === 1 : hidden[i] === 1;
      drawn.hidden = isHidden || this.seen.hides(drawn.part.id);
      if (drawn.deformed) deform(program, out, drawn.part.id, drawn.deformed);
      if (!drawn.hidden) for (const bending of drawn.bending) bend(program, out, drawn.part.id, bending);
      placePart(drawn);
      showLines(drawn, out.channels, slot);
      const [first] = drawn.solids;
      if (first) first.batch.look(first.slot, lookAt(out.channels, slot));
    }
  }

  showTrail(beads: readonly Bead[]): void {
    this.trail.show(beads, this.renderer.getPixelRatio());
    place(this.trail.group);
  }

  /** Pale edges of the chosen parts at their keys before and after the playhead. */
  showGhosts(project: Project | null, program: Program | null, frame: number): void {
    const { selected } = this.parts;
    const within = this.parts.within(selected);
    const chosen = this.parts.all().filter(({ part }) => within.has(part.id));
    this.ghosts.show(project, program, frame, selected, chosen);
  }

  /** Whether anything but some parts and what hangs on them lies between a place and far away in a direction. */
  hides(place: Vector3, away: Vector3, except: readonly string[]): boolean {
    const own = this.parts.within(except);
    const others = this.parts.all().filter(({ part }) => !own.has(part.id));
    return partOnRay(others, new Raycaster(place, away), { lines: false }) !== null;
  }

  /** The part under a place of the canvas in pixels, or null. */
  pick(x: number, y: number, camera: PerspectiveCamera = this.camera): PartHit | null {
    const { x: width, y: height } = this.inks.size;
    const ray = new Raycaster();
    ray.params.Line.threshold = 0.06;
    ray.setFromCamera(new Vector2((x / width) * 2 - 1, 1 - (y / height) * 2), camera);
    const free = this.parts.all().filter(({ part }) => !this.seen.locks(part.id));
    return partOnRay(free, ray, { lines: true });
  }

  /** The corners of some parts' solids, or of all: what has to fit into a view. */
  corners(ids: readonly string[]): Vector3[] {
    const within = ids.length > 0 ? this.parts.within(ids) : null;
    const places: Vector3[] = [];
    const world = new Matrix4();
    for (const { part, solids, lines, matrix, placement, hidden } of this.parts.all()) {
      if (within ? !within.has(part.id) : hidden) continue;
      world.fromArray(matrix);
      const shapes = solids.map(({ batch }) => batch.drawn.solid);
      if (solids.length > 0) world.fromArray(placement);
      if (lines && within) shapes.push(lines.object.geometry);
      for (const shape of shapes) {
        shape.computeBoundingBox();
        const { min, max } = shape.boundingBox!;
        for (const x of [min.x, max.x])
          for (const y of [min.y, max.y])
            for (const z of [min.z, max.z]) places.push(new Vector3(x, y, z).applyMatrix4(world));
      }
    }
    return places;
  }

  /** Draws the lines of all cameras but the one that is looked through. */
  lookThrough(camera: string | null): void {
    for (const { part, lines } of this.parts.all())
      if (lines && part.kind === 'camera') lines.object.layers.set(part.id === camera ? 1 : 0);
  }

  /** Has the materials made ready, which goes on while the page does. */
  prepare(): void {
    this.renderer.compile(this.scene, this.camera);
  }

  /** Draws what a camera sees; with a lens, what lies outside its focus is blurred. */
  draw(target: Vector3, camera: PerspectiveCamera = this.camera, lens: Lens | null = null): void {
    const { x: width, y: height } = this.inks.size;
    if (!this.renderer.getSize(new Vector2()).equals(this.inks.size))
      this.renderer.setSize(width, height, false);
    this.ground.follow(target, camera.position.distanceTo(target), this.daylight.floor);
    place(this.ground.mesh);
    // A model is seen first by its faces alone, without a card also roughly: each time its triangles are drawn once more, and to smooth
    // their borders, takes as long again.
    const isFirst = !this.parts.isWhole;
    this.parts.solids.shadows.visible = this.daylight.throwsShadows && !isFirst;
    this.parts.solids.seenFrom(camera.getWorldPosition(new Vector3()), nearestCorner(camera));
    if (lens) (this.depth ??= new DepthPass()).draw(this.renderer, this.scene, camera, lens);
    else if (isFirst && this.slow) (this.rough ??= new RoughPass()).draw(this.renderer, this.scene, camera);
    else this.renderer.render(this.scene, camera);
  }

  dispose(): void {
    this.parts.dispose();
    this.depth?.dispose();
    this.rough?.dispose();
    this.renderer.dispose();
  }
}

/** How far the corners of the picture are from a camera where it begins to draw, in metres. */
function nearestCorner({ near, fov, aspect }: PerspectiveCamera): number {
  const up = Math.tan((fov * Math.PI) / 360);
  return near * Math.hypot(1, up, up * aspect);
}

/** Moves a deformed mesh as the part's channels say. */
function deform(program: Program, out: FrameOutput, part: string, deformed: DeformedSolid): void {
  const { slots } = program.structure;
  deformed.show(deformed.properties.map((property) => out.channels[slots.get(`${part}/${property}`)!]!));
}

/** Bends a model's mesh as the part's channels and the joints of its skin say. */
function bend(program: Program, out: FrameOutput, part: string, bending: ModelSolid): void {
  const { slots, partIndex } = program.structure;
  bending.show(
    bending.properties.map((property) => out.channels[slots.get(`${part}/${property}`)!]!),
    bending.joints.map((joint) => out.world[partIndex.get(joint)!]!),
  );
}

/** Brings world matrices up to date; the scene does not do it by itself. */
function place(object: Object3D): void {
  object.updateMatrixWorld(true);
}
