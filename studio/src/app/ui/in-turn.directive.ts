import {
  DestroyRef,
  Directive,
  Injectable,
  TemplateRef,
  ViewContainerRef,
  afterNextRender,
  inject,
  input,
} from '@angular/core';

/** Work that is done piece by piece, a task each, so that the page answers between them. */
@Injectable({ providedIn: 'root' })
export class Turns {
  private readonly waiting: (() => void)[] = [];
  private readonly last: (() => void)[] = [];
  private going = false;

  /** Runs something after all that waits already; `last`: after all else, whatever comes meanwhile. */
  take(run: () => void, last = false): void {
    (last ? this.last : this.waiting).push(run);
    if (!this.going) this.goOn();
  }

  private goOn(): void {
    this.going = true;
    setTimeout(() => {
      try {
        (this.waiting.shift() ?? this.last.shift())?.();
      } finally {
        this.going = false;
        if (this.waiting.length + this.last.length > 0) this.goOn();
      }
    });
  }
}

/** `*kzInTurn` makes a part of a page in a task of its own, after those that stand before it; `*kzInTurn="'last'"` after all. */
@Directive({ selector: '[kzInTurn]' })
export class InTurnDirective {
  readonly kzInTurn = input<'last' | ''>('');

  constructor() {
    const container = inject(ViewContainerRef);
    const template = inject<TemplateRef<unknown>>(TemplateRef);
    const turns = inject(Turns);
    let gone = false;
    inject(DestroyRef).onDestroy(() => (gone = true));
    afterNextRender(() =>
      turns.take(() => {
        if (!gone) container.createEmbeddedView(template).detectChanges();
      }, this.kzInTurn() === 'last'),
    );
  }
}
