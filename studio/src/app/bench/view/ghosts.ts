import { Group, LineBasicMaterial, LineSegments, type BufferGeometry, type Color } from 'three';
import type { Program, Project } from '@kaizen/core';
import { neighbourKeyFrame } from '../stage/key-time';
import { UNMOVED, type DrawnPart } from './drawn-part';
import { creaseLines } from './solids/edge-quads';
import type { ModelSolid } from './solids/model-solid';

/** Pale edges of parts where they stand at their keys before and after the playhead. */
export class Ghosts {
  readonly group = new Group();
  private readonly material = new LineBasicMaterial({ transparent: true, opacity: 0.45 });
  private readonly creases = new WeakMap<BufferGeometry, BufferGeometry>();

  recolor(color: Color): void {
    this.material.color.copy(color);
  }

  /** Draws the ghosts of some drawn parts; none without a project. `selected` are the parts whose keys count. */
  show(
    project: Project | null,
    program: Program | null,
    frame: number,
    selected: readonly string[],
    chosen: readonly DrawnPart[],
  ): void {
    this.group.clear();
    if (!project || !program) return;
    const places = new Map(program.structure.parts.map((part, i) => [part.id, i]));
    const matrix = new Float64Array(16);
    for (const way of [-1, 1] as const) {
      const at = neighbourKeyFrame(project, { channels: [], parts: selected }, frame, way);
      if (at === null) continue;
      for (const drawn of chosen) {
        const { part, solids, lines } = drawn;
        const index = places.get(part.id);
        if (index === undefined) continue;
        program.worldMatrix(index, at, matrix);
        for (const bending of drawn.bending)
          this.add(creasesAt(program, part.id, bending, at), bending.joints.length > 0 ? UNMOVED : matrix);
        if (drawn.bending.length === 0)
          for (const { batch } of solids) this.add(this.creasesOf(batch.drawn.edges), matrix);
        if (lines) this.add(lines.object.geometry, matrix);
      }
    }
    this.group.updateMatrixWorld(true);
  }

  private creasesOf(edges: BufferGeometry): BufferGeometry {
    const known = this.creases.get(edges);
    if (known) return known;
    const lines = creaseLines(edges);
    // Edges that are still awaited have none yet.
    if (edges.getIndex()) this.creases.set(edges, lines);
    return lines;
  }

  private add(geometry: BufferGeometry, matrix: Float64Array): void {
    const lines = new LineSegments(geometry, this.material);
    lines.matrixAutoUpdate = false;
    lines.matrix.fromArray(matrix);
    this.group.add(lines);
  }
}

/** The creases of a model's mesh as its channels and joints have it at a frame. */
function creasesAt(program: Program, part: string, bending: ModelSolid, frame: number): BufferGeometry {
  const { slots, partIndex } = program.structure;
  const values = bending.properties.map((property) =>
    program.channelValue(slots.get(`${part}/${property}`)!, frame),
  );
  const joints = bending.joints.map((joint) => {
    const world = new Float64Array(16);
    program.worldMatrix(partIndex.get(joint)!, frame, world);
    return world;
  });
  return bending.creasesAt(values, joints);
}
