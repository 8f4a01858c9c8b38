import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import type { PathPart, Vec3 } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { VectorFieldComponent, type VectorChange } from '../../ui/vector-field.component';
import { PathHands } from '../links/path-hands';

/** The points of a path, in its own space: by number, and more of them in the view. */
@Component({
  selector: 'kz-path-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective, VectorFieldComponent],
  template: `
    <section>
      <div class="section-head">
        <h3>Points</h3>
        <span>{{ part().path.points.length }}, smooth through all of them</span>
      </div>
      @for (point of part().path.points; track $index; let i = $index) {
        <div class="line">
          <kz-vector-field
            class="grow"
            [label]="'' + (i + 1)"
            [name]="'Point ' + (i + 1)"
            unit="m"
            [values]="point"
            [disabled]="studio.readOnly()"
            (changed)="set(i, $event)"
          />
          <button
            class="button bare"
            kzRun="path.point-remove"
            [kzOf]="{ path: part(), at: i }"
            kzTip="Removes the point"
            [attr.aria-label]="'Remove point ' + (i + 1)"
          >
            ✕
          </button>
        </div>
      }
      <div class="line wrap">
        <button class="button" kzRun="path.go-on" kzTip="Press in the view where it goes on">
          Go on in the view …
        </button>
        <button class="button toggle" kzRun="path.closed" kzTip="Its end runs into its beginning">
          Closed
        </button>
      </div>
    </section>
  `,
  styleUrl: '../posing/squash-form.scss',
})
export class PathFormComponent {
  readonly part = input.required<PathPart>();
  readonly studio = inject(Studio);
  private readonly hands = inject(PathHands);

  set(at: number, { axis, change }: VectorChange): void {
    const points = this.part().path.points.map((point, i) =>
      i === at ? (point.map((n, k) => (k === axis ? change(n) : n)) as unknown as Vec3) : point,
    );
    this.hands.setPoints(this.part().id, points);
  }
}
