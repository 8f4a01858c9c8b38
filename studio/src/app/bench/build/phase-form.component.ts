import { ChangeDetectionStrategy, Component, computed, inject, model, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import type { Phase } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';

type Unit = 'frames' | 'degrees' | 'share';
const UNITS: readonly Option<Unit>[] = [
  { value: 'frames', label: 'Frames', tip: 'The delay in frames' },
  { value: 'degrees', label: 'Degrees', tip: 'The delay as part of a cycle of 360°, the whole range' },
  {
    value: 'share',
    label: 'Share',
    tip: 'The delay as part of the cycle, the whole range: 0.25 is a quarter',
  },
];
const SHOWN: Readonly<Record<Unit, { readonly unit: string; readonly decimals: number }>> = {
  frames: { unit: 'f', decimals: 1 },
  degrees: { unit: '°', decimals: 1 },
  share: { unit: '', decimals: 3 },
};
const START: Phase = { delay: 6, backwards: false, alternate: false, vary: 0, seed: 1 };

/** Whether copies play the one motion of the part they are made from, each at another time; null: each has keys of its own. */
@Component({
  selector: 'kz-phase-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, NumberFieldComponent, SegmentsComponent],
  template: `
    <button
      class="button toggle"
      [attr.aria-pressed]="phase() !== null"
      [disabled]="studio.readOnly()"
      matTooltip="On: the copies play this part’s keys, live, each at another time. Off: each gets keys of its own"
      (click)="phase.set(phase() === null ? start : null)"
    >
      In phase, live
    </button>
    @if (phase(); as now) {
      <kz-segments
        name="How the delay is given"
        [wide]="true"
        [options]="units"
        [value]="unit()"
        (chosen)="unit.set($event)"
      />
      <div class="pair">
        <kz-number-field
          label="Each later by"
          [unit]="shown().unit"
          tip="From one copy to the next"
          [values]="[delay()]"
          [decimals]="shown().decimals"
          (changed)="setDelay($event)"
        />
        <kz-number-field
          label="Irregular by"
          unit="f"
          tip="Frames by which each may come earlier or later; another seed, another order"
          [values]="[now.vary]"
          [decimals]="1"
          (changed)="set({ vary: $event(now.vary) })"
        />
        @if (now.vary !== 0) {
          <kz-number-field
            label="Seed"
            name="Seed of the copies"
            tip="Which irregular order; the same seed gives the same again"
            [values]="[now.seed]"
            [decimals]="0"
            (changed)="set({ seed: whole($event(now.seed)) })"
          />
        }
      </div>
      <div class="line">
        <button
          class="button toggle"
          [attr.aria-pressed]="now.backwards"
          matTooltip="The last copy comes next after the part itself, the first one last"
          (click)="set({ backwards: !now.backwards })"
        >
          Backwards
        </button>
        <button
          class="button toggle"
          [attr.aria-pressed]="now.alternate"
          matTooltip="Every other copy moves the other way round"
          (click)="set({ alternate: !now.alternate })"
        >
          Other way in turn
        </button>
      </div>
    }
  `,
  styleUrl: '../side-sheet/sheet.scss',
  styles: `
    :host {
      margin-top: 8px;
    }
    kz-segments {
      margin: 8px 0;
    }
  `,
})
export class PhaseFormComponent {
  readonly phase = model<Phase | null>(null);
  readonly studio = inject(Studio);
  readonly units = UNITS;
  readonly start = START;
  readonly unit = signal<Unit>('frames');
  readonly shown = computed(() => SHOWN[this.unit()]);

  /** Frames for one of the unit. */
  private readonly frames = computed(() => {
    const range = this.studio.project()?.range;
    const cycle = range ? Math.max(1, range.end - range.start) : 1;
    return { frames: 1, degrees: cycle / 360, share: cycle }[this.unit()];
  });
  readonly delay = computed(() => (this.phase()?.delay ?? 0) / this.frames());

  set(change: Partial<Phase>): void {
    this.phase.update((phase) => phase && { ...phase, ...change });
  }
  setDelay(change: (value: number) => number): void {
    this.set({ delay: change(this.delay()) * this.frames() });
  }
  whole(value: number): number {
    return Math.round(value);
  }
}
