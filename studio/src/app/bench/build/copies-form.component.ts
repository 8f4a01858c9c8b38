import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import {
  copyAlong,
  copyAround,
  copiesInPhase,
  mirrorCopy,
  MOST_COPIES,
  type Axis,
  type Copied,
  type Part,
  type Phase,
  type Project,
  type Result,
  type Vec3,
} from '@kaizen/core';
import { offerCommands } from '../../commands/offer-commands';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { PhaseFormComponent } from './phase-form.component';
import { VectorFieldComponent, type VectorChange } from '../../ui/vector-field.component';

type Way = 'line' | 'round' | 'mirror';
const WAYS: readonly Option<Way>[] = [
  { value: 'line', label: 'In a row', tip: 'Each copy one step further' },
  {
    value: 'round',
    label: 'Round an axis',
    tip: 'Each copy turned on, about the origin of what it rides on',
  },
  {
    value: 'mirror',
    label: 'Mirrored',
    tip: 'One copy in the mirror of what it rides on; its keys run the other way',
  },
];
const AXES = (['x', 'y', 'z'] as const).map((value): Option<Axis> => ({
  value,
  label: value.toUpperCase(),
  tip: `About, or across, ${value.toUpperCase()}`,
}));

/** Copies of a part with all that rides on it and its keys: in a row, round an axis, mirrored. */
@Component({
  selector: 'kz-copies-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberFieldComponent, PhaseFormComponent, RunDirective, SegmentsComponent, VectorFieldComponent],
  template: `
    <section>
      <div class="section-head">
        <h3>Copies</h3>
        <span>with keys and all that rides on it</span>
      </div>
      <kz-segments
        name="How copies stand"
        [wide]="true"
        [options]="ways"
        [value]="way()"
        (chosen)="way.set($event)"
      />
      @switch (way()) {
        @case ('line') {
          <div class="pair">
            <kz-number-field
              label="How many"
              [values]="[count()]"
              [decimals]="0"
              tip="Copies beside the one there is"
              (changed)="setCount($event)"
            />
          </div>
          <kz-vector-field
            label="Step"
            unit="m"
            tip="From one copy to the next, along the axes of what it rides on"
            [values]="step()"
            (changed)="setStep($event)"
          />
        }
        @case ('round') {
          <div class="pair">
            <kz-number-field
              label="How many"
              [values]="[count()]"
              [decimals]="0"
              tip="Copies beside the one there is"
              (changed)="setCount($event)"
            />
            <kz-number-field
              label="Each turned by"
              unit="°"
              [values]="[degrees()]"
              [decimals]="2"
              tip="From one copy to the next"
              (changed)="setDegrees($event)"
            />
          </div>
          <kz-segments
            name="About which axis"
            [options]="axes"
            [value]="axis()"
            (chosen)="axis.set($event)"
          />
        }
        @case ('mirror') {
          <kz-segments
            name="Across which axis"
            [options]="axes"
            [value]="axis()"
            (chosen)="axis.set($event)"
          />
        }
      }
      @if (way() !== 'mirror') {
        <kz-phase-form [(phase)]="phase" />
      }
      <div class="line top">
        <button class="button" kzRun="copies.make" kzTip="Makes the copies; one step to undo">
          {{ label() }}
        </button>
      </div>
    </section>
  `,
  styleUrl: '../side-sheet/sheet.scss',
})
export class CopiesFormComponent {
  readonly part = input.required<Part>();
  private readonly studio = inject(Studio);
  private readonly notices = inject(Notices);
  readonly ways = WAYS;
  readonly axes = AXES;
  readonly way = signal<Way>('line');
  readonly count = signal(1);
  readonly step = signal<Vec3>([1, 0, 0]);
  readonly degrees = signal(60);
  readonly axis = signal<Axis>('y');
  readonly phase = signal<Phase | null>(null);

  constructor() {
    offerCommands([
      {
        id: 'copies.make',
        label: 'Make copies of the chosen part, as the sheet Part says',
        group: 'Pose',
        when: () => !this.studio.readOnly(),
        run: () => this.make(),
      },
    ]);
  }

  readonly label = computed(() => {
    if (this.way() === 'mirror') return 'Make the mirrored copy';
    return this.count() === 1 ? 'Make the copy' : `Make ${this.count()} copies`;
  });

  setCount(change: (value: number) => number): void {
    this.count.set(Math.min(MOST_COPIES, Math.max(1, Math.round(change(this.count())))));
  }
  setStep({ axis, change }: VectorChange): void {
    this.step.update(
      (step) => step.map((value, i) => (i === axis ? change(value) : value)) as unknown as Vec3,
    );
  }
  setDegrees(change: (value: number) => number): void {
    this.degrees.set(change(this.degrees()));
  }

  private make(): void {
    const project = this.studio.project();
    if (!project) return;
    const made = this.copied(project);
    if (!made.ok) {
      this.notices.warn(`${made.problems[0]?.message ?? 'That can’t be copied'}. Nothing was changed.`);
      return;
    }
    const { name } = this.part();
    const { copies } = made.value;
    this.studio.edit(`Copies of ${name}`, () => made.value.project);
    this.studio.pick({ parts: copies, channels: [], keys: [], handles: [] });
    this.notices.tell(
      copies.length === 1 ? `One copy of ${name} was made` : `${copies.length} copies of ${name} were made`,
    );
  }

  private copied(project: Project): Result<Copied> {
    const phase = this.phase();
    if (phase === null || this.way() === 'mirror') return this.placed(project);
    return copiesInPhase(project, this.part().id, (still) => this.placed(still), phase);
  }

  private placed(project: Project): Result<Copied> {
    const { id } = this.part();
    switch (this.way()) {
      case 'line':
        return copyAlong(project, id, this.count(), this.step());
      case 'round':
        return copyAround(project, id, this.count(), this.axis(), this.degrees(), [0, 0, 0]);
      case 'mirror':
        return mirrorCopy(project, id, this.axis());
    }
  }
}
