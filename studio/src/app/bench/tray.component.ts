import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { CommandRegistry } from '../commands/registry';
import type { LooseEdit } from '../state/document';
import { Studio } from '../state/studio';
import { decimalsOf, shownFrame, shownNumber } from '../ui/amount';
import { channelLabel } from './channel-label';
import { toggled } from './picking';
import { Poser } from './poser';
import { Stage } from './stage';

/** A line of the tray. */
interface TrayLine {
  readonly key: string;
  readonly edit: LooseEdit;
  readonly name: string;
  readonly value: string;
  readonly was: string;
  readonly at: string;
  readonly elsewhere: boolean;
}

/** The tray of loose edits: changed values that wait to be keyed or discarded, all or picked ones, at their frames or here. */
@Component({
  selector: 'kz-tray',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
  templateUrl: './tray.component.html',
  styleUrl: './tray.component.scss',
})
export class TrayComponent {
  readonly studio = inject(Studio);
  readonly stage = inject(Stage);
  readonly poser = inject(Poser);
  readonly registry = inject(CommandRegistry);
  readonly open = signal(false);
  private readonly picked = signal<readonly string[]>([]);

  readonly lines = computed((): readonly TrayLine[] => {
    const project = this.studio.project();
    const { frame } = this.studio.bench();
    if (!project) return [];
    return this.studio.loose().map((edit) => {
      const label = channelLabel(project, edit.channel);
      const text = (value: number) =>
        shownNumber(value, decimalsOf(label.unit)) +
        (label.unit === '°' ? '°' : label.unit && ` ${label.unit}`);
      return {
        key: `${edit.channel}@${edit.frame}`,
        edit,
        name: label.full,
        value: text(edit.value),
        was: text(edit.was),
        at: shownFrame(edit.frame),
        elsewhere: edit.frame !== frame,
      };
    });
  });
  readonly last = computed(() => this.lines().at(-1));
  readonly chosen = computed(() => this.lines().filter(({ key }) => this.picked().includes(key)));
  /** What the presses work on: the picked lines, else all. */
  private readonly meant = computed(() =>
    (this.chosen().length > 0 ? this.chosen() : this.lines()).map(({ edit }) => edit),
  );

  isPicked(line: TrayLine): boolean {
    return this.picked().includes(line.key);
  }

  toggle(line: TrayLine): void {
    this.picked.update((picked) => toggled(picked, line.key));
  }

  key(here: boolean): void {
    this.poser.keyLoose(this.meant(), here ? this.stage.frame() : undefined);
    this.picked.set([]);
  }

  discard(): void {
    this.poser.discardLoose(this.meant());
    this.picked.set([]);
  }
}
