import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { line, curveLinearClosed } from 'd3-shape';
import { camProfile, greatestOf, readCam, type LinkageDriver } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { shownNumber } from '../../ui/amount';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { Stage } from '../stage/stage';
import { CAM_SIZE } from './driver-table-commands';

const [SIZE, MARGIN] = [240, 14] as const;
/** From so many degrees on a follower tends to stick in its guide: the textbooks' rule for one that moves straight. */
const STEEP = 30;

/** The disc of a cam for a roller: its profile, its pressure angle and curvature, and the disc made a part of the model. */
@Component({
  selector: 'kz-cam-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberFieldComponent, RunDirective],
  template: `
    <span class="label">The disc</span>
    <div class="pair">
      <kz-number-field
        label="Roller"
        name="Radius of the roller"
        unit="m"
        tip="Radius of the roller about the follower’s pivot"
        [values]="[roller()]"
        [decimals]="3"
        (changed)="setRoller($event(roller()))"
      />
      <kz-number-field
        label="Thick"
        name="Thickness of the disc"
        unit="m"
        tip="How thick the disc is along its shaft"
        [values]="[thick()]"
        [decimals]="3"
        (changed)="setThick($event(thick()))"
      />
    </div>
    @if (disc(); as made) {
      <svg
        [attr.viewBox]="'0 0 ' + size + ' ' + size"
        role="img"
        aria-label="The disc of the cam with its roller"
      >
        <circle class="base" [attr.cx]="size / 2" [attr.cy]="size / 2" [attr.r]="made.base" />
        <g [attr.transform]="'rotate(' + -made.turn + ' ' + size / 2 + ' ' + size / 2 + ')'">
          <path class="pitch" [attr.d]="made.pitch" />
          <path class="profile" [attr.d]="made.profile" />
        </g>
        <circle class="roller" [attr.cx]="made.follower" [attr.cy]="size / 2" [attr.r]="made.roller" />
        <circle class="axle" [attr.cx]="size / 2" [attr.cy]="size / 2" r="3" />
      </svg>
      <p class="note">
        Base circle <span class="numbers">{{ made.baseWords }}</span>. Pressure angle
        <span class="numbers" [class.bad]="made.isSteep">{{ made.pressure }}</span> at most{{
          made.isSteep ? ': over 30° a follower tends to stick; a larger base or a longer rise helps' : ''
        }}.
        @if (made.cuts) {
          <span class="bad"
            >The roller is larger than the curve at {{ made.curveAt }}: it cuts into the cam there.</span
          >
        }
      </p>
      <button
        class="button"
        kzRun="drive.cam-disc"
        [kzOf]="{ driver: driver(), size: { roller: roller(), width: thick() } }"
        kzTip="The disc as a part on the shaft that the cam reads"
      >
        Make the disc a part
      </button>
    } @else {
      <p class="note bad">{{ refusal() }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    .pair {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px;
      margin-bottom: 8px;
    }
    svg {
      display: block;
      width: 100%;
      max-height: 240px;
      border: 1px solid var(--rule);
      border-radius: var(--radius);
      background: var(--field);
    }
    .base,
    .pitch {
      fill: none;
      stroke: var(--ink-soft);
      stroke-dasharray: 4 3;
    }
    .profile {
      fill: var(--rule-soft);
      stroke: var(--ink);
      stroke-width: 1.6;
    }
    .roller {
      fill: var(--sheet);
      stroke: var(--select);
      stroke-width: 1.6;
    }
    .axle {
      fill: var(--ink);
    }
    .note {
      margin: 6px 0;
      color: var(--ink-soft);
      font-size: 12.5px;
      line-height: 16px;
    }
    .bad {
      color: var(--warn);
    }
  `,
})
export class CamFormComponent {
  readonly driver = input.required<LinkageDriver>();
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  readonly size = SIZE;
  readonly roller = signal(CAM_SIZE.roller);
  readonly thick = signal(CAM_SIZE.width);

  /** Read off the model as it is kept, where the shot begins: it is the same wherever the cam stands. */
  private readonly reading = computed(() => {
    const project = this.studio.project();
    return project && readCam(project, this.driver().id, this.roller(), project.range.start);
  });
  readonly refusal = computed(() => {
    const reading = this.reading();
    return reading && !reading.ok ? (reading.problems[0]?.message ?? '') : '';
  });

  /** The disc and what is read of it, in pixels and words. */
  private readonly shape = computed(() => {
    const reading = this.reading();
    if (!reading?.ok) return null;
    const { cam, base } = reading.value;
    const roller = this.roller();
    const profile = camProfile(cam, base, roller);
    const far = greatestOf(profile.pitch.map(([x, y]) => Math.hypot(x, y))) + roller;
    const scale = (SIZE / 2 - MARGIN) / far;
    const draw = line<readonly [number, number]>(
      ([x]) => SIZE / 2 + x * scale,
      ([, y]) => SIZE / 2 - y * scale,
    ).curve(curveLinearClosed);
    const { pressure, curvature } = profile;
    return {
      cam,
      scale,
      reach: base + roller,
      base: base * scale,
      roller: roller * scale,
      pitch: draw(profile.pitch) ?? '',
      profile: draw(profile.profile) ?? '',
      baseWords: `${shownNumber(base, 3)} m`,
      pressure: `${shownNumber(pressure.angle, 1)}°`,
      isSteep: pressure.angle > STEEP,
      cuts: curvature.radius < roller,
      curveAt: `${shownNumber(curvature.at, 0)}°`,
    };
  });
  /** The same as it stands at the playhead. */
  readonly disc = computed(() => {
    const shape = this.shape();
    if (!shape) return null;
    const turn = this.stage.valueOf(this.driver().inputs['angle'] ?? '') ?? 0;
    const lift = new Float64Array(1);
    shape.cam.solve(Float64Array.of(turn), lift, 0);
    return { ...shape, turn, follower: SIZE / 2 + (shape.reach + lift[0]!) * shape.scale };
  });

  setRoller(radius: number): void {
    if (radius > 0) this.roller.set(radius);
  }
  setThick(thick: number): void {
    if (thick > 0) this.thick.set(thick);
  }
}
