import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  untracked,
  ViewContainerRef,
} from '@angular/core';
import { Router } from '@angular/router';
import { MadeAhead } from './open/made-ahead';
import { Opener } from './open/opener';

/** While a worker reads a project, the page has nothing to do: it makes the Bench that will show it, out of sight. */
@Component({
  selector: 'kz-bench-ahead',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
})
export class BenchAheadComponent {
  private readonly opener = inject(Opener);
  private readonly router = inject(Router);
  private readonly ahead = inject(MadeAhead);
  private readonly place = inject(ViewContainerRef);

  constructor() {
    effect(() => {
      const reads = this.opener.reads();
      untracked(() => {
        if (!reads) this.ahead.drop();
        else if (!this.router.url.startsWith('/bench')) void this.make();
      });
    });
  }

  private async make(): Promise<void> {
    // What is missing is told when the Bench's page asks for it.
    const bench = await import('./bench/bench.component').catch(() => null);
    if (bench && this.opener.reads()) this.ahead.put(this.place.createComponent(bench.BenchComponent));
  }
}
