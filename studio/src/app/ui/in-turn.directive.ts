import {
  DestroyRef,
  Directive,
  type EmbeddedViewRef,
  Injectable,
  InjectionToken,
  Injector,
  type Signal,
  TemplateRef,
  ViewContainerRef,
  effect,
  inject,
  input,
  signal,
} from '@angular/core';
import { soon } from './soon';
import { whenDrawn } from './when-drawn';

/** Turns that are done within so many milliseconds are one task: each task more has the page drawn once more. */
const TASK = 8;

/** Work that is done piece by piece, so that the page answers between them. */
@Injectable({ providedIn: 'root' })
export class Turns {
  private readonly waiting: (() => void)[] = [];
  private readonly last: (() => void)[] = [];
  private going = false;
  /** Whether all that waited was done and then drawn. */
  private drawn = false;
  /** What is told when that is drawn; another one once more was done, as that is to be seen, too. */
  private whenSeen: (() => void) | null = null;

  /**
   * Runs something after all that waits already; `last`: after all else, whatever comes meanwhile, and once that has been seen.
   */
  take(run: () => void, last = false): void {
    (last ? this.last : this.waiting).push(run);
    this.goOn();
  }

  private goOn(): void {
    if (this.going) return;
    if (!this.mayGoOn) {
      if (this.last.length > 0) this.awaitSeen();
      return;
    }
    this.going = true;
    soon(() => {
      const end = performance.now() + TASK;
      try {
        do this.next()?.();
        while (this.mayGoOn && performance.now() < end);
      } finally {
        this.going = false;
        this.goOn();
      }
    });
  }

  private awaitSeen(): void {
    if (this.whenSeen) return;
    const seen = () => {
      if (this.whenSeen !== seen) return;
      this.whenSeen = null;
      this.drawn = true;
      this.goOn();
    };
    this.whenSeen = seen;
    whenDrawn(seen);
  }

  private next(): (() => void) | undefined {
    const run = this.waiting.shift();
    if (!run) return this.last.shift();
    this.drawn = false;
    this.whenSeen = null;
    return run;
  }

  private get mayGoOn(): boolean {
    return this.waiting.length > 0 || (this.drawn && this.last.length > 0);
  }
}

/** Whether a page is shown. One that is made ahead is not yet: what it makes in turn sleeps, and wakes in turn. */
export const AWAKE = new InjectionToken<Signal<boolean>>('awake', { factory: () => signal(true) });

/** Whether the part of a page that this is in had its turn; where it is in none, it is shown at once. */
export const SHOWN = new InjectionToken<Signal<boolean>>('shown', { factory: () => signal(true) });

/**
 * `*kzInTurn` makes a part of a page after those that stand before it, in a task of its own where it takes long;
 * `*kzInTurn="'last'"` after all, once the page is shown.
 */
@Directive({ selector: '[kzInTurn]' })
export class InTurnDirective {
  readonly kzInTurn = input<'last' | ''>('');
  private readonly container = inject(ViewContainerRef);
  private readonly template = inject<TemplateRef<unknown>>(TemplateRef);
  private readonly awake = inject(AWAKE);
  private view: EmbeddedViewRef<unknown> | null = null;
  private gone = false;
  private readonly shown = signal(false);
  private readonly injector = Injector.create({
    parent: inject(Injector),
    providers: [{ provide: SHOWN, useValue: this.shown }],
  });

  constructor() {
    const turns = inject(Turns);
    inject(DestroyRef).onDestroy(() => (this.gone = true));
    effect(() => {
      const last = this.kzInTurn() === 'last';
      if (this.awake() || !last) turns.take(() => this.show(), last);
    });
  }

  private show(): void {
    if (this.gone) return;
    if (this.view) this.view.reattach();
    else this.view = this.container.createEmbeddedView(this.template, undefined, { injector: this.injector });
    this.shown.set(this.awake());
    this.view.detectChanges();
    if (!this.awake()) this.view.detach();
  }
}
