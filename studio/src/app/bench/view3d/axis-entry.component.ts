import {
  afterRenderEffect,
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  inject,
  viewChild,
} from '@angular/core';
import { AxisEntry } from './axis-entry';

/** The small field of a move, turn or size by keyboard. */
@Component({
  selector: 'kz-axis-entry',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (entry.axis() !== null) {
      <label class="card">
        {{ entry.title() }}
        <input
          #box
          class="input numbers"
          type="text"
          autocomplete="off"
          (keydown)="onKey($event, box)"
          (input)="entry.show(box.value)"
          (blur)="entry.end()"
        />
        <span class="soft numbers">{{ entry.unit() }}</span>
        <span class="soft">Enter takes it, Esc gives it up, X Y Z change the axis</span>
      </label>
    }
  `,
  styles: `
    label {
      display: flex;
      align-items: center;
      gap: 8px;
      padding: 6px 12px;
      border-color: var(--select);
    }
    .input {
      width: 90px;
    }
  `,
})
export class AxisEntryComponent {
  readonly entry = inject(AxisEntry);
  private readonly application = inject(ApplicationRef);
  private readonly box = viewChild<ElementRef<HTMLInputElement>>('box');

  constructor() {
    afterRenderEffect(() => this.box()?.nativeElement.focus());
  }

  onKey(event: KeyboardEvent, box: HTMLInputElement): void {
    const axis = ['x', 'y', 'z'].indexOf(event.key.toLowerCase());
    if (axis >= 0 && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      this.entry.begin(axis);
      this.entry.show(box.value);
    } else if (event.key === 'Enter') this.entry.take(box.value);
    else if (event.key === 'Escape') this.entry.end();
    event.stopPropagation();
    this.application.tick();
  }
}
