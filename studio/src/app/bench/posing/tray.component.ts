import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { onItem } from '../../commands/command';
import { offerCommands } from '../../commands/offer-commands';
import { RunDirective } from '../../commands/run.directive';
import type { LooseEdit } from '../../state/document';
import { Studio } from '../../state/studio';
import { decimalsOf, shownFrame, shownNumber } from '../../ui/amount';
import { channelLabel } from '../stage/channel-label';
import { toggled } from '../stage/picking';
import { Stage } from '../stage/stage';

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
  imports: [RunDirective],
  templateUrl: './tray.component.html',
  styleUrl: './tray.component.scss',
})
export class TrayComponent {
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
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
  readonly meant = computed(() =>
    (this.chosen().length > 0 ? this.chosen() : this.lines()).map(({ edit }) => edit),
  );

  constructor() {
    offerCommands([
      {
        id: 'key.loose-list',
        label: 'Every loose edit in the tray, or the newest alone',
        group: 'Keys',
        when: () => this.lines().length > 0,
        run: () => this.open.update((open) => !open),
      },
      onItem<LooseEdit>({
        id: 'key.loose-go',
        label: 'Go to where the newest loose edit was made',
        group: 'Keys',
        meant: () => this.last()?.edit ?? null,
        run: ({ frame }) => this.stage.goTo(frame),
      }),
    ]);
  }

  isPicked(line: TrayLine): boolean {
    return this.picked().includes(line.key);
  }

  toggle(line: TrayLine): void {
    this.picked.update((picked) => toggled(picked, line.key));
  }
}
