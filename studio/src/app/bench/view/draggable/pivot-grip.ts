import { computed, inject, Injectable, signal } from '@angular/core';
import { fromWorld, inWorld, partOf, shapeMesh, type Part, type Vec3 } from '@kaizen/core';
import { Vector3 } from 'three';
import { Studio } from '../../../state/studio';
import { shownNumber } from '../../../ui/amount';
import { LinkHands } from '../../links/link-hands';
import { Stage } from '../../stage/stage';
import { onPlane, rayThrough, toScreen, type Eye } from '../grip-math';
import { ViewDraggable, type At, type Drawn, type ViewDrag } from './draggable';
import { circleAt, crossAt } from './paths';

/** A corner, the middle of an edge, or a pivot nearer than this in pixels takes hold of the pivot. */
const NEAR = 12;

/** A place that the pivot can be put on, and what it is. */
interface Catch {
  readonly place: Vector3;
  readonly word: string;
}

/** A part whose pivot can be dragged, and its place in the world. */
interface Pivoted {
  readonly part: Part;
  readonly world: Float64Array;
}

/** The pivot as a thing to be dragged: across the view, onto corners, middles of edges, and pivots of others. Nothing else moves. */
@Injectable({ providedIn: 'root' })
export class PivotGrip extends ViewDraggable<Pivoted> {
  readonly cursor = 'move';
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly hands = inject(LinkHands);
  /** Where the pivot is while it is dragged, in the world. */
  private readonly dragged = signal<Vector3 | null>(null);

  private readonly chosen = computed((): Pivoted | null => {
    const { parts, pivotGrip } = this.studio.bench();
    const now = this.stage.now();
    const project = this.stage.shown();
    const part = project && partOf(project, parts.at(-1) ?? '');
    if (!pivotGrip || !now || !part || this.stage.playing() || this.studio.readOnly()) return null;
    const world = now.out.world[now.program.structure.partIndex.get(part.id) ?? -1];
    return world ? { part, world } : null;
  });

  draw(eye: Eye): readonly Drawn<Pivoted>[] {
    const chosen = this.chosen();
    if (!chosen) return [];
    const at = toScreen(eye, this.dragged() ?? new Vector3(...inWorld(chosen.world, chosen.part.pivot)));
    if (!at) return [];
    const found = {
      target: chosen,
      name: 'pivot',
      hint: 'Drag the pivot: onto a corner, the middle of an edge, another pivot',
    };
    return [
      {
        tone: 'loose',
        marks: [
          { path: circleAt(at, 10), look: 'glass' },
          { path: crossAt(at, 15), look: 'thin' },
        ],
        found: { ...found, line: [at], within: 12 },
      },
    ];
  }

  begin(eye: Eye, _: At, { part, world }: Pivoted): ViewDrag {
    const start = new Vector3(...inWorld(world, part.pivot));
    const facing = new Vector3().setFromMatrixColumn(eye.camera.matrixWorld, 2);
    const catches = this.catches(part, world);
    let place = start;
    return {
      move: ({ x, y }) => {
        const caught = nearest(catches, eye, x, y);
        place = caught?.place ?? onPlane(rayThrough(eye, x, y), start, facing) ?? place;
        this.dragged.set(place);
        const inside = fromWorld(world, toVec(place));
        const numbers = (inside ?? [0, 0, 0]).map((n) => shownNumber(n, 3)).join(' ');
        return caught ? `pivot on ${caught.word}` : `pivot ${numbers} m`;
      },
      end: () => {
        this.dragged.set(null);
        const inside = place === start ? null : fromWorld(world, toVec(place));
        if (inside)
          this.hands.movePivot(part.id, inside.map((n) => Math.round(n * 1e7) / 1e7 + 0) as unknown as Vec3);
      },
      cancel: () => this.dragged.set(null),
    };
  }

  /** Corners and middles of edges of the part's own shape, and the pivots of all others. */
  private catches(part: Part, world: Float64Array): readonly Catch[] {
    const now = this.stage.now();
    const pivots = (now?.program.structure.parts ?? []).flatMap((other, i): readonly Catch[] =>
      other.id === part.id
        ? []
        : [
            {
              place: new Vector3(...inWorld(now!.out.world[i]!, other.pivot)),
              word: `the pivot of ${other.name}`,
            },
          ],
    );
    if (part.kind !== 'mesh' || part.geometry.shape === 'asset') return pivots;
    const { positions, indices } = shapeMesh(part.geometry);
    const corner = (vertex: number): Vec3 =>
      [0, 1, 2].map((row) => positions[vertex * 3 + row]!) as unknown as Vec3;
    const own: Catch[] = [];
    for (let vertex = 0; vertex < positions.length / 3; vertex++)
      own.push({ place: new Vector3(...inWorld(world, corner(vertex))), word: 'a corner' });
    for (let i = 0; i < indices.length; i++) {
      const [a, b] = [corner(indices[i]!), corner(indices[i % 3 === 2 ? i - 2 : i + 1]!)];
      const middle = a.map((n, row) => (n + b[row]!) / 2) as unknown as Vec3;
      own.push({ place: new Vector3(...inWorld(world, middle)), word: 'the middle of an edge' });
    }
    return [...own, ...pivots];
  }
}

function nearest(catches: readonly Catch[], eye: Eye, x: number, y: number): Catch | null {
  let best = NEAR;
  let found: Catch | null = null;
  for (const each of catches) {
    const at = toScreen(eye, each.place);
    const off = at ? Math.hypot(at.x - x, at.y - y) : Infinity;
    if (off < best) [best, found] = [off, each];
  }
  return found;
}

function toVec(place: Vector3): Vec3 {
  return [place.x, place.y, place.z];
}
