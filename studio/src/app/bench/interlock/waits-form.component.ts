import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { curveOf, splitChannel, type KeyRef } from '@kaizen/core';
import { onItem } from '../../commands/command';
import { offerCommands } from '../../commands/offer-commands';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { threadsOf } from '../plot/thread-rows';
import { channelLabel } from '../stage/channel-label';
import { PartPicker } from '../stage/picker';
import { Stage } from '../stage/stage';
import { InterlockCardComponent } from './interlock-card.component';
import { InterlockHands } from './interlock-hands';

/** What the one chosen key waits for, or two chosen keys tied. */
@Component({
  selector: 'kz-waits-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [InterlockCardComponent, RunDirective],
  template: `
    <section>
      <div class="section-head">
        <h3>Waits for</h3>
        @if (keys().length === 2) {
          <button class="button" kzRun="interlock.tie" kzTip="The later key waits for the earlier one">
            Tie the two
          </button>
        }
      </div>
      @for (lock of locks(); track lock.id) {
        <kz-interlock-card [lock]="lock" />
      } @empty {
        <p class="note">
          Nothing. A key can wait for a key of another channel, or for a value to be passed, and keeps its
          distance from then on.
        </p>
      }
      @if (oneKey()) {
        <div class="line">
          <button
            class="button"
            kzRun="interlock.after-key"
            kzTip="Pick a channel in the rows, or a part: the key waits for its last key before this one"
          >
            After a key …
          </button>
          <button
            class="button"
            kzRun="interlock.after-value"
            kzTip="Pick a channel in the rows, or a part: the key waits until its value has passed what it is at the playhead"
          >
            After a value …
          </button>
        </div>
      }
    </section>
  `,
  styleUrl: '../side-sheet/sheet.scss',
})
export class WaitsFormComponent {
  readonly keys = input.required<readonly KeyRef[]>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly picker = inject(PartPicker);
  private readonly hands = inject(InterlockHands);

  readonly oneKey = computed(() => (this.keys().length === 1 ? this.keys()[0]! : null));
  readonly locks = computed(() => {
    const project = this.stage.shown();
    if (!project) return [];
    return this.keys().flatMap(({ channel, frame }) =>
      threadsOf(project, channel).filter((lock) => lock.frame === frame),
    );
  });

  constructor() {
    const asking = (id: string, label: string, ask: (key: KeyRef) => void) =>
      onItem<KeyRef>({
        id,
        label,
        group: 'Keys',
        meant: () => this.oneKey(),
        when: () => !this.studio.readOnly(),
        run: ask,
      });
    offerCommands([
      asking('interlock.after-key', 'The chosen key waits for a key: pick what has it', (key) =>
        this.askKey(key),
      ),
      asking('interlock.after-value', 'The chosen key waits for a value to be passed: pick of what', (key) =>
        this.askValue(key),
      ),
    ]);
  }

  private askKey(key: KeyRef): void {
    this.ask(key, (channel) => {
      const project = this.stage.shown();
      const keys = (project && curveOf(project, channel)?.keys) ?? [];
      const awaited = keys.filter(({ frame }) => frame <= key.frame).at(-1) ?? keys[0];
      if (awaited) this.hands.tie(key, { kind: 'key', channel, frame: awaited.frame }, 0);
    });
  }

  private askValue(key: KeyRef): void {
    this.ask(key, (channel) => {
      const value = Number((this.stage.valueOf(channel) ?? 0).toFixed(3));
      this.hands.tie(key, { kind: 'passes', channel, value, way: 'either', nth: 1 }, 0);
    });
  }

  private ask(key: KeyRef, take: (channel: string) => void): void {
    const project = this.stage.shown();
    if (!project) return;
    const own = channelLabel(project, key.channel).full;
    this.picker.ask({
      words: `Pick what the key of ${own} waits for`,
      refuse: (part) =>
        part === splitChannel(key.channel).part || this.keyed(part)
          ? null
          : 'nothing of it has keys: pick a part that moves by keys, or a channel in the rows',
      take: (part, _, channel) => {
        const named = channel ?? this.keyed(part);
        if (named) take(named);
      },
    });
  }

  /** The first channel of a part that has keys. */
  private keyed(part: string): string | null {
    const project = this.stage.shown();
    const clip = project?.clips.find(({ id }) => id === project.activeClip);
    return clip?.curves.find(({ channel }) => splitChannel(channel).part === part)?.channel ?? null;
  }
}
