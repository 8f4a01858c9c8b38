import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import {
  changeOwnNumber,
  channelName,
  encodeName,
  removeOwnNumber,
  renameOwnNumber,
  type CustomChannel,
  type Part,
} from '@kaizen/core';
import { onItem } from '../../commands/command';
import { offerCommands } from '../../commands/offer-commands';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { decimalsOf } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { InSightDirective } from '../../ui/in-sight.directive';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { Poser } from '../posing/poser';
import { Stage } from '../stage/stage';
import { NumberHands } from './number-hands';

/** Numbers of a part's own, with range and unit: a slider each at the playhead, and what each is. */
@Component({
  selector: 'kz-numbers-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [InSightDirective, MatTooltip, NumberFieldComponent, RunDirective],
  templateUrl: './numbers-form.component.html',
  styleUrl: './shapes-form.scss',
})
export class NumbersFormComponent {
  readonly part = input.required<Part>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly notices = inject(Notices);
  /** The number whose range and unit show. */
  readonly open = inject(NumberHands).open;

  constructor() {
    const editable = () => !this.studio.readOnly();
    offerCommands([
      onItem<CustomChannel>({
        id: 'number.remove',
        label: 'Remove the open number of the part with its keys',
        group: 'Pose',
        meant: () => this.part().custom.find(({ name }) => name === this.open()) ?? null,
        when: editable,
        run: (number) => this.remove(number),
      }),
    ]);
  }

  private channelOf({ name }: CustomChannel): string {
    return channelName(this.part().id, `custom.${encodeName(name)}`);
  }

  value(number: CustomChannel): number {
    return this.stage.valueOf(this.channelOf(number)) ?? number.value;
  }

  isDriven(number: CustomChannel): boolean {
    const program = this.stage.program();
    return program?.isDriven(program.structure.slots.get(this.channelOf(number)) ?? -1) ?? false;
  }

  isFixed(number: CustomChannel): boolean {
    return this.isDriven(number) || this.studio.readOnly();
  }

  isLoose(number: CustomChannel): boolean {
    const channel = this.channelOf(number);
    return this.studio.loose().some((edit) => edit.channel === channel);
  }

  /** From where to where its slider goes; null where it has no range. */
  rangeOf({ min, max }: CustomChannel): { readonly min: number; readonly max: number } | null {
    return typeof min === 'number' && typeof max === 'number' && min < max ? { min, max } : null;
  }

  ends(value: number | null | undefined): readonly number[] {
    return typeof value === 'number' ? [value] : [];
  }

  decimals(number: CustomChannel): number {
    return Math.min(2, decimalsOf(number.unit ?? ''));
  }

  /** What a slider gives, to a thousandth of its range: no more digits than a hand means. */
  rounded(number: CustomChannel, value: number): number {
    const range = this.rangeOf(number);
    const step = range ? 10 ** Math.floor(Math.log10((range.max - range.min) / 1000)) : 1e-3;
    return Number((Math.round(value / step) * step).toFixed(9));
  }

  show(number: CustomChannel, value: number): void {
    this.poser.show([{ channel: this.channelOf(number), value }]);
  }

  preview(number: CustomChannel, change: ((value: number) => number) | null): void {
    if (change) this.show(number, change(this.value(number)));
    else this.poser.cancel();
  }

  set(number: CustomChannel, value: number): void {
    this.poser.take(`Set ${number.name}`, [{ channel: this.channelOf(number), value }]);
  }

  change(number: CustomChannel, change: Partial<CustomChannel>): void {
    const { min, max } = { ...number, ...change };
    if (typeof min === 'number' && typeof max === 'number' && min > max) {
      this.notices.warn(`The least, ${min}, would be more than the greatest, ${max}. Nothing was changed.`);
      return;
    }
    this.studio.edit(`Change ${number.name}`, (project) =>
      changeOwnNumber(project, this.part().id, number.name, change),
    );
  }

  rename(number: CustomChannel, name: string): void {
    const next = name.trim();
    if (next === number.name) return;
    if (next === '' || this.part().custom.some((each) => each.name === next)) {
      this.notices.warn(
        `A number needs a name of its own; ${next === '' ? 'this one is empty' : `“${next}” is there already`}.`,
      );
      return;
    }
    this.studio.edit(`Rename ${number.name}`, (project) =>
      renameOwnNumber(project, this.part().id, number.name, next),
    );
    if (this.open() === number.name) this.open.set(next);
  }

  private remove(number: CustomChannel): void {
    this.studio.edit(`Remove ${number.name}`, (project) =>
      removeOwnNumber(project, this.part().id, number.name),
    );
  }
}
