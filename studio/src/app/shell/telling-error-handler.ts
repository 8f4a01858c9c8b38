import { ErrorHandler, Injectable, Injector, inject } from '@angular/core';
import { Notices } from '../ui/notices';

/** Errors that nobody caught are told in one sentence, and written where a developer looks for them. */
@Injectable()
export class TellingErrorHandler extends ErrorHandler {
  private readonly injector = inject(Injector);

  override handleError(error: unknown): void {
    super.handleError(error);
    const reason = error instanceof Error ? error.message : String(error);
    const isFetch = /dynamically imported module|Failed to fetch|Loading chunk|NetworkError/i.test(reason);
    this.injector
      .get(Notices)
      .warn(
        isFetch
          ? 'A part of Kaizen could not be fetched: its server has stopped. Start it again with npm start; what you made is kept in this browser'
          : `Something went wrong inside Kaizen (${reason}). What you made is kept; reload the page if something looks odd`,
      );
  }
}
