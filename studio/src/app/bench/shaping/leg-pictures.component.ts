import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { curveOf, setLeg, type EaseSlow, type KeyRef, type Leg } from '@kaizen/core';
import { onItem } from '../../commands/command';
import { offerCommands } from '../../commands/offer-commands';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { shownNumber } from '../../ui/amount';
import { optionsOf } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { ChartModel } from '../plot/chart-model';
import { Stage } from '../stage/stage';
import { SLOW_LABELS } from '../stage/words';
import { LegRest } from './leg-rest';
import { easeShapes, lawShapes, PICTURE, type LegShape } from './leg-shapes';

/**
 * Pictures of eases and laws under the Chart. Resting on one, by pointer or arrow keys, shows curve, rates and the moving picture; a press
 * takes it for the legs after the chosen keys; Esc or going away leaves all as it was.
 */
@Component({
  selector: 'kz-leg-pictures',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective, SegmentsComponent],
  templateUrl: './leg-pictures.component.html',
  styleUrl: './leg-pictures.component.scss',
})
export class LegPicturesComponent {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly chart = inject(ChartModel);
  private readonly rest = inject(LegRest);
  readonly slows = optionsOf(SLOW_LABELS);
  readonly slow = signal<EaseSlow>('both');
  readonly picture = PICTURE;
  readonly groups = computed(() => [
    { name: 'Ease', shapes: easeShapes(this.slow()) },
    { name: 'Law', shapes: lawShapes() },
  ]);
  readonly resting = signal<LegShape | null>(null);
  /** The picture that Tab reaches; arrow keys go on from it. */
  readonly reached = signal('sine');

  constructor() {
    inject(DestroyRef).onDestroy(() => this.leave());
    offerCommands([
      onItem<LegShape>({
        id: 'leg.picture',
        label: 'The picture of a leg that is reached, for the legs after the chosen keys',
        group: 'Shape',
        meant: () =>
          this.groups()
            .flatMap(({ shapes }) => shapes)
            .find(({ name }) => name === this.reached()) ?? null,
        when: () => !this.studio.readOnly(),
        on: (shape) => this.current() === nameOf(shape.leg),
        run: (shape) => this.take(shape),
      }),
    ]);
  }

  /** The keys whose legs are meant: the chosen ones, else those before the playhead on what is drawn. */
  readonly refs = computed((): readonly KeyRef[] => {
    const project = this.studio.project();
    if (!project) return [];
    const { keys } = this.studio.bench();
    const hasLeg = ({ channel, frame }: KeyRef) => {
      const curve = curveOf(project, channel);
      return curve !== undefined && !curve.locked && curve.keys.at(-1)!.frame > frame;
    };
    if (keys.length > 0) return keys.filter(hasLeg);
    const frame = this.stage.frame();
    return this.chart.plotted().flatMap((channel) => {
      const key = curveOf(project, channel)?.keys.findLast((each) => each.frame <= frame);
      return key && hasLeg({ channel, frame: key.frame }) ? [{ channel, frame: key.frame }] : [];
    });
  });

  readonly told = computed(() => {
    const count = this.refs().length;
    const resting = this.resting();
    if (resting)
      return `Resting on ${resting.name}: top speed ${peak(resting.speed)}, acceleration ${peak(resting.acceleration)} of even motion. Shown, not taken; Esc leaves all as it was.`;
    if (count === 0) return 'Choose a key with a leg after it; resting on a picture then shows it.';
    return `For ${count === 1 ? 'the leg after one key' : `the legs after ${count} keys`}: rest on a picture to see it, press to take it.`;
  });

  /** The shape all meant legs have in the project as it is kept. */
  readonly current = computed(() => {
    const project = this.studio.project();
    const names = this.refs().map(({ channel, frame }) => {
      const leg = project && curveOf(project, channel)?.keys.find((key) => key.frame === frame)?.leg;
      return leg ? nameOf(leg) : '';
    });
    return names.every((name) => name === names[0]) ? (names[0] ?? '') : '';
  });

  tip(shape: LegShape): string {
    return `${shape.name}: top speed ${peak(shape.speed)}, acceleration ${peak(shape.acceleration)} of even motion`;
  }

  peaks(shape: LegShape): string {
    return `${short(shape.speed)} ${short(shape.acceleration)}`;
  }

  private offer({ leg, name }: LegShape) {
    const refs = this.refs();
    return {
      label: `Leg: ${name}`,
      edit: (project: Parameters<typeof setLeg>[0]) => setLeg(project, refs, leg),
    };
  }

  enter(shape: LegShape): void {
    if (this.refs().length === 0 || this.studio.readOnly()) return;
    this.reached.set(shape.name);
    this.resting.set(shape);
    this.rest.begin(this.offer(shape), this.refs());
  }

  leave(): void {
    this.resting.set(null);
    this.rest.end();
  }

  private take(shape: LegShape): void {
    this.resting.set(null);
    if (this.refs().length > 0) this.rest.take(this.offer(shape));
  }

  onKey(event: KeyboardEvent): void {
    const pictures = [
      ...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('[data-picture]'),
    ];
    const at = pictures.indexOf(event.target as HTMLElement);
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (at < 0) return;
    if (event.key === 'Escape') {
      this.leave();
    } else if (step !== undefined) {
      pictures[(at + step + pictures.length) % pictures.length]!.focus();
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }
}

/** What tells one shape from another: the family with its gentle end, or the law. */
function nameOf(leg: Leg): string {
  if (leg.kind === 'ease') return `${leg.family} ${leg.slow}`;
  return leg.kind === 'law' ? leg.law : leg.kind;
}

function peak(times: number): string {
  return Number.isFinite(times) ? `${shownNumber(times, 2)} ×` : 'without bound';
}

function short(times: number): string {
  return Number.isFinite(times) ? shownNumber(times, times < 9.95 ? 1 : 0) : '∞';
}
