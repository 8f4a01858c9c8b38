import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  signal,
} from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { SIDE_MODES, type KeyedCurve, type MapDriver, type SideMode } from '@kaizen/core';
import { offerCommands } from '../../commands/offer-commands';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { decimalsOf } from '../../ui/amount';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { channelLabel } from '../stage/channel-label';
import { Stage } from '../stage/stage';
import { DriveHands } from './drive-hands';
import { MapInChart } from './map-in-chart';
import { MapPlotComponent } from './map-plot.component';

const SIDE_WORDS: Readonly<Record<Exclude<SideMode, 'set'>, string>> = {
  smooth: 'Smooth',
  bounded: 'Bounded',
  flat: 'Flat',
  linear: 'Linear',
};
/** Heights of the head and room below, in pixels. */
const [HEAD, EDGE] = [46, 12] as const;

/** The curve of a map in the Chart, in place of the curves over time: its input is the axis, its points have sides as keys have. */
@Component({
  selector: 'kz-map-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MapPlotComponent, MatTooltip, NumberFieldComponent, RunDirective, SegmentsComponent],
  template: `
    <div class="head">
      <strong [matTooltip]="title()">{{ title() }}</strong>
      @if (point(); as key) {
        <kz-number-field
          name="Input of the point"
          tip="The input’s value at the chosen point"
          [unit]="inputUnit()"
          [values]="[key.frame]"
          [decimals]="3"
          [disabled]="studio.readOnly()"
          (changed)="move({ frame: $event(key.frame), value: key.value })"
        />
        <kz-number-field
          name="Output of the point"
          tip="What comes out there"
          [unit]="outputUnit()"
          [values]="[key.value]"
          [decimals]="decimals()"
          [disabled]="studio.readOnly()"
          (changed)="move({ frame: key.frame, value: $event(key.value) })"
        />
        <kz-segments
          name="How the curve meets the point"
          [options]="sides"
          [value]="key.out.mode"
          (chosen)="setSides($event)"
        />
      } @else {
        <span class="soft">Choose a point: drag it, or give it numbers; a double click adds one</span>
      }
      <span class="room"></span>
      <button class="button" kzRun="chart.time" kzTip="The curves over time again">Back to time</button>
    </div>
    <kz-map-plot
      [driver]="driver()"
      [width]="size().width"
      [height]="size().height"
      [(chosen)]="chosen"
      (previewed)="show($event)"
      (changed)="keep($event)"
    />
  `,
  styles: `
    :host {
      position: absolute;
      inset: 0;
      z-index: 4;
      display: flex;
      flex-direction: column;
      padding: 0 12px 12px;
      background: var(--paper);
    }
    .head {
      display: flex;
      flex: none;
      gap: 10px;
      align-items: center;
      height: 46px;

      strong {
        flex: 0 1 auto;
        min-width: 0;
        overflow: hidden;
        text-overflow: ellipsis;
        white-space: nowrap;
      }
      kz-number-field {
        flex: none;
        width: 96px;
      }
      kz-segments,
      .button {
        flex: none;
      }
    }
    .room {
      flex: 1;
    }
  `,
})
export class MapChartComponent {
  readonly driver = input.required<MapDriver>();
  readonly studio = inject(Studio);
  private readonly place = inject(MapInChart);
  private readonly stage = inject(Stage);
  private readonly hands = inject(DriveHands);
  readonly chosen = signal<number | null>(null);
  readonly size = signal({ width: 640, height: 240 });
  readonly sides: readonly Option<SideMode>[] = SIDE_MODES.flatMap((value) =>
    value === 'set' ? [] : [{ value, label: SIDE_WORDS[value] }],
  );

  constructor() {
    offerCommands([
      {
        id: 'chart.time',
        label: 'Back to the curves over time, from the map in the Chart',
        group: 'Chart',
        run: () => this.place.id.set(null),
      },
    ]);
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const watch = new ResizeObserver(() => {
      const { clientWidth, clientHeight } = host;
      this.size.set({
        width: Math.max(200, clientWidth - 2 * EDGE),
        height: Math.max(100, clientHeight - HEAD - EDGE),
      });
    });
    afterNextRender(() => watch.observe(host));
    inject(DestroyRef).onDestroy(() => watch.disconnect());
  }

  private label(channel: string) {
    const project = this.stage.shown();
    return project ? channelLabel(project, channel) : null;
  }
  readonly title = computed(() => {
    const [target, source] = [this.label(this.driver().target), this.label(this.driver().input)];
    return `${target?.full ?? ''} over ${source?.full ?? ''}`;
  });
  readonly inputUnit = computed(() => this.label(this.driver().input)?.unit ?? '');
  readonly outputUnit = computed(() => this.label(this.driver().target)?.unit ?? '');
  readonly decimals = computed(() => Math.max(2, decimalsOf(this.outputUnit())));
  readonly point = computed(() => {
    const chosen = this.chosen();
    return chosen === null ? null : (this.driver().curve.keys[chosen] ?? null);
  });

  move(to: { readonly frame: number; readonly value: number }): void {
    const { curve } = this.driver();
    const at = this.chosen();
    const [before, after] = at === null ? [] : [curve.keys[at - 1], curve.keys[at + 1]];
    const fits = to.frame > (before?.frame ?? -Infinity) && to.frame < (after?.frame ?? Infinity);
    if (at === null || !fits) return;
    this.keep({ ...curve, keys: curve.keys.map((key, i) => (i === at ? { ...key, ...to } : key)) });
  }

  setSides(mode: SideMode): void {
    const { curve } = this.driver();
    const keys = curve.keys.map((key, i) =>
      i === this.chosen()
        ? { ...key, in: { ...key.in, mode }, out: { ...key.out, mode }, joined: mode !== 'linear' }
        : key,
    );
    this.keep({ ...curve, keys });
  }

  show(curve: KeyedCurve | null): void {
    this.hands.show(this.driver().id, this.undo(), curve && { curve });
  }
  keep(curve: KeyedCurve): void {
    this.hands.change(this.driver().id, this.undo(), { curve });
  }
  private undo(): string {
    return `Map of ${this.label(this.driver().target)?.full ?? ''}`;
  }
}
