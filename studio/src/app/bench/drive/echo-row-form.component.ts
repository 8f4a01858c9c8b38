import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { channelName, curveOf, partOf, partProperties, splitChannel } from '@kaizen/core';
import { offerCommands } from '../../commands/offer-commands';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { channelLabel } from '../stage/channel-label';
import { Stage } from '../stage/stage';
import { DriveHands } from './drive-hands';

/** Several chosen parts that copy the first one: each a bit later and weaker, or all alike in phase. */
@Component({
  selector: 'kz-echo-row-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, NumberFieldComponent, RunDirective],
  template: `
    <section>
      <div class="section-head">
        <h3>In a row</h3>
        <span>{{ words() }}</span>
      </div>
      <div class="pair">
        <kz-number-field
          label="Each later by"
          unit="f"
          tip="Frames by which each comes later than the one before it"
          [values]="[delay()]"
          [decimals]="1"
          [framesPerSecond]="studio.framesPerSecond()"
          [disabled]="studio.readOnly()"
          (changed)="delay.set($event(delay()))"
        />
        <kz-number-field
          label="Each times"
          tip="How much of the motion each shows of what the one before it does: 1 all alike"
          [values]="[gain()]"
          [decimals]="2"
          [disabled]="studio.readOnly()"
          (changed)="gain.set($event(gain()))"
        />
        <kz-number-field
          label="Irregular by"
          unit="f"
          tip="Frames by which each may come earlier or later; another seed, another order"
          [values]="[vary()]"
          [decimals]="1"
          [framesPerSecond]="studio.framesPerSecond()"
          [disabled]="studio.readOnly()"
          (changed)="vary.set($event(vary()))"
        />
        <kz-number-field
          label="Seed"
          tip="Which irregular order; the same seed gives the same again"
          [values]="[seed()]"
          [decimals]="0"
          [disabled]="studio.readOnly()"
          (changed)="seed.set(whole($event(seed())))"
        />
      </div>
      <div class="line wrap">
        <button
          class="button toggle"
          [attr.aria-pressed]="spread()"
          matTooltip="The delays share the range evenly: n copies, each an n-th of the cycle later"
          (click)="spread.set(!spread())"
        >
          Evenly over the range
        </button>
        <button
          class="button toggle"
          [attr.aria-pressed]="alternate()"
          matTooltip="Every other one the other way round, as a mirror has it"
          (click)="alternate.set(!alternate())"
        >
          Mirrored in turn
        </button>
        <button
          class="button toggle"
          [attr.aria-pressed]="from() !== null"
          matTooltip="Only what happens from the playhead on is copied; before it they stand still"
          (click)="from.set(from() === null ? stage.frame() : null)"
        >
          {{ from() === null ? 'From here on' : 'From f ' + from() }}
        </button>
      </div>
      <button
        class="button main"
        kzRun="drive.echo-row"
        kzTip="Drivers for all of them; they stay live: the first one’s curves lead"
      >
        Let them echo {{ leaderName() }}
      </button>
    </section>
  `,
  styleUrl: '../posing/squash-form.scss',
})
export class EchoRowFormComponent {
  readonly studio = inject(Studio);
  readonly stage = inject(Stage);
  private readonly hands = inject(DriveHands);
  readonly delay = signal(3);
  readonly gain = signal(0.5);
  readonly vary = signal(0);
  readonly seed = signal(1);
  readonly spread = signal(false);
  readonly alternate = signal(false);
  readonly from = signal<number | null>(null);

  private readonly leader = computed(() => this.studio.bench().parts[0] ?? '');
  readonly leaderName = computed(() => {
    const project = this.stage.shown();
    return (project && partOf(project, this.leader())?.name) ?? '';
  });
  /** What is copied: the chosen channels of the first part, else all of its that have keys or drivers. */
  readonly properties = computed((): readonly string[] => {
    const project = this.stage.shown();
    const part = project && partOf(project, this.leader());
    if (!part) return [];
    const chosen = this.studio.bench().channels.filter((channel) => splitChannel(channel).part === part.id);
    if (chosen.length > 0) return chosen.map((channel) => splitChannel(channel).property);
    const program = this.stage.program();
    return partProperties(part)
      .map(({ property }) => property)
      .filter((property) => {
        const channel = channelName(part.id, property);
        const slot = program?.structure.slots.get(channel) ?? -1;
        return curveOf(project, channel)?.keys.length || program?.isDriven(slot);
      });
  });
  readonly words = computed(() => {
    const project = this.stage.shown();
    const names = this.properties().map(
      (property) => project && channelLabel(project, channelName(this.leader(), property)).short,
    );
    return names.length === 0 ? `${this.leaderName()} does not move yet` : names.join(', ');
  });

  constructor() {
    offerCommands([
      {
        id: 'drive.echo-row',
        label: 'Let the other parts echo the first, as the sheet Links says',
        group: 'Pose',
        when: () => !this.studio.readOnly() && this.properties().length > 0,
        run: () => this.make(),
      },
    ]);
  }

  whole(value: number): number {
    return Math.round(value);
  }

  private make(): void {
    const [leader, ...others] = this.studio.bench().parts;
    const range = this.stage.shown()?.range;
    if (leader === undefined || !range) return;
    const even = (range.end - range.start) / (others.length + 1);
    this.hands.echoRow(leader, others, {
      properties: this.properties(),
      delay: this.spread() ? even : this.delay(),
      gain: this.gain(),
      from: this.from(),
      to: null,
      alternate: this.alternate(),
      vary: this.vary(),
      seed: this.seed(),
    });
  }
}
