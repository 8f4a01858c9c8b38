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
import { MatTooltip } from '@angular/material/tooltip';
import { decimalsOf, shownNumber } from '../../ui/amount';
import { Stage } from '../stage/stage';
import { Standing } from '../stage/standing';
import type { ChannelRow } from '../plot/rows';

/** A channel's value at the playhead, written straight into the page as the playhead moves. */
@Component({
  selector: 'kz-value-cell',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
  template: `<span
      #text
      class="numbers"
      [class.driven]="row().driven"
      [class.loose]="loose()"
      [class.lost]="lost() !== null"
    ></span
    ><span class="soft">{{ row().label.unit }}</span>
    @if (lost(); as why) {
      <span class="why" [matTooltip]="why"></span>
    }`,
  styles: `
    :host {
      position: relative;
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
    .lost {
      border-color: var(--warn);
      color: var(--warn);
    }
    .why {
      position: absolute;
      inset: 0;
    }
    .soft {
      min-width: 14px;
      max-width: 52px;
      overflow: hidden;
      text-overflow: ellipsis;
      font-size: 12px;
    }
  `,
})
export class ValueCellComponent {
  readonly row = input.required<ChannelRow>();
  private readonly stage = inject(Stage);
  private readonly text = viewChild.required<ElementRef<HTMLElement>>('text');
  readonly loose = computed(() => this.row().loose.length > 0);
  private readonly standing = inject(Standing);
  /** Why its driver gives nothing at the playhead. */
  readonly lost = computed(() => {
    if (!this.row().driven) return null;
    const why = this.standing.lostBy(this.row().id);
    return why === null ? null : `Its driver gives nothing here: ${why}`;
  });

  constructor() {
    effect(() => {
      const { id, label } = this.row();
      const value = this.stage.valueOf(id);
      this.text().nativeElement.textContent =
        value === null ? '' : shownNumber(value, decimalsOf(label.unit));
    });
  }
}
