import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  changeCurves,
  curveOf,
  cycleOf,
  loopSpeed,
  secondsPerFrame,
  setLoopSpeed,
  setRoundSeconds,
  type Curve,
  type Project,
} from '@kaizen/core';
import { onItem } from '../../commands/command';
import { offerCommands } from '../../commands/offer-commands';
import { CommandRegistry } from '../../commands/registry';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { decimalsOf, shownFrame, shownNumber } from '../../ui/amount';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { SelectComponent } from '../../ui/select.component';
import { channelLabel } from '../stage/channel-label';
import type { Proposal } from '../stage/proposals';
import { Proposals } from '../stage/proposals';
import { ShapeTools } from './shape-tools';

/** How the speed of a loop is said. */
type Saying = 'rpm' | 'speed' | 'seconds';
type Keep = 'times' | 'values';

/** One way to get to the speed that was typed, and what comes of it. */
interface Way {
  readonly keep: Keep;
  readonly label: string;
  readonly tip: string;
  readonly told: string;
  /** Null where this loop can't have the speed so. */
  readonly offer: Proposal | null;
}

const DEGREES_A_SECOND_PER_RPM = 6;

/** The speed of the chosen loop: typed as rpm, per second or seconds a turn; both ways to get there are shown before one is taken. */
@Component({
  selector: 'kz-loop-speed',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberFieldComponent, SelectComponent, RunDirective],
  template: `
    @if (speed(); as now) {
      <div role="group" aria-label="Loop speed">
        <div class="line">
          <kz-number-field
            label="Loop speed"
            [unit]="unit()"
            [values]="[wanted() ?? current()]"
            [decimals]="3"
            tip="Type the speed that the loop should have; both results show below before anything changes"
            (changed)="want($event)"
          />
          <kz-select
            label="said as"
            tip="Revolutions a minute, per second, or the seconds of a turn"
            [options]="sayings()"
            [value]="saying()"
            (chosen)="say($event)"
          />
        </div>
        @for (result of results(); track result.keep) {
          <div class="result">
            <button
              class="button"
              kzRun="shape.loop-speed"
              [kzOf]="result"
              [kzTip]="result.tip"
              (pointerenter)="rest(result.offer)"
              (pointerleave)="proposals.drop()"
              (focus)="rest(result.offer)"
              (blur)="proposals.drop()"
            >
              {{ result.label }}
            </button>
            <span class="soft">{{ result.told }}</span>
          </div>
        }
        <button
          class="button"
          kzRun="shape.even"
          kzTip="One speed for ever: the round becomes straight and carries on"
        >
          Make it even
        </button>
      </div>
    }
  `,
  styles: `
    .line {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px;
      margin-bottom: 6px;
    }
    .result {
      display: flex;
      align-items: center;
      gap: 8px;
      margin-bottom: 6px;
      font-size: 12px;
      line-height: 15px;
    }
    .result .button {
      width: 106px;
      flex: none;
    }
  `,
})
export class LoopSpeedComponent {
  readonly studio = inject(Studio);
  readonly registry = inject(CommandRegistry);
  readonly proposals = inject(Proposals);
  private readonly tools = inject(ShapeTools);
  private readonly said = signal<Saying | null>(null);
  readonly wanted = signal<number | null>(null);

  constructor() {
    offerCommands([
      onItem<Way>({
        id: 'shape.loop-speed',
        label: 'The loop as fast as typed, its values kept',
        group: 'Shape',
        meant: () => this.results()[0] ?? null,
        when: ({ offer }) => !this.studio.readOnly() && offer !== null,
        run: ({ offer }) => this.take(offer),
      }),
    ]);
  }

  private readonly channel = computed(() =>
    this.tools.channels().length === 1 ? this.tools.channels()[0]! : null,
  );
  private readonly curve = computed(() => {
    const project = this.studio.project();
    const channel = this.channel();
    return project && channel !== null ? curveOf(project, channel) : undefined;
  });
  readonly speed = computed(() => {
    const project = this.studio.project();
    const curve = this.curve();
    return project && curve ? loopSpeed(project, curve) : null;
  });
  private readonly channelUnit = computed(() => {
    const project = this.studio.project();
    const channel = this.channel();
    return project && channel !== null ? channelLabel(project, channel).unit : '';
  });
  readonly sayings = computed(() =>
    this.waysToSay().filter(({ value }) => this.goes() || value === 'seconds'),
  );
  /** Whether a round goes anywhere: else it has a time, but no speed. */
  readonly goes = computed(() => (this.speed()?.perSecond ?? 0) !== 0);
  private readonly waysToSay = computed(() => [
    ...(this.channelUnit() === '°' ? [{ value: 'rpm' as const, label: 'rpm' }] : []),
    { value: 'speed' as const, label: `${this.channelUnit() || '1'}/s` },
    { value: 'seconds' as const, label: this.isTurn() ? 'seconds a turn' : 'seconds a round' },
  ]);
  readonly saying = computed((): Saying => {
    const said = this.said();
    return said !== null && this.sayings().some(({ value }) => value === said)
      ? said
      : this.sayings()[0]!.value;
  });
  readonly unit = computed(
    () => ({ rpm: 'rpm', speed: `${this.channelUnit()}/s`, seconds: 's' })[this.saying()],
  );
  /** The loop's speed as it is said now. */
  readonly current = computed(() => {
    const speed = this.speed();
    if (!speed) return 0;
    if (this.saying() === 'rpm') return speed.perSecond / DEGREES_A_SECOND_PER_RPM;
    if (this.saying() === 'speed') return speed.perSecond;
    return this.isTurn() ? 360 / Math.abs(speed.perSecond) : speed.seconds;
  });

  private isTurn(): boolean {
    return this.channelUnit() === '°' && this.goes();
  }

  say(saying: Saying): void {
    this.said.set(saying);
    this.wanted.set(null);
  }

  want(change: (value: number) => number): void {
    this.wanted.set(change(this.wanted() ?? this.current()));
  }

  private perSecond(amount: number): number {
    const sign = Math.sign(this.speed()?.perSecond ?? 1) || 1;
    if (this.saying() === 'rpm') return amount * DEGREES_A_SECOND_PER_RPM;
    return this.saying() === 'speed' ? amount : (sign * 360) / amount;
  }

  private changed(project: Project, curve: Curve, amount: number, keep: Keep): Curve | null {
    if (this.saying() === 'seconds' && !this.isTurn())
      return keep === 'values' ? setRoundSeconds(project, curve, amount) : null;
    return setLoopSpeed(project, curve, this.perSecond(amount), keep);
  }

  readonly results = computed((): readonly Way[] => {
    const project = this.studio.project();
    const curve = this.curve();
    const amount = this.wanted();
    if (!project || !curve || amount === null) return [];
    return (['values', 'times'] as const).map((keep) => {
      const next = this.changed(project, curve, amount, keep);
      const offer: Proposal | null = next && {
        label: 'Loop speed',
        edit: (now: Project) =>
          changeCurves(now, [curve.channel], (at) => this.changed(now, at, amount, keep) ?? at),
      };
      return {
        keep,
        label: keep === 'values' ? 'Keep the values' : 'Keep the times',
        tip:
          keep === 'values'
            ? 'The round goes as far as now, in another time'
            : 'Keys stay where they are in time; the round goes another way',
        told: next ? this.tell(project, next) : 'not possible for this loop',
        offer,
      };
    });
  });

  private tell(project: Project, curve: Curve): string {
    const speed = loopSpeed(project, curve);
    const cycle = speed && cycleOf(curve, speed.end);
    if (!cycle) return '';
    const unit = this.channelUnit();
    const seconds = cycle.period * secondsPerFrame(project.rate);
    const last = curve.keys[cycle.end]!.frame;
    return `${shownNumber(cycle.carry, decimalsOf(unit))} ${unit} in ${shownFrame(cycle.period)} f, ${shownNumber(seconds, 3)} s; ends at f ${shownFrame(last)}`;
  }

  rest(offer: Proposal | null): void {
    if (offer) this.proposals.show(offer);
  }

  private take(offer: Proposal | null): void {
    this.proposals.take(offer);
    this.wanted.set(null);
  }
}
