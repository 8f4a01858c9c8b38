import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import {
  CONVERT_TOLERANCE,
  rampsOf,
  reshapeCruise,
  secondsPerFrame,
  setLeg,
  type CamLaw,
  type EaseFamily,
  type EaseSlow,
  type Leg,
  type LegKind,
} from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { optionsOf } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { SelectComponent } from '../../ui/select.component';
import { Stage } from '../stage/stage';
import { EASE_GROUPS, EASE_LABELS, LAW_GROUPS, LAW_LABELS, LEG_LABELS, SLOW_LABELS } from '../stage/words';
import { common, legOfKind, legSpan, type ChosenKey } from '../shaping/chosen-keys';
import { dyingWords, legNumbers, type LegNumber } from '../shaping/leg-numbers';

/** What fills the time after the chosen keys, with its numbers; a kind that is changed keeps the leg's ends. */
@Component({
  selector: 'kz-leg-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, NumberFieldComponent, SegmentsComponent, SelectComponent, RunDirective],
  templateUrl: './leg-form.component.html',
  styleUrl: './sheet.scss',
})
export class LegFormComponent {
  readonly keys = input.required<readonly ChosenKey[]>();
  readonly unit = input.required<string>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  readonly legKinds = optionsOf(LEG_LABELS);
  readonly families = optionsOf(EASE_LABELS, EASE_GROUPS);
  readonly slows = optionsOf(SLOW_LABELS);
  readonly laws = optionsOf(LAW_LABELS, LAW_GROUPS);

  private readonly refs = computed(() => this.keys().map(({ ref }) => ref));
  readonly legKind = computed(() => common(this.keys().map(({ key }) => key.leg.kind)));
  readonly leg = computed((): Leg | null =>
    this.legKind() === null ? null : (this.keys()[0]?.key.leg ?? null),
  );
  readonly legIsMixed = computed(
    () => new Set(this.keys().map(({ key }) => JSON.stringify(key.leg))).size > 1,
  );
  /** Whether no key follows any of the chosen ones. */
  readonly isLast = computed(() => this.keys().every(({ curve, index }) => index === curve.keys.length - 1));
  /** Of one chosen key: where its leg ends, and after how long. */
  readonly span = computed(() => {
    const [only, more] = this.keys();
    const project = this.stage.shown();
    return only && !more && project ? legSpan(project, only) : null;
  });
  readonly numbers = computed(() => {
    const leg = this.leg();
    return leg ? legNumbers(leg) : [];
  });
  readonly dying = computed(() => {
    const leg = this.leg();
    return leg && dyingWords(leg);
  });
  readonly gravity = computed(() => {
    const leg = this.leg();
    return leg?.kind === 'ballistic' ? (leg.gravity ?? this.studio.project()?.gravity ?? 9.81) : 0;
  });

  /** Of the leg's height, in percent: how far a conversion may be off. */
  readonly tolerance = signal(CONVERT_TOLERANCE * 100);
  /** The cruising speeds of trapezoid and s-curve legs, per second. */
  readonly cruise = computed(() => {
    const project = this.studio.project();
    return this.keys().flatMap(({ curve, index }) => {
      const ramps = rampsOf(curve, index);
      return ramps && project && ramps.rise !== 0 ? [ramps.cruise / secondsPerFrame(project.rate)] : [];
    });
  });

  setTolerance(change: (value: number) => number): void {
    this.tolerance.set(Math.max(1e-4, change(this.tolerance())));
  }

  setCruise(change: (value: number) => number): void {
    const { lock } = this.studio.bench().shaping;
    this.studio.edit('Top speed', (project) =>
      this.keys().reduce((at, { ref, curve, index }) => {
        const ramps = rampsOf(curve, index);
        if (!ramps) return at;
        const seconds = secondsPerFrame(project.rate);
        return reshapeCruise(at, ref, change(ramps.cruise / seconds) * seconds, lock);
      }, project),
    );
  }

  setLeg(leg: Leg): void {
    this.studio.edit(`Leg: ${LEG_LABELS[leg.kind]}`, (project) => setLeg(project, this.refs(), leg));
  }

  setKind(kind: LegKind): void {
    if (kind !== this.legKind() || this.legIsMixed()) this.setLeg(legOfKind(kind));
  }

  setFamily(family: EaseFamily): void {
    const leg = this.leg();
    if (leg?.kind === 'ease') this.setLeg({ kind: 'ease', family, slow: leg.slow });
  }

  setSlow(slow: EaseSlow): void {
    const leg = this.leg();
    if (leg?.kind === 'ease') this.setLeg({ ...leg, slow });
  }

  setLaw(law: CamLaw): void {
    this.setLeg({ kind: 'law', law });
  }

  numberValues(number: LegNumber): readonly number[] {
    return this.keys().map(({ key }) => number.read(key.leg));
  }

  setNumber(number: LegNumber, change: (value: number) => number): void {
    this.studio.edit(number.label, (project) =>
      this.keys().reduce(
        (at, { ref, key }) => setLeg(at, [ref], number.write(key.leg, change(number.read(key.leg)))),
        project,
      ),
    );
  }

  setGravity(gravity: number | null): void {
    this.setLeg({ kind: 'ballistic', gravity });
  }

  setOwnGravity(change: (value: number) => number): void {
    this.setGravity(change(this.gravity()));
  }
}
