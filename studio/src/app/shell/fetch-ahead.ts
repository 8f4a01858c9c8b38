import { Injectable } from '@angular/core';
import type { PreloadingStrategy, Route } from '@angular/router';
import { EMPTY, Observable } from 'rxjs';
import { fetchSamples } from '../open/samples';
import { whenIdle } from '../ui/when-idle';

/** Screens that were not asked for yet are fetched when the page has nothing else to do. */
@Injectable({ providedIn: 'root' })
export class WhenIdle implements PreloadingStrategy {
  preload(route: Route, load: () => Observable<unknown>): Observable<unknown> {
    if (!route.loadComponent) return EMPTY;
    return new Observable((told) =>
      whenIdle(() =>
        load().subscribe({
          next: (value) => told.next(value),
          error: () => told.complete(),
          complete: () => told.complete(),
        }),
      ),
    );
  }
}

/**
 * Fetches what the page may need later while it is idle, so that a server that stops takes nothing away: dialogs, workers,
 * samples.
 */
@Injectable({ providedIn: 'root' })
export class FetchAhead {
  begin(): void {
    whenIdle(() => {
      const all: readonly Promise<unknown>[] = [
        import('./palette.component'),
        import('./shortcuts.component'),
        import('./leave-dialog.component'),
        import('../workers/run-in-worker').then(({ prepareWorker }) => prepareWorker()),
        fetchSamples(),
      ];
      // What is missing now is told when it is needed.
      for (const each of all) each.catch(() => undefined);
    });
  }
}
