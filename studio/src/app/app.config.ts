import { OverlayKeyboardDispatcher } from '@angular/cdk/overlay';
import {
  type ApplicationConfig,
  ErrorHandler,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
} from '@angular/core';
import { provideRouter, withComponentInputBinding, withPreloading } from '@angular/router';
import { routes } from './app.routes';
import { provideStudioStore } from './state/store';
import { provideIcons } from './ui/icons';
import { AskInDialog } from './shell/ask-in-dialog';
import { Keeper } from './storage/keeper';
import { LeaveQuestion } from './storage/leave-question';
import { TIPS_ABOVE } from './ui/tips';
import { Settings } from './ui/settings';
import { WhenIdle } from './shell/fetch-ahead';
import { TellingErrorHandler } from './shell/telling-error-handler';
import { KeysPastTooltips } from './ui/keys-past-tooltips';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    { provide: ErrorHandler, useClass: TellingErrorHandler },
    provideRouter(routes, withComponentInputBinding(), withPreloading(WhenIdle)),
    provideStudioStore(),
    provideIcons(),
    { provide: Settings, useExisting: Keeper },
    { provide: LeaveQuestion, useClass: AskInDialog },
    { provide: OverlayKeyboardDispatcher, useClass: KeysPastTooltips },
    TIPS_ABOVE,
  ],
};
