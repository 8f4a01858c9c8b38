import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { cutsOf, partOf } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { shownFrame } from '../../ui/amount';
import { Stage } from '../stage/stage';
import type { CameraPart } from './camera-hands';

/** The cuts of the shot: from which frame on which camera shows it. */
@Component({
  selector: 'kz-cuts-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective],
  template: `
    <section>
      <div class="section-head">
        <h3>Cuts</h3>
        <span>{{ cuts().length === 0 ? 'none: one camera all the time' : 'held keys of “visible”' }}</span>
      </div>
      @for (cut of cuts(); track cut.frame) {
        <div class="line">
          <button
            class="button bare grow numbers"
            [attr.aria-current]="cut === showing() ? 'true' : null"
            kzRun="cut.go"
            [kzOf]="cut"
            kzTip="Puts the playhead there"
          >
            f {{ shown(cut.frame) }} · {{ nameOf(cut.camera) }}
          </button>
          <button
            class="button bare"
            [attr.aria-label]="'Take away the cut at frame ' + cut.frame"
            kzRun="cut.remove"
            [kzOf]="cut"
            kzTip="The camera before it goes on"
          >
            ✕
          </button>
        </div>
      }
      <div class="line wrap">
        <button
          class="button"
          kzRun="camera.cut"
          [kzOf]="part()"
          kzTip="From the playhead on this camera shows the shot"
        >
          Cut to {{ part().name }} here
        </button>
        <button class="button" kzRun="view.shot" kzTip="Looks through whichever camera shows the shot">
          Watch the shot
        </button>
      </div>
    </section>
  `,
  styleUrl: '../posing/squash-form.scss',
})
export class CutsFormComponent {
  readonly part = input.required<CameraPart>();
  private readonly stage = inject(Stage);
  readonly shown = shownFrame;
  readonly cuts = computed(() => {
    const project = this.stage.shown();
    return project ? cutsOf(project) : [];
  });
  readonly showing = computed(() => this.cuts().findLast(({ frame }) => frame <= this.stage.frame()));

  nameOf(camera: string): string {
    const project = this.stage.shown();
    return (project && partOf(project, camera)?.name) ?? camera;
  }
}
