import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  viewChild,
} from '@angular/core';
import { decimalsOf, shownNumber } from '../../ui/amount';
import { Stage } from '../stage/stage';
import type { ChannelRow } from '../plot/rows';

/** A channel's value at the playhead, written straight into the page as the playhead moves. */
@Component({
  selector: 'kz-value-cell',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<span #text class="numbers" [class.driven]="row().driven" [class.loose]="loose()"></span
    ><span class="soft">{{ row().label.unit }}</span>`,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 5px;
      flex: none;
    }
    .numbers {
      min-width: 52px;
      padding: 0 4px;
      border: 1px solid transparent;
      border-radius: 3px;
      font-size: 12px;
      line-height: 16px;
      text-align: right;
    }
    .driven {
      border: 1px dotted var(--ink);
    }
    .loose {
      border: 1px dashed var(--loose);
      color: var(--loose);
    }
    .soft {
      width: 14px;
      font-size: 12px;
    }
  `,
})
export class ValueCellComponent {
  readonly row = input.required<ChannelRow>();
  private readonly stage = inject(Stage);
  private readonly text = viewChild.required<ElementRef<HTMLElement>>('text');
  readonly loose = computed(() => this.row().loose.length > 0);

  constructor() {
    effect(() => {
      const { id, label } = this.row();
      const value = this.stage.valueOf(id);
      this.text().nativeElement.textContent =
        value === null ? '' : shownNumber(value, decimalsOf(label.unit));
    });
  }
}
