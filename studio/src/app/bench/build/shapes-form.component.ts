import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import {
  changeMove,
  removeTargetShape,
  renameTargetShape,
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
import { InSightDirective } from '../../ui/in-sight.directive';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { VectorFieldComponent, type VectorChange } from '../../ui/vector-field.component';
import { Poser } from '../posing/poser';
import { Stage } from '../stage/stage';
import { ShapeHands } from './shape-hands';

/** Target shapes of a part: a slider each, and of those made here what they are made of. */
@Component({
  selector: 'kz-shapes-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [InSightDirective, MatTooltip, NumberFieldComponent, RunDirective, VectorFieldComponent],
  templateUrl: './shapes-form.component.html',
  styleUrl: './shapes-form.scss',
})
export class ShapesFormComponent {
  readonly part = input.required<MeshPart>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly hands = inject(ShapeHands);
  private readonly notices = inject(Notices);
  /** The shape whose moves show. */
  readonly open = this.hands.open;
  readonly canMake = computed(() => this.part().geometry.shape !== 'asset');

  constructor() {
    const editable = () => !this.studio.readOnly();
    const meant = () => this.part().morphs.find(({ name }) => name === this.open()) ?? null;
    offerCommands([
      onItem<Morph>({
        id: 'shape.more',
        label: 'One more place that moves with the open target shape: pick it',
        group: 'Pose',
        meant,
        when: (shape) => editable() && shape.moves !== undefined,
        run: (shape) => this.hands.ask(this.part(), shape),
      }),
      onItem<Morph>({
        id: 'shape.remove',
        label: 'Remove the open target shape with its keys',
        group: 'Pose',
        meant,
        when: editable,
        run: (shape) => this.remove(shape),
      }),
    ]);
  }

  channelOf({ name }: Morph): string {
    return this.hands.channelOf(this.part(), name);
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
