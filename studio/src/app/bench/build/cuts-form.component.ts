import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { cutsOf, cutTo, partOf, removeCut, type Part } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { Stage } from '../stage/stage';
import { THE_SHOT, ViewControl } from '../stage/view-control';

/** The cuts of the shot: from which frame on which camera shows it. */
@Component({
  selector: 'kz-cuts-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
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
            matTooltip="Puts the playhead there"
            (click)="stage.goTo(cut.frame)"
          >
            f {{ shown(cut.frame) }} · {{ nameOf(cut.camera) }}
          </button>
          <button
            class="button bare"
            [disabled]="studio.readOnly()"
            [attr.aria-label]="'Take away the cut at frame ' + cut.frame"
            matTooltip="The camera before it goes on"
            (click)="remove(cut.frame)"
          >
            ✕
          </button>
        </div>
      }
      <div class="line wrap">
        <button
          class="button"
          [disabled]="studio.readOnly()"
          matTooltip="From the playhead on this camera shows the shot"
          (click)="cut()"
        >
          Cut to {{ part().name }} here
        </button>
        <button
          class="button"
          matTooltip="Looks through whichever camera shows the shot; V"
          (click)="watch()"
        >
          Watch the shot
        </button>
      </div>
    </section>
  `,
  styleUrl: '../posing/squash-form.scss',
})
export class CutsFormComponent {
  readonly part = input.required<Part>();
  readonly studio = inject(Studio);
  readonly stage = inject(Stage);
  private readonly view = inject(ViewControl);
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

  cut(): void {
    const { id, name } = this.part();
    const frame = this.stage.frame();
    this.studio.edit(`Cut to ${name}`, (project) => cutTo(project, id, frame));
  }

  remove(frame: number): void {
    this.studio.edit('Remove a cut', (project) => removeCut(project, frame));
  }

  watch(): void {
    this.view.shot.set(THE_SHOT);
  }
}
