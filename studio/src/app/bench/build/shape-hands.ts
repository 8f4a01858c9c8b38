import { Injectable, inject } from '@angular/core';
import {
  addMove,
  addTargetShape,
  channelName,
  encodeName,
  fromWorld,
  shapeMesh,
  type MeshPart,
  type Morph,
  type MorphMove,
  type Vec3,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { Poser } from '../posing/poser';
import { PartPicker } from '../stage/picker';
import { Stage } from '../stage/stage';
import { openLine } from './open-line';

/** Of the part's size: the soft radius of a new shape, and how far it goes. */
const NEW_RADIUS = 0.5;
const NEW_WAY = 0.15;

/** Target shapes made and tried. */
@Injectable({ providedIn: 'root' })
export class ShapeHands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly picker = inject(PartPicker);
  private readonly notices = inject(Notices);
  /** The shape whose moves show. */
  readonly open = openLine(this.studio);

  channelOf(part: MeshPart, name: string): string {
    return channelName(part.id, `morph.${encodeName(name)}`);
  }

  setAll(part: MeshPart, value: 0 | 1): void {
    this.poser.take(
      value === 0 ? 'All shapes to 0' : 'Try all shapes',
      part.morphs.map(({ name }) => ({ channel: this.channelOf(part, name), value })),
    );
  }

  /** Asks for a place on the mesh, and makes a shape that moves what lies round it, or adds that to one. */
  ask(part: MeshPart, shape: Morph | null = null): void {
    const { id, name } = part;
    this.picker.ask({
      words: `Pick the place on ${name} that moves`,
      refuse: (picked) =>
        picked === id ? null : `that is another part: pick a place on ${name}, in the view`,
      take: (_, place) => this.make(part, place, shape),
    });
  }

  private make(part: MeshPart, place: Vec3 | null, shape: Morph | null): void {
    const now = this.stage.now();
    const world = now?.out.world[now.program.structure.partIndex.get(part.id) ?? -1];
    const at = place && world ? fromWorld(world, place) : null;
    if (!at || part.geometry.shape === 'asset') {
      this.notices.warn('A place is picked on the mesh, in the view. Nothing was changed.');
      return;
    }
    const size = shapeMesh(part.geometry).positions.reduce((most, n) => Math.max(most, Math.abs(n)), 0);
    const length = Math.hypot(...at) || 1;
    const move: MorphMove = {
      at: [tidy(at[0]), tidy(at[1]), tidy(at[2])],
      radius: tidy(size * NEW_RADIUS),
      by: [0, 1, 2].map((n) => tidy((-at[n]! / length) * size * NEW_WAY)) as unknown as Vec3,
      scale: 1,
    };
    if (shape) {
      this.studio.edit(`Shape ${shape.name}`, (project) => addMove(project, part.id, shape.name, move));
      return;
    }
    let made = 'Shape';
    this.studio.edit('New target shape', (project) => {
      const result = addTargetShape(project, part.id, 'Shape', move);
      made = result.name;
      return result.project;
    });
    this.open.set(made);
    this.studio.set({ sheet: 'part' });
    this.poser.take(`Shape ${made}`, [{ channel: this.channelOf(part, made), value: 1 }]);
    this.notices.tell(
      `${made} shows wholly, as a loose edit: give its numbers, then set it where it is wanted`,
    );
  }
}

function tidy(metres: number): number {
  return Math.round(metres * 1e4) / 1e4 + 0;
}
