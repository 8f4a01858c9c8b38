import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import {
  addMove,
  addTargetShape,
  changeMove,
  channelName,
  encodeName,
  fromWorld,
  removeTargetShape,
  renameTargetShape,
  shapeMesh,
  type MeshPart,
  type Morph,
  type MorphMove,
  type Vec3,
} from '@kaizen/core';
import { onItem } from '../../commands/command';
import { offerCommands } from '../../commands/offer-commands';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { VectorFieldComponent, type VectorChange } from '../../ui/vector-field.component';
import { Poser } from '../posing/poser';
import { PartPicker } from '../stage/picker';
import { Stage } from '../stage/stage';

/** Of the part's size: the soft radius of a new shape, and how far it goes. */
const NEW_RADIUS = 0.5;
const NEW_WAY = 0.15;

/** Target shapes of a part: a slider each, and of those made here what they are made of. */
@Component({
  selector: 'kz-shapes-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, NumberFieldComponent, RunDirective, VectorFieldComponent],
  templateUrl: './shapes-form.component.html',
  styleUrl: './shapes-form.scss',
})
export class ShapesFormComponent {
  readonly part = input.required<MeshPart>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly picker = inject(PartPicker);
  private readonly notices = inject(Notices);
  /** The shape whose moves show. */
  readonly open = signal<string | null>(null);
  readonly canMake = computed(() => this.part().geometry.shape !== 'asset');

  constructor() {
    const editable = () => !this.studio.readOnly();
    const hasShapes = () => editable() && this.part().morphs.length > 0;
    const meant = () => this.part().morphs.find(({ name }) => name === this.open()) ?? null;
    offerCommands([
      {
        id: 'shape.new',
        label: 'New target shape of the chosen part: pick a place on it',
        group: 'Pose',
        when: () => editable() && this.canMake(),
        run: () => this.ask(),
      },
      onItem<Morph>({
        id: 'shape.more',
        label: 'One more place that moves with the open target shape: pick it',
        group: 'Pose',
        meant,
        when: (shape) => editable() && shape.moves !== undefined,
        run: (shape) => this.ask(shape),
      }),
      onItem<Morph>({
        id: 'shape.remove',
        label: 'Remove the open target shape with its keys',
        group: 'Pose',
        meant,
        when: editable,
        run: (shape) => this.remove(shape),
      }),
      {
        id: 'shape.all',
        label: 'Try all target shapes of the chosen part at 1',
        group: 'Pose',
        when: hasShapes,
        run: () => this.setAll(1),
      },
      {
        id: 'shape.none',
        label: 'All target shapes of the chosen part to 0',
        group: 'Pose',
        when: hasShapes,
        run: () => this.setAll(0),
      },
    ]);
  }

  channelOf({ name }: Morph): string {
    return channelName(this.part().id, `morph.${encodeName(name)}`);
  }
  value(shape: Morph): number {
    return this.stage.valueOf(this.channelOf(shape)) ?? shape.value;
  }

  show(shape: Morph, text: string): void {
    this.poser.show([{ channel: this.channelOf(shape), value: Number(text) }]);
  }
  set(shape: Morph, value: number): void {
    this.poser.take(`Shape ${shape.name}`, [{ channel: this.channelOf(shape), value }]);
  }
  setNumber(shape: Morph, change: (value: number) => number): void {
    this.set(shape, change(this.value(shape)));
  }
  private setAll(value: number): void {
    this.poser.take(
      value === 0 ? 'All shapes to 0' : 'Try all shapes',
      this.part().morphs.map((shape) => ({ channel: this.channelOf(shape), value })),
    );
  }

  /** Asks for a place on the mesh, and makes a shape that moves what lies round it, or adds that to one. */
  private ask(shape: Morph | null = null): void {
    const { id, name } = this.part();
    this.picker.ask({
      words: `Pick the place on ${name} that moves`,
      refuse: (part) => (part === id ? null : `that is another part: pick a place on ${name}, in the view`),
      take: (_, place) => this.make(place, shape),
    });
  }

  private make(place: Vec3 | null, shape: Morph | null): void {
    const part = this.part();
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
    this.poser.take(`Shape ${made}`, [
      { channel: channelName(part.id, `morph.${encodeName(made)}`), value: 1 },
    ]);
    this.notices.tell(
      `${made} shows wholly, as a loose edit: give its numbers, then set it where it is wanted`,
    );
  }

  rename(shape: Morph, name: string): void {
    const next = name.trim();
    if (next === shape.name) return;
    if (next === '' || this.part().morphs.some((each) => each.name === next)) {
      this.notices.warn(
        `A shape needs a name of its own; ${next === '' ? 'this one is empty' : `“${next}” is there already`}.`,
      );
      return;
    }
    this.studio.edit(`Rename ${shape.name}`, (project) =>
      renameTargetShape(project, this.part().id, shape.name, next),
    );
    if (this.open() === shape.name) this.open.set(next);
  }
  private remove(shape: Morph): void {
    this.studio.edit(`Remove ${shape.name}`, (project) =>
      removeTargetShape(project, this.part().id, shape.name),
    );
  }

  setMove(shape: Morph, at: number, change: Partial<MorphMove>): void {
    this.studio.edit(`Shape ${shape.name}`, (project) =>
      changeMove(project, this.part().id, shape.name, at, change),
    );
  }
  setRadius(shape: Morph, at: number, change: (value: number) => number): void {
    const radius = change(shape.moves![at]!.radius);
    if (radius > 0) this.setMove(shape, at, { radius });
  }
  setScale(shape: Morph, at: number, change: (value: number) => number): void {
    this.setMove(shape, at, { scale: change(shape.moves![at]!.scale) });
  }
  setVector(shape: Morph, at: number, name: 'at' | 'by', { axis, change }: VectorChange): void {
    const old = shape.moves![at]![name];
    this.setMove(shape, at, { [name]: old.map((n, i) => (i === axis ? change(n) : n)) as unknown as Vec3 });
  }
}

function tidy(metres: number): number {
  return Math.round(metres * 1e4) / 1e4 + 0;
}
