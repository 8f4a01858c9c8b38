import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  untracked,
  ViewContainerRef,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router } from '@angular/router';
import type { Project } from '@kaizen/core';
import { MadeAhead } from './open/made-ahead';
import { Opener } from './open/opener';
import { Studio } from './state/studio';
import { whenIdle } from './ui/when-idle';
import { rehearseReading } from './workers/read.client';

/** Milliseconds that Projects is left alone before the page uses the time: who knows where to go has gone by then. */
const PAUSE = 1000;

/** So often is opening rehearsed, some hundredths of a second each time: by then what takes longest is compiled for good. */
const ROUNDS = 5;

/**
 * Makes the Bench out of sight before a project is there for it: once Projects is shown and the page has nothing to do, and anywhere
 * while a worker reads a project. With time left it rehearses how a project is opened.
 */
@Component({
  selector: 'kz-bench-ahead',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
})
export class BenchAheadComponent {
  private readonly opener = inject(Opener);
  private readonly router = inject(Router);
  private readonly studio = inject(Studio);
  private readonly ahead = inject(MadeAhead);
  private readonly place = inject(ViewContainerRef);

  constructor() {
    this.router.events.pipe(takeUntilDestroyed()).subscribe((event) => {
      if (!(event instanceof NavigationEnd)) return;
      if (this.waits()) setTimeout(() => whenIdle(() => void this.make()), PAUSE);
      else if (!this.opener.reads()) this.ahead.drop();
    });
    effect(() => {
      const reads = this.opener.reads();
      untracked(() => {
        if (reads) void this.make();
        else if (!this.waits()) this.ahead.drop();
      });
    });
  }

  /** Whether Projects is shown and no project is open: what comes next is nearly always a Bench. */
  private waits(): boolean {
    return this.router.url.startsWith('/projects') && this.studio.project() === null;
  }

  private get isWanted(): boolean {
    return this.waits() || (this.opener.reads() && !this.router.url.startsWith('/bench'));
  }

  private async make(): Promise<void> {
    if (this.ahead.has) return;
    // What is missing is told when the Bench's page asks for it.
    const bench = await import('./bench/bench.component').catch(() => null);
    if (!bench || !this.isWanted || this.ahead.has) return;
    this.ahead.put(this.place.createComponent(bench.BenchComponent));
    // Where a worker fails now, that is told when it is needed.
    whenIdle(() => void this.rehearse(bench.rehearseOpening).catch(() => undefined));
  }

  private async rehearse(opening: (made: Project) => void): Promise<void> {
    for (let round = 0; round < ROUNDS && !this.isBusy; round++) {
      const project = await rehearseReading();
      if (!project) return;
      await new Promise<void>((done) => whenIdle(done));
      if (!this.isBusy) opening(project);
    }
  }

  private get isBusy(): boolean {
    return !this.waits() || this.opener.reads();
  }
}
