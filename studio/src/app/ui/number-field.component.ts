import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { isAboutText } from './own-keys';
import { followDrag } from './follow-drag';
import { Notices } from './notices';
import {
  applyAmount,
  decimalsOf,
  readAmount,
  shownClock,
  shownFrame,
  shownNumber,
  type Amount,
} from './amount';

/** Pixels of a drag for one step of a field's last shown digit. */
const PIXELS_A_STEP = 3;

/**
 * A number with its unit: typed with arithmetic and units, scrubbed by dragging, stepped by arrow keys. Over several values
 * that differ it shows *mixed*, and what is typed goes to all.
 */
@Component({
  selector: 'kz-number-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
  template: `
    <label class="field">
      @if (label()) {
        <span class="label">
          @if (badge()) {
            <span class="badge" [class]="badge()!.toLowerCase()">{{ badge() }}</span>
          }
          {{ label() }}
        </span>
      }
      <span
        class="box"
        [class.disabled]="disabled()"
        [class.loose]="loose()"
        [class.driven]="driven()"
        [class.compact]="!label() && badge() !== null"
        [matTooltip]="tip()"
      >
        @if (!label() && badge()) {
          <span class="letter" [class]="badge()!.toLowerCase()" aria-hidden="true">{{ badge() }}</span>
        }
        <input
          #box
          type="text"
          inputmode="decimal"
          autocomplete="off"
          spellcheck="false"
          class="numbers"
          [class.mixed]="mixed()"
          [attr.aria-label]="name() || label()"
          [attr.data-shown]="shown()"
          [placeholder]="mixed() ? 'mixed' : ''"
          [value]="shown()"
          [disabled]="disabled()"
          (focus)="box.select()"
          (keydown)="onKey($event)"
          (change)="onChange()"
          (blur)="onBlur()"
          (pointerdown)="onPointerDown($event)"
        />
        <span class="unit soft numbers" aria-hidden="true">{{ unit() }}</span>
      </span>
    </label>
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    .box {
      display: flex;
      align-items: center;
      height: 26px;
      min-width: 0;
      padding: 0 8px 0 0;
      border: 1px solid var(--rule);
      border-radius: var(--radius);
      background: var(--field);
    }
    .box:focus-within {
      border-color: var(--select);
      box-shadow: 0 0 0 1px var(--select);
    }
    .box.loose {
      border: 1px dashed var(--loose);
    }
    .box.driven {
      border: 1px dotted var(--ink);
    }
    .box.disabled {
      background: none;
      color: var(--ink-soft);
    }
    input {
      flex: 1;
      min-width: 0;
      height: 24px;
      padding: 0 4px 0 8px;
      border: 0;
      background: none;
      color: inherit;
      font-size: 12.5px;
      cursor: ew-resize;
    }
    input:focus {
      outline: none;
      cursor: text;
    }
    input.mixed::placeholder {
      font-family: 'Barlow Semi Condensed', sans-serif;
      color: var(--ink-soft);
      opacity: 1;
    }
    .compact {
      padding-right: 5px;
    }
    .compact input {
      padding: 0 2px 0 5px;
      font-size: 12px;
    }
    .unit {
      flex: none;
      font-size: 12px;
    }
    .letter {
      padding-left: 7px;
      font:
        600 11px/1 'IBM Plex Mono',
        monospace;
    }
    .letter.x {
      color: var(--axis-x);
    }
    .letter.y {
      color: var(--axis-y);
    }
    .letter.z {
      color: var(--axis-z);
    }
    .label {
      display: flex;
      gap: 5px;
      align-items: center;
    }
  `,
})
export class NumberFieldComponent {
  readonly label = input('');
  /** What a screen reader hears where there is no visible label. */
  readonly name = input('');
  readonly badge = input<'X' | 'Y' | 'Z' | null>(null);
  readonly unit = input('');
  readonly tip = input('');
  /** The values the field stands for; none: empty. */
  readonly values = input.required<readonly number[]>();
  readonly decimals = input<number | null>(null);
  readonly framesPerSecond = input(24);
  readonly disabled = input(false);
  readonly loose = input(false);
  readonly driven = input(false);
  /** What each value becomes. */
  readonly changed = output<(value: number) => number>();
  /** While scrubbing: what each value would become; null when it is given up. */
  readonly previewed = output<((value: number) => number) | null>();
  private readonly notices = inject(Notices);
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  /** The one value of the field while it is scrubbed: from where the drag began, whatever a preview shows meanwhile. */
  private readonly scrubbed = signal<number | null>(null);

  readonly mixed = computed(() => this.values().some((value) => value !== this.values()[0]));
  readonly shown = computed(() => {
    const value = this.values()[0];
    if (value === undefined || this.mixed()) return '';
    return this.text(this.scrubbed() ?? value);
  });

  private places(): number {
    return this.decimals() ?? decimalsOf(this.unit());
  }

  private text(value: number): string {
    if (this.unit() === 'h') return shownClock(value);
    return this.unit() === 'f' && this.decimals() === null
      ? shownFrame(value)
      : shownNumber(value, this.places());
  }

  onKey(event: KeyboardEvent): void {
    const box = this.box().nativeElement;
    // Ctrl combinations that are not about the text typed here belong to the Bench.
    if ((event.ctrlKey || event.metaKey) && !isAboutText(event, box)) return;
    if (event.key === 'Enter') {
      this.onChange();
      box.blur();
    } else if (event.key === 'Escape') {
      box.value = this.shown();
      box.blur();
    } else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      event.preventDefault();
      const step = this.step() * (event.shiftKey ? 10 : 1) * (event.key === 'ArrowUp' ? 1 : -1);
      this.changed.emit((value) => value + step);
    }
    event.stopPropagation();
  }

  onChange(): void {
    const box = this.box().nativeElement;
    if (box.value === this.shown() || box.value.trim() === '') return;
    const amount: Amount = readAmount(box.value, this.unit(), this.framesPerSecond());
    if (amount.kind === 'wrong') {
      this.notices.warn(amount.message);
      box.value = this.shown();
      return;
    }
    this.changed.emit((value) => applyAmount(amount, value));
    box.value = this.shown();
  }

  onBlur(): void {
    this.box().nativeElement.value = this.shown();
  }

  private step(): number {
    return this.unit() === 'f' || this.unit() === '°' ? 1 : 10 ** -Math.min(2, this.places());
  }

  onPointerDown(down: PointerEvent): void {
    const box = this.box().nativeElement;
    if (down.button !== 0 || document.activeElement === box || this.disabled()) return;
    down.preventDefault();
    const startX = down.clientX;
    let dragged = false;
    let steps = 0;
    const start = this.mixed() ? undefined : this.values()[0];
    const offset = () => steps * this.step();
    const move = (event: PointerEvent) => {
      steps = Math.round((event.clientX - startX) / PIXELS_A_STEP);
      dragged ||= steps !== 0;
      if (!dragged) return;
      const by = offset();
      this.scrubbed.set(start === undefined ? null : start + by);
      this.previewed.emit((value) => (start ?? value) + by);
    };
    const finish = () => {
      this.scrubbed.set(null);
      if (dragged) this.previewed.emit(null);
    };
    followDrag({
      move,
      end: () => {
        finish();
        const by = offset();
        if (!dragged) box.focus();
        else if (by !== 0) this.changed.emit((value) => value + by);
      },
      cancel: finish,
    });
  }
}
