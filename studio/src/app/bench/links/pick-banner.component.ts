import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RunDirective } from '../../commands/run.directive';
import { tellHeight } from '../../ui/tell-height';
import { PartPicker } from '../stage/picker';

/** What is asked for while a part is to be picked, over the view. */
@Component({
  selector: 'kz-pick-banner',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective],
  template: `
    @if (picker.question(); as question) {
      <div class="banner" role="status">
        <strong>{{ picker.refusal() ?? question.words }}</strong>
        <span>{{
          picker.refusal() ? question.words : question.anywhere ? 'in the view' : 'in the view or in the rows'
        }}</span>
        @if (question.end; as end) {
          <button class="button" kzRun="pick.end">{{ end.label }}</button>
        }
        <button class="button" kzRun="select.none" kzTip="Asks no more">Leave it</button>
      </div>
    }
  `,
  styles: `
    .banner {
      display: flex;
      gap: 10px;
      align-items: center;
      padding: 8px 10px 8px 14px;
      border-radius: var(--radius);
      background: var(--select);
      color: var(--sheet);
    }
    strong {
      font-weight: 600;
    }
  `,
})
export class PickBannerComponent {
  readonly picker = inject(PartPicker);

  constructor() {
    tellHeight('--pick-banner');
  }
}
