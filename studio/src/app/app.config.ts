import { OverlayKeyboardDispatcher } from '@angular/cdk/overlay';
import {
  type ApplicationConfig,
  ErrorHandler,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
} from '@angular/core';
import { provideRouter, withComponentInputBinding, withPreloading } from '@angular/router';
import { provideState, provideStore } from '@ngrx/store';
import { MAT_TOOLTIP_DEFAULT_OPTIONS } from '@angular/material/tooltip';
import { routes } from './app.routes';
import { benchFeature } from './state/bench';
import { documentFeature } from './state/document';
import { provideIcons } from './ui/icons';
import { AskInDialog } from './shell/ask-in-dialog';
import { Keeper } from './storage/keeper';
import { LeaveQuestion } from './storage/leave-question';
import { Settings } from './ui/settings';
import { WhenIdle } from './shell/fetch-ahead';
import { TellingErrorHandler } from './shell/telling-error-handler';
import { KeysPastTooltips } from './ui/keys-past-tooltips';

/** NgRx's checks that freeze and walk the state are off: a project of any size must cost the same to edit. */
const NO_CHECKS = {
  strictStateImmutability: false,
  strictActionImmutability: false,
  strictStateSerializability: false,
  strictActionSerializability: false,
  strictActionWithinNgZone: false,
  strictActionTypeUniqueness: false,
};

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    { provide: ErrorHandler, useClass: TellingErrorHandler },
    provideRouter(routes, withComponentInputBinding(), withPreloading(WhenIdle)),
    provideStore({}, { runtimeChecks: NO_CHECKS }),
    provideState(documentFeature),
    provideState(benchFeature),
    provideIcons(),
    { provide: Settings, useExisting: Keeper },
    { provide: LeaveQuestion, useClass: AskInDialog },
    { provide: OverlayKeyboardDispatcher, useClass: KeysPastTooltips },
    {
      provide: MAT_TOOLTIP_DEFAULT_OPTIONS,
      useValue: { showDelay: 500, hideDelay: 0, touchendHideDelay: 1500, disableTooltipInteractivity: true },
    },
  ],
};
