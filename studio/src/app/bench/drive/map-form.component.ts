import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import type { KeyedCurve, MapDriver } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { MapPlotComponent } from './map-plot.component';

/** The curve of a map as a table: at which value of the input which value comes out, straight or smooth between. */
@Component({
  selector: 'kz-map-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MapPlotComponent, NumberFieldComponent, RunDirective],
  template: `
    <kz-map-plot [driver]="driver()" (previewed)="previewed.emit($event)" (changed)="changed.emit($event)" />
    <span class="label">Where the input is … it gives …</span>
    @for (key of driver().curve.keys; track $index; let i = $index) {
      <div class="row">
        <kz-number-field
          [name]="'Input ' + (i + 1)"
          tip="The input’s value"
          [values]="[key.frame]"
          [decimals]="3"
          [disabled]="studio.readOnly()"
          (changed)="setInput(i, $event(key.frame))"
        />
        <kz-number-field
          [name]="'Output ' + (i + 1)"
          tip="What comes out there"
          [values]="[key.value]"
          [decimals]="3"
          [disabled]="studio.readOnly()"
          (changed)="setValue(i, $event(key.value))"
        />
        <button
          class="button bare"
          kzRun="drive.point-remove"
          [kzOf]="{ driver: driver(), at: i }"
          kzTip="Removes the point"
          [attr.aria-label]="'Remove point ' + (i + 1)"
        >
          ✕
        </button>
      </div>
    }
    <div class="line">
      <button class="button" kzRun="drive.point-add" [kzOf]="driver()" kzTip="One more point after the last">
        Another point
      </button>
      <button
        class="button toggle"
        kzRun="drive.smooth"
        [kzOf]="driver()"
        kzTip="Smooth through the points, or straight between them"
      >
        Smooth
      </button>
      <button
        class="button toggle"
        kzRun="drive.in-chart"
        [kzOf]="driver()"
        kzTip="The curve at full size in the Chart, over its input, with the sides of each point"
      >
        In the Chart
      </button>
    </div>
  `,
  styles: `
    :host {
      display: block;
    }
    kz-map-plot {
      display: block;
      margin-bottom: 8px;
    }
    .row {
      display: grid;
      grid-template-columns: 1fr 1fr auto;
      gap: 6px;
      margin-bottom: 4px;
    }
    .line {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
  `,
})
export class MapFormComponent {
  readonly driver = input.required<MapDriver>();
  readonly changed = output<KeyedCurve>();
  readonly previewed = output<KeyedCurve | null>();
  readonly studio = inject(Studio);
  private readonly notices = inject(Notices);

  private emit(keys: KeyedCurve['keys']): void {
    this.changed.emit({ ...this.driver().curve, keys });
  }

  /** Points stay in order: one that passes another takes its place in the list. */
  setInput(at: number, frame: number): void {
    const { keys } = this.driver().curve;
    if (keys.some((key, i) => i !== at && Math.abs(key.frame - frame) < 1e-6)) {
      this.notices.warn('Two points can’t stand at one value of the input. Nothing was changed.');
      return;
    }
    const moved = keys.map((key, i) => (i === at ? { ...key, frame } : key));
    this.emit(moved.sort((a, b) => a.frame - b.frame));
  }

  setValue(at: number, value: number): void {
    this.emit(this.driver().curve.keys.map((key, i) => (i === at ? { ...key, value } : key)));
  }
}
