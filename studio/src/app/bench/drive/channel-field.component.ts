import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { channelName, partOf, partProperties, splitChannel } from '@kaizen/core';
import { Studio } from '../../state/studio';
import type { Option } from '../../ui/option';
import { SelectComponent } from '../../ui/select.component';
import { channelLabel } from '../stage/channel-label';
import { namedApart } from '../stage/named-apart';
import { PartPicker } from '../stage/picker';
import { Stage } from '../stage/stage';

/** A channel of some part: chosen from two lists, or picked in the view or the rows. */
@Component({
  selector: 'kz-channel-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, SelectComponent],
  template: `
    <span class="label">{{ label() }}</span>
    <div class="row">
      <kz-select
        [name]="label() + ', part'"
        [tip]="tip()"
        [options]="parts()"
        [value]="at().part"
        (chosen)="toPart($event)"
      />
      <kz-select
        [name]="label() + ', channel'"
        tip="Which of its channels"
        [options]="properties()"
        [value]="at().property"
        (chosen)="changed.emit(name(at().part, $event))"
      />
      <button
        class="button"
        [disabled]="studio.readOnly()"
        matTooltip="Pick a part in the view, or a channel in the rows"
        (click)="ask()"
      >
        Pick
      </button>
    </div>
  `,
  styles: `
    :host {
      display: block;
    }
    .row {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
      gap: 6px;
    }
  `,
})
export class ChannelFieldComponent {
  readonly label = input.required<string>();
  readonly tip = input('');
  readonly channel = input.required<string>();
  readonly changed = output<string>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly picker = inject(PartPicker);
  readonly name = channelName;
  readonly at = computed(() => splitChannel(this.channel()));

  readonly parts = computed((): readonly Option<string>[] =>
    namedApart(this.stage.shown()?.parts ?? []).map(({ id, name }) => ({ value: id, label: name })),
  );
  readonly properties = computed((): readonly Option<string>[] => {
    const project = this.stage.shown();
    const part = project && partOf(project, this.at().part);
    return project && part
      ? partProperties(part).map(({ property }) => ({
          value: property,
          label: channelLabel(project, channelName(part.id, property)).short,
        }))
      : [];
  });

  /** The same property of another part where it has it, else its first. */
  toPart(id: string): void {
    const project = this.stage.shown();
    const part = project && partOf(project, id);
    if (!part) return;
    const has = partProperties(part).some(({ property }) => property === this.at().property);
    this.changed.emit(channelName(id, has ? this.at().property : 'translate.x'));
  }

  ask(): void {
    this.picker.ask({
      words: `Pick a channel for “${this.label()}”`,
      refuse: () => null,
      take: (part, _, channel) => {
        if (channel) this.changed.emit(channel);
        else this.toPart(part);
      },
    });
  }
}
