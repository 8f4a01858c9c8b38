import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  input,
  viewChildren,
} from '@angular/core';
import { Vector3 } from 'three';
import { MatIcon } from '@angular/material/icon';
import { decimalsOf, shownNumber } from '../../ui/amount';
import { Studio } from '../../state/studio';
import { AmountStrip } from './amount-strip';
import { toScreen, type Eye } from './grip-math';

const [WIDTH, HEIGHT] = [412, 66];
/** How far from the pivot it hangs, so that it never lies over the grips. */
const [ASIDE, BELOW] = [28, 40];

/** The strip of three fields for exact amounts, hung from the pivot of what it moves. */
@Component({
  selector: 'kz-amount-strip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatIcon],
  template: `
    @if (strip.open() !== null) {
      @let at = place();
      <svg aria-hidden="true"><path [attr.d]="at.leader" /></svg>
      <div
        class="strip"
        role="group"
        [attr.aria-label]="strip.title()"
        [style.left.px]="at.left"
        [style.top.px]="at.top"
        (keydown)="onKey($event)"
        (focusout)="onFocusOut($event)"
      >
        <p>
          <strong>{{ strip.title() }}</strong>
          <span class="soft">{{ strip.about() }}</span>
          <span class="soft keys">Enter takes · Esc leaves</span>
        </p>
        <div class="fields">
          @for (field of strip.fields(); track field.letter; let i = $index, last = $last) {
            <label [class.wrong]="field.wrong">
              <span class="badge" [class]="field.letter.toLowerCase()">{{ field.letter }}</span>
              <input
                #box
                class="numbers"
                type="text"
                autocomplete="off"
                spellcheck="false"
                [attr.aria-label]="strip.title() + ' ' + field.letter"
                [attr.aria-invalid]="field.wrong"
                [placeholder]="field.value === null ? 'mixed' : shown(field.value)"
                (input)="strip.type(i, box.value)"
              />
              <span class="numbers soft">{{ field.makes }} {{ strip.unit() }}</span>
            </label>
            @if (!last) {
              <mat-icon class="tab" svgIcon="tab" aria-hidden="true" />
            }
          }
        </div>
      </div>
    }
  `,
  styles: `
    svg {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
      pointer-events: none;
      fill: none;
      stroke: var(--ink);
    }
    .strip {
      position: absolute;
      z-index: 6;
      width: 412px;
      height: 66px;
      padding: 5px 8px;
      border: 1px solid var(--ink);
      border-radius: var(--radius);
      background: var(--sheet);
    }
    p {
      display: flex;
      gap: 10px;
      margin: 0 0 4px;
      font-size: 12.5px;
      white-space: nowrap;
      overflow: hidden;
    }
    strong {
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .keys {
      margin-left: auto;
    }
    .fields {
      display: flex;
      align-items: center;
      gap: 4px;
    }
    label {
      display: flex;
      flex: 1;
      align-items: center;
      gap: 4px;
      min-width: 0;
      height: 28px;
      padding: 0 6px;
      border: 1px solid var(--rule);
      border-radius: var(--radius);
      background: var(--field);
    }
    label:focus-within {
      flex: 1.5;
      border-color: var(--select);
      box-shadow: 0 0 0 1px var(--select);
    }
    label.wrong {
      border-color: var(--warn);
    }
    input {
      flex: 1;
      min-width: 0;
      width: 40px;
      border: 0;
      background: none;
      color: inherit;
      font-size: 12.5px;
    }
    input:focus {
      outline: none;
    }
    input::placeholder {
      color: var(--ink-soft);
      opacity: 1;
    }
    .numbers.soft {
      flex: none;
      font-size: 11.5px;
    }
    .tab {
      flex: none;
      width: 14px;
      height: 14px;
      color: var(--ink-soft);
    }
  `,
})
export class AmountStripComponent {
  readonly eye = input.required<Eye>();
  readonly strip = inject(AmountStrip);
  private readonly studio = inject(Studio);
  private readonly boxes = viewChildren<ElementRef<HTMLInputElement>>('box');

  /**
   * Beside and below the pivot as it was when the strip opened; on the other side where there is no room. It stays there while what
   * is typed moves the part, also out of sight.
   */
  readonly place = computed(() => {
    const { turnPoint, tool } = this.studio.bench();
    const origin = turnPoint && tool !== 'move' ? new Vector3(...turnPoint) : this.strip.pivot();
    const eye = this.eye();
    const at = (origin && toScreen(eye, origin)) ?? { x: eye.width / 2, y: eye.height / 2 };
    const x = Math.min(eye.width, Math.max(0, at.x));
    const y = Math.min(eye.height, Math.max(0, at.y));
    const right = x + ASIDE + WIDTH < eye.width;
    const under = y + BELOW + HEIGHT < eye.height;
    const left = Math.max(8, right ? x + ASIDE : x - ASIDE - WIDTH);
    const top = Math.max(8, under ? y + BELOW : y - BELOW - HEIGHT);
    const corner = `${right ? left : left + WIDTH} ${under ? top : top + HEIGHT}`;
    return { left, top, leader: `M${x} ${y}L${corner}` };
  });

  constructor() {
    let focused: number | null = null;
    afterRenderEffect(() => {
      const field = this.strip.open();
      const box = this.boxes()[field ?? 0];
      if (field !== focused && box) box.nativeElement.focus();
      focused = box ? field : null;
    });
  }

  shown(value: number): string {
    return shownNumber(value, decimalsOf(this.strip.unit()));
  }

  onKey(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey) return;
    if (event.key === 'Enter') this.strip.take();
    else if (event.key === 'Escape') this.strip.end();
    event.stopPropagation();
  }

  onFocusOut(event: FocusEvent): void {
    const strip = event.currentTarget as HTMLElement;
    if (!(event.relatedTarget instanceof Node && strip.contains(event.relatedTarget))) this.strip.end();
  }
}
