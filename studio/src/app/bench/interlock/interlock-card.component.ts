import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { curveOf, keyEvent, splitChannel, WAYS, type Awaited, type Interlock, type Way } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { decimalsOf, shownFrame } from '../../ui/amount';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SelectComponent } from '../../ui/select.component';
import { ChannelFieldComponent } from '../drive/channel-field.component';
import { channelLabel } from '../stage/channel-label';
import { ruleWords } from '../stage/interlock-words';
import { Stage } from '../stage/stage';
import { ClearanceComponent } from './clearance.component';
import { InterlockHands, standingWords } from './interlock-hands';

const WAY_WORDS: Readonly<Record<Way, string>> = { up: 'rising', down: 'falling', either: 'either way' };

/** One interlock of the chosen key: what it waits for, how long, how it stands, and what would put it right. */
@Component({
  selector: 'kz-interlock-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ChannelFieldComponent,
    ClearanceComponent,
    MatTooltip,
    NumberFieldComponent,
    RunDirective,
    SelectComponent,
  ],
  templateUrl: './interlock-card.component.html',
  styleUrl: '../links/card.scss',
})
export class InterlockCardComponent {
  readonly lock = input.required<Interlock>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  readonly hands = inject(InterlockHands);
  readonly ways: readonly Option<Way>[] = WAYS.map((value) => ({ value, label: WAY_WORDS[value] }));

  readonly says = computed(() => {
    const project = this.stage.shown();
    return project ? ruleWords(project, this.lock()) : '';
  });
  readonly state = computed(() => {
    const project = this.stage.shown();
    return project ? standingWords(project, this.lock()) : null;
  });
  /** The keys of the awaited channel, each with what happens there. */
  readonly keys = computed((): readonly Option<number>[] => {
    const project = this.stage.shown();
    const curve = project && curveOf(project, this.lock().after.channel);
    return (curve?.keys ?? []).map(({ frame }, i) => {
      const event = keyEvent(curve!, i);
      return { value: frame, label: `f ${shownFrame(frame)}${event === 'passes' ? '' : `, ${event}`}` };
    });
  });
  readonly other = computed(() => splitChannel(this.lock().after.channel).part);
  readonly unit = computed(() => {
    const project = this.stage.shown();
    return project ? channelLabel(project, this.lock().after.channel).unit : '';
  });
  readonly decimals = computed(() => decimalsOf(this.unit()));
  readonly unlocking = computed(() => {
    const project = this.stage.shown();
    const frame = project && this.hands.lockedFrom(project, this.lock());
    return typeof frame === 'number' ? `Unlock it, come at f ${shownFrame(frame)}` : null;
  });
  readonly earlier = computed(() => {
    const project = this.stage.shown();
    const frame = project && this.hands.earlierKey(project, this.lock());
    if (!project || typeof frame !== 'number') return null;
    return `${channelLabel(project, this.lock().after.channel).full} at f ${shownFrame(frame)}`;
  });

  setGap(change: (value: number) => number): void {
    this.hands.change(this.lock(), { gap: change(this.lock().gap) });
  }

  setChannel(channel: string): void {
    const { after, frame } = this.lock();
    if (after.kind === 'passes') {
      this.setAfter({ ...after, channel });
      return;
    }
    const project = this.stage.shown();
    const keys = (project && curveOf(project, channel)?.keys) ?? [];
    const key = keys.filter((each) => each.frame <= frame).at(-1) ?? keys[0];
    this.setAfter({ kind: 'key', channel, frame: key?.frame ?? 0 });
  }

  setNth(change: (value: number) => number): void {
    const { after } = this.lock();
    if (after.kind === 'passes') this.setAfter({ ...after, nth: Math.max(1, Math.round(change(after.nth))) });
  }

  setValue(change: (value: number) => number): void {
    const { after } = this.lock();
    if (after.kind === 'passes') this.setAfter({ ...after, value: change(after.value) });
  }

  setWay(way: Way): void {
    const { after } = this.lock();
    if (after.kind === 'passes') this.setAfter({ ...after, way });
  }

  setAfter(after: Awaited): void {
    this.hands.change(this.lock(), { after });
  }
}
