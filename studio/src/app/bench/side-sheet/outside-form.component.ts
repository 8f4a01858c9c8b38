import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { curvesOf, repeats, setOutside, type Curve, type Outside, type OutsideMode } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { optionsOf, type Option } from '../../ui/option';
import { SelectComponent } from '../../ui/select.component';
import { channelLabel } from '../stage/channel-label';
import { LoopSpeedComponent } from '../shaping/loop-speed.component';
import { SeamGaugeComponent } from '../shaping/seam-gauge.component';
import { Stage } from '../stage/stage';
import { OUTSIDE_LABELS } from '../stage/words';
import { common } from '../shaping/chosen-keys';

type End = 'before' | 'after';

const TIPS: Readonly<Record<OutsideMode, string>> = {
  hold: 'Hold: the end key’s value',
  'run-on': 'Run on: straight on with the slope it has there',
  loop: 'Loop: the same again',
  'loop-carry': 'Loop and carry: again from where it arrived, for wheels that turn for ever',
  swing: 'Swing: back and forth',
};

const PIN_TIPS: Readonly<Record<End, string>> = {
  before: 'Where the repeating part ends; what lies after it plays once',
  after: 'Where the repeating part begins; what lies before it plays once',
};

/** What happens before the first and after the last key of the chosen channels. */
@Component({
  selector: 'kz-outside-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LoopSpeedComponent, MatTooltip, NumberFieldComponent, SeamGaugeComponent, SelectComponent],
  template: `
    @if (channels().length > 0) {
      <section>
        <div class="section-head">
          <h3>Outside the keys</h3>
          <span>{{ name() }}</span>
        </div>
        <div class="pair">
          @for (end of ends(); track end.end) {
            <div class="stack">
              <kz-select
                [label]="end.end === 'before' ? 'Before' : 'After'"
                [tip]="end.mode ? tips[end.mode] : 'Mixed: choosing one sets all'"
                [options]="modes"
                [value]="end.mode"
                [mixed]="end.mode === null"
                (chosen)="setMode(end.end, $event)"
              />
              @if (end.repeats) {
                <button
                  class="button toggle"
                  [attr.aria-pressed]="end.count === null"
                  [matTooltip]="
                    end.count === null
                      ? 'For ever; press to give a count'
                      : 'A count of repetitions; press for ever'
                  "
                  (click)="set(end.end, { count: end.count === null ? 1 : null })"
                >
                  For ever
                </button>
                @if (end.count !== null) {
                  <kz-number-field
                    [name]="'Repetitions ' + end.end"
                    unit="times"
                    [values]="[end.count]"
                    [decimals]="2"
                    tip="How often it repeats, also 2.5; then it holds"
                    (changed)="setCount(end.end, end.count, $event)"
                  />
                  @if (end.until !== null) {
                    <kz-number-field
                      [name]="'Until frame ' + end.end"
                      unit="f"
                      [values]="[end.until]"
                      tip="The frame at which it ends repeating, instead of a count"
                      (changed)="setUntil(end.end, $event(end.until))"
                    />
                  }
                }
                <kz-select
                  [name]="'Pin ' + end.end"
                  [tip]="pinTips[end.end]"
                  [options]="pins()[end.end]"
                  [value]="end.pin"
                  (chosen)="set(end.end, { pin: $event })"
                />
              }
            </div>
          }
        </div>
        <kz-seam-gauge />
        <kz-loop-speed />
      </section>
    }
  `,
  styleUrl: './sheet.scss',
})
export class OutsideFormComponent {
  /** Channels to take where none is chosen: those of the chosen keys. */
  readonly fallback = input.required<readonly string[]>();
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  readonly modes: readonly Option<OutsideMode | null>[] = optionsOf(OUTSIDE_LABELS);
  readonly tips = TIPS;
  readonly pinTips = PIN_TIPS;

  private readonly curves = computed(() => {
    const project = this.stage.shown();
    const { channels } = this.studio.bench();
    const named = this.fallback().length > 0 ? this.fallback() : channels;
    return project ? curvesOf(project, named) : [];
  });
  readonly channels = computed(() => this.curves().map((curve) => curve.channel));
  readonly name = computed(() => {
    const project = this.stage.shown();
    const [only, ...more] = this.channels();
    if (!project || only === undefined) return '';
    return more.length > 0 ? `${more.length + 1} channels` : channelLabel(project, only).short;
  });
  readonly ends = computed(() => (['before', 'after'] as const).map((end) => this.read(end)));
  /** Where a pin can be: at an inner key that all of the curves have. */
  readonly pins = computed((): Readonly<Record<End, readonly Option<number | null>[]>> => {
    const [first, ...rest] = this.curves().map((curve) => curve.keys.slice(1, -1).map((key) => key.frame));
    const frames = (first ?? []).filter((frame) => rest.every((other) => other.includes(frame)));
    const listed = (word: string): readonly Option<number | null>[] => [
      { value: null, label: 'repeats all' },
      ...frames.map((frame) => ({ value: frame, label: `${word} f ${shownFrame(frame)}` })),
    ];
    return { before: listed('up to'), after: listed('from') };
  });

  private read(end: End) {
    const outsides = this.curves().map((curve) => curve[end]);
    const mode = common(outsides.map((outside) => outside.mode));
    return {
      end,
      mode,
      repeats: mode !== null && repeats(mode),
      count: outsides[0]?.count ?? null,
      pin: outsides[0]?.pin ?? null,
      until: this.untilOf(end),
    };
  }

  /** The frame at which the first curve's repeating ends by its count; null where it repeats for ever or has no period. */
  private untilOf(end: End): number | null {
    const [curve] = this.curves();
    const cycle = curve && repeatedSpan(curve, end);
    const count = curve?.[end].count ?? null;
    return !cycle || count === null ? null : cycle.edge + (end === 'after' ? 1 : -1) * count * cycle.period;
  }

  setUntil(end: End, frame: number): void {
    const [curve] = this.curves();
    const cycle = curve && repeatedSpan(curve, end);
    if (cycle) this.set(end, { count: Math.max(0, Math.abs(frame - cycle.edge) / cycle.period) });
  }

  setMode(end: End, mode: OutsideMode | null): void {
    if (mode !== null) this.set(end, { mode });
  }

  set(end: End, change: Partial<Outside>): void {
    const label = change.mode
      ? `${end === 'before' ? 'Before' : 'After'}: ${OUTSIDE_LABELS[change.mode]}`
      : `Outside the keys, ${end}`;
    this.studio.edit(label, (project) => setOutside(project, this.channels(), end, change));
  }

  setCount(end: End, count: number, change: (value: number) => number): void {
    this.set(end, { count: Math.max(0, change(count)) });
  }
}

/** Where repeating begins, in frames, and how long one repetition is; undefined where the keys have no length. */
function repeatedSpan(
  curve: Curve,
  end: End,
): { readonly edge: number; readonly period: number } | undefined {
  const [first, last] = [curve.keys[0]?.frame, curve.keys.at(-1)?.frame];
  if (first === undefined || last === undefined) return undefined;
  const { pin } = curve[end];
  const period = end === 'after' ? last - (pin ?? first) : (pin ?? last) - first;
  return period > 0 ? { edge: end === 'after' ? last : first, period } : undefined;
}
