import { Group } from 'three';
import { withDescendants, type Part, type Project } from '@kaizen/core';
import { prepareMesh } from '../../workers/mesh.client';
import { Arrivals } from './arrivals';
import { assetMeshes, type BytesOf } from './asset-loader';
import { placePart, type DrawnPart } from './drawn-part';
import { FirstLook } from './first-look';
import type { Inks } from './ink-material';
import { PartLines } from './part-lines';
import type { AssetMesh } from './plain-meshes';
import { deformedSolid } from './solids/deformed-solid';
import { bends, ModelSolid } from './solids/model-solid';
import { Solids } from './solids/solids';
import type { DrawnSoFar } from './view-screen';

/** Told what comes late: something is to be drawn, a share of what is awaited has come, 0 to 1, a model can't be shown. */
export interface SceneHeard {
  changed(): void;
  arrived(share: number): void;
  failed(model: string, reason: string): void;
}

/** What is drawn of a project's parts: solids, lines, and the meshes of models, which come late. */
export class SceneParts {
  readonly lines = new Group();
  readonly solids: Solids;
  private readonly drawn = new Map<string, DrawnPart>();
  private parts: readonly Part[] = [];
  private chosen: readonly string[] = [];
  /** Parts whose model's meshes are on their way, and meshes whose edges are. */
  private readonly meshes: Arrivals;
  private readonly edges: Arrivals;
  private readonly firstLook = new FirstLook();

  constructor(
    private readonly inks: Inks,
    private readonly bytesOf: BytesOf,
    /** Runs something soon, a few milliseconds of such things at a time. */
    private readonly inTurn: (run: () => void) => void,
    private readonly heard: SceneHeard,
  ) {
    this.meshes = new Arrivals(
      () => heard.changed(),
      (share) => heard.arrived(share),
    );
    this.edges = new Arrivals(() => heard.changed());
    this.solids = new Solids(inks, (mesh) => this.firstLook.after(() => prepareMesh(mesh)), this.edges);
    this.lines.matrixWorldAutoUpdate = false;
  }

  /** What is drawn of a part, if anything is. */
  of(part: string): DrawnPart | undefined {
    return this.drawn.get(part);
  }

  all(): readonly DrawnPart[] {
    return [...this.drawn.values()];
  }

  /** The parts that are chosen, without what hangs on them. */
  get selected(): readonly string[] {
    return this.chosen;
  }

  /** Takes over a list of parts: only parts that are other objects than before are drawn anew. */
  setProject(project: Project): void {
    if (project.parts === this.parts) return;
    this.parts = project.parts;
    const kept = new Set(project.parts.map((part) => part.id));
    for (const [id, drawn] of this.drawn) if (!kept.has(id)) this.removePart(drawn);
    for (const part of project.parts) {
      const drawn = this.drawn.get(part.id);
      if (drawn?.part === part) continue;
      if (drawn) this.removePart(drawn);
      this.addPart(project, part);
    }
    this.setSelected(this.chosen);
  }

  private removePart(drawn: DrawnPart): void {
    for (const solid of drawn.solids) this.solids.remove(solid);
    drawn.lines?.dispose();
    this.drawn.delete(drawn.part.id);
  }

  private addPart(project: Project, part: Part): void {
    const lined = part.kind === 'camera' || part.kind === 'light' || part.kind === 'path';
    const drawn: DrawnPart = {
      part,
      solids: [],
      ownLooks: [],
      lines: lined ? new PartLines(part, this.inks.ink) : null,
      deformed: deformedSolid(part),
      bending: [],
      placement: new Float64Array(16),
      matrix: new Float64Array(16),
      hidden: true,
      chosen: false,
    };
    this.drawn.set(part.id, drawn);
    if (drawn.lines) this.lines.add(drawn.lines.object);
    if (part.kind !== 'mesh') return;
    if (part.geometry.shape !== 'asset') {
      const { deformed } = drawn;
      drawn.solids.push(
        deformed ? this.solids.addDeformed(part.id, deformed) : this.solids.addShape(part.id, part.geometry),
      );
      return;
    }
    const { asset: id, node } = part.geometry;
    const asset = project.assets.find((candidate) => candidate.id === id);
    if (!asset) return;
    this.meshes.await();
    assetMeshes(asset, node, this.bytesOf).then(
      (meshes) =>
        this.inTurn(() => {
          this.addMeshes(drawn, meshes);
          this.meshes.arrived();
        }),
      (error: unknown) => {
        this.meshes.arrived();
        if (this.drawn.get(part.id) === drawn)
          this.heard.failed(asset.name, error instanceof Error ? error.message : String(error));
      },
    );
  }

  /** Whether meshes of models are still on their way. */
  get isArriving(): boolean {
    return !this.meshes.isOver;
  }

  /** Whether all edges of what is drawn are there. */
  get isWhole(): boolean {
    return this.edges.isOver;
  }

  get drawnSoFar(): DrawnSoFar {
    if (this.isArriving) return 'drawing';
    return this.isWhole ? 'drawn' : 'faces';
  }

  /** A drawing was shown that had so much. */
  wasSeen(soFar: DrawnSoFar): void {
    if (soFar !== 'drawing') this.firstLook.seen();
  }

  /** A model's meshes arrive late: a part that went or was changed meanwhile takes none. */
  private addMeshes(drawn: DrawnPart, meshes: readonly AssetMesh[]): void {
    if (this.drawn.get(drawn.part.id) !== drawn) return;
    for (const [i, mesh] of meshes.entries()) {
      const { geometry, color, map, skin } = mesh;
      const { part } = drawn;
      if (part.kind === 'mesh' && bends(part, geometry, skin)) {
        const bending = new ModelSolid(part, geometry, skin);
        drawn.bending.push(bending);
        drawn.solids.push(this.solids.addBending(part.id, i, bending, map));
      } else drawn.solids.push(this.solids.addMesh(part.id, mesh));
      drawn.ownLooks.push([color.r, color.g, color.b, 1, 0, 0, 0, 0.8, 0]);
    }
    for (const [i, { batch, slot }] of drawn.solids.entries()) {
      batch.look(slot, drawn.ownLooks[i]!);
      batch.choose(slot, drawn.chosen);
    }
    placePart(drawn);
  }

  setSelected(ids: readonly string[]): void {
    this.chosen = ids;
    const within = this.within(ids);
    for (const [id, drawn] of this.drawn) {
      drawn.chosen = within.has(id);
      for (const { batch, slot } of drawn.solids) batch.choose(slot, drawn.chosen);
    }
  }

  /** Some parts with all that hangs below them. */
  within(ids: readonly string[]): ReadonlySet<string> {
    return new Set(ids.flatMap((id) => withDescendants(this.parts, id)));
  }

  dispose(): void {
    for (const { lines } of this.drawn.values()) lines?.dispose();
    this.drawn.clear();
    this.solids.dispose();
  }
}
