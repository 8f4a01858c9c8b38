import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Eye } from './grip-math';
import { ViewGrips } from './view-grips';

/** What can be dragged in the view, drawn over it. Presses and moves of the pointer come to the view itself. */
@Component({
  selector: 'kz-grips',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg aria-hidden="true">
      @for (each of drawn(); track $index) {
        <g
          [class]="each.tone"
          [class.over]="each.found && each.found.name === grips.over()?.name"
          [attr.data-grip]="each.found?.name"
        >
          @for (mark of each.marks; track $index) {
            <path [class]="mark.look" [attr.d]="mark.path" />
          }
          @if (each.letter; as letter) {
            <text [attr.x]="letter.x" [attr.y]="letter.y">{{ letter.text }}</text>
          }
        </g>
      }
    </svg>
  `,
  styleUrl: './grips.component.scss',
})
export class GripsComponent {
  readonly eye = input.required<Eye>();
  readonly grips = inject(ViewGrips);
  readonly drawn = computed(() => this.grips.draw(this.eye()));
}
