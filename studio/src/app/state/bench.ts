import { createAction, createFeature, createReducer, on, props } from '@ngrx/store';
import type { HandleRef, KeyRef } from '@kaizen/core';
import { documentActions } from './document';
import { initialBench, type BenchState } from './rooms';

export * from './rooms';

export interface Picked {
  readonly parts?: readonly string[];
  readonly channels?: readonly string[];
  readonly keys?: readonly KeyRef[];
  readonly handles?: readonly HandleRef[];
}

export const benchActions = {
  picked: createAction('[Bench] Picked', props<{ picked: Picked }>()),
  set: createAction('[Bench] Set', props<{ change: Partial<Omit<BenchState, keyof Picked>> }>()),
  restored: createAction('[Bench] Restored', props<{ bench: Partial<BenchState> }>()),
};

export const benchReducer = createReducer(
  initialBench,
  on(documentActions.opened, (_, { snapshot }): BenchState => ({
    ...initialBench,
    frame: snapshot.project.range.start,
  })),
  on(documentActions.closed, (): BenchState => initialBench),
  on(documentActions.edited, (state, { pointers }): BenchState => ({ ...state, ...pointers.after })),
  on(documentActions.undone, documentActions.redone, (state, { back }): BenchState => ({
    ...state,
    ...back,
  })),
  on(benchActions.picked, (state, { picked }): BenchState => ({ ...state, ...picked })),
  on(benchActions.set, (state, { change }): BenchState => ({ ...state, ...change })),
  on(benchActions.restored, (state, { bench }): BenchState => ({ ...state, ...bench })),
);

export const benchFeature = createFeature({ name: 'bench', reducer: benchReducer });
