import { makeEnvironmentProviders, type EnvironmentProviders } from '@angular/core';
import { provideState, provideStore } from '@ngrx/store';
import { benchFeature } from './bench';
import { documentFeature } from './document';

/** NgRx's checks that freeze and walk the state are off: a project of any size must cost the same to edit. */
const NO_CHECKS = {
  strictStateImmutability: false,
  strictActionImmutability: false,
  strictStateSerializability: false,
  strictActionSerializability: false,
  strictActionWithinNgZone: false,
  strictActionTypeUniqueness: false,
};

/** The store with the document and the Bench in it. */
export function provideStudioStore(): EnvironmentProviders {
  return makeEnvironmentProviders([
    provideStore({}, { runtimeChecks: NO_CHECKS }),
    provideState(documentFeature),
    provideState(benchFeature),
  ]);
}
