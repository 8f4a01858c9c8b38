import { computed, Injector, signal, type Signal } from '@angular/core';
import { combineReducers, Store, type Action } from '@ngrx/store';
import { benchFeature } from '../state/bench';
import { documentFeature } from '../state/document';
import { Studio } from '../state/studio';

const reduce = combineReducers({
  [documentFeature.name]: documentFeature.reducer,
  [benchFeature.name]: benchFeature.reducer,
});

/** The studio over its own reducers, without the rest of NgRx. */
export function studioAlone(): Studio {
  const state = signal(reduce(undefined, { type: 'start' }));
  const store = {
    selectSignal: <T>(select: (of: object) => T): Signal<T> => computed(() => select(state())),
    dispatch: (action: Action) => state.update((now) => reduce(now, action)),
  };
  const providers = [
    { provide: Store, useValue: store },
    { provide: Studio, useClass: Studio },
  ];
  return Injector.create({ providers: providers as [] }).get(Studio);
}
