import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import {
  compileExpression,
  FORMULA_WORDS,
  formulaValue,
  secondsPerFrame,
  type ExpressionDriver,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { decimalsOf, shownNumber } from '../../ui/amount';
import { channelLabel } from '../stage/channel-label';
import { Stage } from '../stage/stage';
import { completed, wordAt } from './formula-words';

interface Word {
  readonly name: string;
  readonly isFunction: boolean;
}

/** No more words are offered than fit in a line or two. */
const MOST_WORDS = 8;

/**
 * The formula of a driver: while it is typed, what it comes to at the playhead, what is wrong with it and where, and the words that
 * begin as the one at the caret; Tab takes the first of them.
 */
@Component({
  selector: 'kz-formula-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
  template: `
    <label class="field">
      <span class="label">Formula</span>
      <input
        #field
        class="input numbers"
        type="text"
        spellcheck="false"
        autocomplete="off"
        [attr.aria-label]="name()"
        [value]="text()"
        [disabled]="studio.readOnly()"
        matTooltip="Numbers, the names above, frame, seconds, pi; + − * /, sin(x), clamp(x, lo, hi), a ? b : c …; angles in degrees. Tab completes a word"
        (input)="typed()"
        (click)="look()"
        (keydown)="onKey($event)"
        (blur)="take()"
      />
    </label>
    @if (problem(); as wrong) {
      @if (wrong.at !== undefined) {
        <span class="place numbers" aria-hidden="true">{{ ' '.repeat(wrong.at) }}^</span>
      }
      <span class="bad" role="status">{{ wrong.message }}</span>
    } @else {
      <span class="soft value" role="status">{{ comesTo() }}</span>
    }
    @if (words().length > 0) {
      <div class="words" role="group" aria-label="Words that begin so">
        @for (word of words(); track word.name) {
          <button
            class="chip numbers"
            type="button"
            tabindex="-1"
            [matTooltip]="$first ? 'Tab takes it' : ''"
            (mousedown)="$event.preventDefault()"
            (click)="complete(word)"
          >
            {{ word.name }}{{ word.isFunction ? '()' : '' }}
          </button>
        }
      </div>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    .place {
      display: block;
      height: 12px;
      padding-left: 9px;
      color: var(--warn);
      font-size: 12.5px;
      line-height: 12px;
      white-space: pre;
      overflow: hidden;
    }
    .bad {
      color: var(--warn);
      font-size: 12.5px;
    }
    .value {
      font-size: 12.5px;
    }
    .words {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
      margin-top: 4px;
    }
  `,
})
export class FormulaFieldComponent {
  readonly name = input.required<string>();
  readonly driver = input.required<ExpressionDriver>();
  readonly changed = output<string>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  /** What stands in the field: the driver's own until something is typed. */
  readonly text = linkedSignal<string, string>({
    source: () => this.driver().expression,
    computation: (own, before) => (before?.source === own ? before.value : own),
  });
  /** Where the caret stands while one types; null: nobody does. */
  private readonly caret = signal<number | null>(null);

  private readonly names = computed(() => Object.keys(this.driver().inputs));
  private readonly compiled = computed(() => compileExpression(this.text(), this.names()));
  readonly problem = computed(() => {
    const compiled = this.compiled();
    return compiled.ok ? null : compiled;
  });

  /** What it comes to at the playhead, from what its inputs are there. */
  readonly comesTo = computed(() => {
    const [compiled, project, now] = [this.compiled(), this.stage.shown(), this.stage.now()];
    if (!compiled.ok || !project || !now) return '';
    const { inputs, target } = this.driver();
    const values = Object.values(inputs).map((channel) => this.stage.valueOf(channel) ?? NaN);
    const seconds = now.frame * secondsPerFrame(project.rate);
    const value = formulaValue(compiled.value.code, Float64Array.of(now.frame, seconds, ...values));
    const { unit } = channelLabel(project, target);
    return Number.isFinite(value)
      ? `= ${shownNumber(value, decimalsOf(unit))} ${unit}`.trim()
      : 'no number at this frame';
  });

  readonly words = computed((): readonly Word[] => {
    const caret = this.caret();
    if (caret === null) return [];
    const { word } = wordAt(this.text(), caret);
    if (word === '') return [];
    const all: readonly Word[] = [
      ...this.names().map((name) => ({ name, isFunction: false })),
      ...FORMULA_WORDS,
    ];
    return all.filter(({ name }) => name.startsWith(word) && name !== word).slice(0, MOST_WORDS);
  });

  typed(): void {
    this.text.set(this.field().nativeElement.value);
    this.look();
  }

  /** Takes notice of where the caret is. */
  look(): void {
    const { selectionStart, selectionEnd } = this.field().nativeElement;
    this.caret.set(selectionStart === selectionEnd ? selectionStart : null);
  }

  onKey(event: KeyboardEvent): void {
    const [word] = this.words();
    if (event.key === 'Tab' && !event.shiftKey && word) {
      event.preventDefault();
      this.complete(word);
    } else if (event.key === 'Enter') this.field().nativeElement.blur();
    else if (event.key === 'Escape') {
      this.text.set(this.driver().expression);
      this.caret.set(null);
    }
  }

  complete(word: Word): void {
    const { nativeElement } = this.field();
    const done = completed(this.text(), this.caret() ?? this.text().length, word);
    this.text.set(done.text);
    nativeElement.value = done.text;
    nativeElement.setSelectionRange(done.caret, done.caret);
    this.caret.set(done.caret);
  }

  /** Takes what was typed; what can't be read stays in the field, and the driver as it was. */
  take(): void {
    this.caret.set(null);
    const text = this.text().trim();
    if (text !== '' && text !== this.driver().expression && this.compiled().ok) this.changed.emit(text);
  }
}
