import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { channelName } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { shownNumber } from '../../ui/amount';
import { Stage } from '../stage/stage';
import { CameraHands, type CameraPart } from './camera-hands';

/** The circle of confusion that still looks sharp, as a share of the sensor's height: 0.024 mm on a sensor of 24 mm. */
const SHARP = 1 / 1000;

/** A camera of the shot: looking through it, and what it is focused on. */
@Component({
  selector: 'kz-camera-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective],
  template: `
    <section>
      <div class="section-head">
        <h3>Camera</h3>
        <span>{{ keptOn() ? 'focus kept on ' + keptOn() : 'focus by hand' }}</span>
      </div>
      <dl class="readings">
        <dt>angle of view, up and down</dt>
        <dd class="numbers">{{ angle() }}</dd>
        <dt>sharp from</dt>
        <dd class="numbers">{{ sharp().near }}</dd>
        <dt>sharp to</dt>
        <dd class="numbers">{{ sharp().far }}</dd>
      </dl>
      <div class="line wrap">
        <button
          class="button"
          kzRun="camera.look"
          [kzOf]="part()"
          kzTip="Shows what this camera sees; V swaps with the working view"
        >
          {{ isThrough() ? 'Working view' : 'Look through' }}
        </button>
        <button
          class="button"
          kzRun="camera.focus-on"
          [kzOf]="part()"
          kzTip="Pick a thing: its true distance at this frame becomes the focus, loose or as a key"
        >
          Focus on …
        </button>
        @if (keptOn() === null) {
          <button
            class="button"
            kzRun="camera.keep-on"
            [kzOf]="part()"
            kzTip="Pick a part: the focus follows its distance on every frame"
          >
            Keep on a part …
          </button>
        } @else {
          <button
            class="button"
            kzRun="camera.let-go"
            [kzOf]="part()"
            kzTip="The focus is its own again: its keys count"
          >
            Let go
          </button>
        }
      </div>
    </section>
  `,
  styleUrl: '../posing/squash-form.scss',
})
export class CameraFormComponent {
  readonly part = input.required<CameraPart>();
  private readonly stage = inject(Stage);
  private readonly hands = inject(CameraHands);

  readonly keptOn = computed(() => this.hands.keptOn(this.part()));
  readonly isThrough = computed(() => this.hands.isThrough(this.part()));

  private value(property: string, rest: number): number {
    return this.stage.valueOf(channelName(this.part().id, property)) ?? rest;
  }

  readonly angle = computed(() => {
    this.stage.now();
    const { camera } = this.part();
    const focal = this.value('camera.focalLength', camera.focalLength);
    return `${shownNumber((2 * Math.atan(camera.sensorHeight / (2 * focal)) * 180) / Math.PI, 1)} °`;
  });

  /** From where to where it is sharp at the playhead, by the thin-lens formula with the hyperfocal distance. */
  readonly sharp = computed(() => {
    this.stage.now();
    const { camera } = this.part();
    const focal = this.value('camera.focalLength', camera.focalLength) / 1000;
    const stop = this.value('camera.fStop', camera.fStop);
    const focus = this.value('camera.focusDistance', camera.focusDistance);
    const hyperfocal = (focal * focal) / (stop * SHARP * (camera.sensorHeight / 1000)) + focal;
    const near = (focus * (hyperfocal - focal)) / (hyperfocal + focus - 2 * focal);
    const far = focus >= hyperfocal ? Infinity : (focus * (hyperfocal - focal)) / (hyperfocal - focus);
    const metres = (value: number) => (Number.isFinite(value) ? `${shownNumber(value, 2)} m` : 'without end');
    return { near: metres(near), far: metres(far) };
  });
}
