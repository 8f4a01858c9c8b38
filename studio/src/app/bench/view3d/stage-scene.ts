import {
  Color,
  Group,
  LineBasicMaterial,
  LineSegments,
  PerspectiveCamera,
  Raycaster,
  Scene,
  Vector2,
  Vector3,
  WebGLRenderer,
  type BufferGeometry,
  type Object3D,
} from 'three';
import {
  SLOT_VISIBLE,
  withDescendants,
  type FrameOutput,
  type Part,
  type Program,
  type Project,
} from '@kaizen/core';
import { token } from '../../ui/theme';
import { neighbourKeyFrame } from '../key-time';
import { assetMeshes } from './asset-loader';
import { Ground, shadowMatrix } from './ground';
import { drawnGeometry, PartObject, type Inks } from './part-object';
import { TrailObject, type Bead } from './trail';

/** The three.js scene of a project: parts as ink drawings, ground, shadow, trail, ghosts. It only copies matrices and draws. */
export class StageScene {
  readonly renderer: WebGLRenderer;
  readonly camera = new PerspectiveCamera(37.8, 1, 0.05, 1000);
  private readonly scene = new Scene();
  private readonly ground = new Ground();
  private readonly shadows = new Group();
  private readonly partsGroup = new Group();
  private readonly ghosts = new Group();
  private readonly ghostMaterial = new LineBasicMaterial({ transparent: true, opacity: 0.45 });
  private readonly trail = new TrailObject();
  private readonly objects = new Map<string, PartObject>();
  private readonly inks: Inks = {
    ink: new Color(),
    edge: new Color(),
    select: new Color(),
    shadow: new Color(),
    size: new Vector2(1, 1),
    dim: 1,
  };
  private parts: readonly Part[] = [];
  private selected: readonly string[] = [];
  private floor = 0;
  private onChange: () => void = () => undefined;

  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, preserveDrawingBuffer: true });
    this.renderer.setPixelRatio(Math.min(2, devicePixelRatio));
    this.scene.matrixWorldAutoUpdate = false;
    this.scene.add(this.ground.mesh, this.shadows, this.ghosts, this.partsGroup, this.trail.group);
    this.recolor();
  }

  /** Called when something arrived late, such as a model's meshes. */
  whenChanged(callback: () => void): void {
    this.onChange = callback;
  }

  resize(width: number, height: number): void {
    if (width < 1 || height < 1) return;
    this.renderer.setSize(width, height, false);
    this.inks.size.set(width, height);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
  }

  recolor(): void {
    this.inks.ink.set(token('ink'));
    this.inks.edge.set(token('ink')).lerp(new Color(token('paper')), 0.35);
    this.inks.select.set(token('select'));
    this.ghostMaterial.color.copy(this.inks.select);
    this.inks.shadow.set(token('shadow'));
    this.inks.dim = document.documentElement.dataset['theme'] === 'night' ? 0.5 : 1;
    this.scene.background = new Color(token('view-sky'));
    this.ground.recolor(token('paper'), token('view-grid'), token('rule'));
    this.trail.recolor(token('axis-x'), token('select'), token('ink'));
    for (const object of this.objects.values()) object.recolor();
  }

  /** Takes over a list of parts: only parts that are other objects than before are drawn anew. */
  setProject(project: Project): void {
    this.floor = project.floor;
    if (project.parts === this.parts) return;
    this.parts = project.parts;
    const kept = new Set(project.parts.map((part) => part.id));
    for (const [id, object] of this.objects) {
      if (kept.has(id)) continue;
      object.dispose();
      this.objects.delete(id);
    }
    for (const part of project.parts) {
      const object = this.objects.get(part.id);
      if (object?.part === part) continue;
      object?.dispose();
      this.addPart(project, part);
    }
    this.setSelected(this.selected);
  }

  private addPart(project: Project, part: Part): void {
    const object = new PartObject(part, this.inks);
    this.objects.set(part.id, object);
    this.partsGroup.add(object.group);
    this.shadows.add(object.shadow);
    if (part.kind !== 'mesh' || part.geometry.shape !== 'asset') return;
    const { asset: id, node } = part.geometry;
    const asset = project.assets.find((candidate) => candidate.id === id);
    if (!asset) return;
    void assetMeshes(asset, node).then((meshes) => {
      if (this.objects.get(part.id) !== object) return;
      for (const mesh of meshes)
        object.addSolid(
          drawnGeometry(mesh.geometry, () => mesh.geometry),
          mesh.color,
          mesh.map,
        );
      object.setSelected(this.selected.includes(part.id));
      this.onChange();
    });
  }

  setSelected(ids: readonly string[]): void {
    this.selected = ids;
    const within = this.within(ids);
    for (const [id, object] of this.objects) object.setSelected(within.has(id));
  }

  /** Some parts with all that hangs below them. */
  private within(ids: readonly string[]): ReadonlySet<string> {
    return new Set(ids.flatMap((id) => withDescendants(this.parts, id)));
  }

  /** Copies a frame's matrices, looks and visibility. */
  setFrame(program: Program, out: FrameOutput): void {
    const flatten = shadowMatrix(this.floor);
    const { parts, firstSlot, hierarchy } = program.structure;
    const hidden = new Uint8Array(parts.length);
    for (const i of hierarchy.order) {
      const object = this.objects.get(parts[i]!.id);
      const slot = firstSlot[i]!;
      const parent = hierarchy.parents[i]!;
      hidden[i] = (parent >= 0 && hidden[parent] === 1) || out.channels[slot + SLOT_VISIBLE]! < 0.5 ? 1 : 0;
      if (!object) continue;
      object.group.matrix.fromArray(out.world[i]!);
      object.shadow.matrix.multiplyMatrices(flatten, object.group.matrix);
      object.group.visible = object.shadow.visible = hidden[i] === 0;
      if (parts[i]!.kind === 'mesh') {
        const look = slot + SLOT_VISIBLE + 1;
        object.setBase(out.channels[look]!, out.channels[look + 1]!, out.channels[look + 2]!);
      }
      place(object.group);
      place(object.shadow);
    }
  }

  showTrail(beads: readonly Bead[]): void {
    this.trail.show(beads, this.renderer.getPixelRatio());
    place(this.trail.group);
  }

  /** Pale edges of the chosen parts at their keys before and after the playhead. */
  showGhosts(project: Project | null, program: Program | null, frame: number): void {
    this.ghosts.clear();
    if (!project || !program) return;
    const within = this.within(this.selected);
    const matrix = new Float64Array(16);
    const chosen = { channels: [], parts: this.selected };
    for (const way of [-1, 1] as const) {
      const at = neighbourKeyFrame(project, chosen, frame, way);
      if (at === null) continue;
      program.structure.parts.forEach((part, i) => {
        const object = within.has(part.id) ? this.objects.get(part.id) : undefined;
        if (!object) return;
        program.worldMatrix(i, at, matrix);
        for (const child of object.group.children) {
          if (child instanceof LineSegments) this.addGhost(child.geometry as BufferGeometry, matrix);
        }
      });
    }
    place(this.ghosts);
  }

  private addGhost(geometry: BufferGeometry, matrix: Float64Array): void {
    const lines = new LineSegments(geometry, this.ghostMaterial);
    lines.matrixAutoUpdate = false;
    lines.matrix.fromArray(matrix);
    this.ghosts.add(lines);
  }

  /** The part under a place of the canvas in pixels, or null. */
  pick(x: number, y: number, camera: PerspectiveCamera = this.camera): string | null {
    const { x: width, y: height } = this.inks.size;
    const ray = new Raycaster();
    ray.params.Line.threshold = 0.06;
    ray.setFromCamera(new Vector2((x / width) * 2 - 1, 1 - (y / height) * 2), camera);
    const hit = ray
      .intersectObjects(
        this.partsGroup.children.filter((child) => child.visible),
        true,
      )
      .find(({ object }) => object.userData['part'] !== undefined);
    return (hit?.object.userData['part'] as string | undefined) ?? null;
  }

  /** The corners of some parts' solids, or of all: what has to fit into a view. */
  corners(ids: readonly string[]): Vector3[] {
    const within = ids.length > 0 ? this.within(ids) : null;
    const places: Vector3[] = [];
    for (const part of this.parts) {
      if (within && !within.has(part.id)) continue;
      const object = this.objects.get(part.id);
      for (const solid of object?.solids ?? []) {
        solid.geometry.computeBoundingBox();
        const { min, max } = solid.geometry.boundingBox!;
        for (const x of [min.x, max.x])
          for (const y of [min.y, max.y])
            for (const z of [min.z, max.z])
              places.push(new Vector3(x, y, z).applyMatrix4(object!.group.matrix));
      }
    }
    return places;
  }

  draw(target: Vector3, camera: PerspectiveCamera = this.camera): void {
    this.ground.follow(target, camera.position.distanceTo(target), this.floor);
    place(this.ground.mesh);
    this.renderer.render(this.scene, camera);
  }

  dispose(): void {
    for (const object of this.objects.values()) object.dispose();
    this.renderer.dispose();
  }
}

/** Brings world matrices up to date; the scene does not do it by itself. */
function place(object: Object3D): void {
  object.updateMatrixWorld(true);
}
