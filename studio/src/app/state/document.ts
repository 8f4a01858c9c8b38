import { createAction, createFeature, createReducer, createSelector, on, props } from '@ngrx/store';
import type { Project } from '@kaizen/core';
import type { LooseEdit } from './loose-edit';
import type { Pointers, PointersMoved } from './pointers';

export type { LooseEdit };

/** What undo goes back to. */
export interface Snapshot {
  readonly project: Project;
  readonly loose: readonly LooseEdit[];
}

interface Step extends Snapshot {
  /** What the edit that left this state was called. */
  readonly label: string;
  /** Where the edit moved what points into the project. */
  readonly pointers: PointersMoved;
}

export interface DocumentState {
  readonly current: Snapshot | null;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
  /** Another tab edits this project; this one follows and changes nothing. */
  readonly readOnly: boolean;
}

/** Where pointers were when undo or redo was asked for, and where they go. */
interface PointersBack {
  readonly now: Pointers;
  readonly back: Pointers;
}

/** Older steps are let go: a project shares what did not change, but the list itself must end. */
const MOST_STEPS = 1000;

export const documentActions = {
  opened: createAction('[Document] Opened', props<{ snapshot: Snapshot; readOnly: boolean }>()),
  followed: createAction('[Document] Followed another tab', props<{ snapshot: Snapshot }>()),
  takenOver: createAction('[Document] Taken over'),
  handedAway: createAction('[Document] Handed to another tab'),
  closed: createAction('[Document] Closed'),
  edited: createAction(
    '[Document] Edited',
    props<{ label: string; snapshot: Snapshot; pointers: PointersMoved }>(),
  ),
  undone: createAction('[Document] Undone', props<PointersBack>()),
  redone: createAction('[Document] Redone', props<PointersBack>()),
};

const initial: DocumentState = { current: null, past: [], future: [], readOnly: false };

export const documentReducer = createReducer(
  initial,
  on(documentActions.opened, (_, { snapshot, readOnly }): DocumentState => ({
    ...initial,
    current: snapshot,
    readOnly,
  })),
  on(documentActions.followed, (state, { snapshot }): DocumentState => ({
    ...state,
    current: snapshot,
    past: [],
    future: [],
  })),
  on(documentActions.takenOver, (state): DocumentState => ({ ...state, readOnly: false })),
  on(documentActions.handedAway, (state): DocumentState => ({
    ...state,
    readOnly: true,
    past: [],
    future: [],
  })),
  on(documentActions.closed, (): DocumentState => initial),
  on(documentActions.edited, (state, { label, snapshot, pointers }): DocumentState => {
    const { current } = state;
    if (
      !current ||
      state.readOnly ||
      (snapshot.project === current.project && snapshot.loose === current.loose)
    )
      return state;
    return {
      ...state,
      current: snapshot,
      past: [...state.past, { ...current, label, pointers }].slice(-MOST_STEPS),
      future: [],
    };
  }),
  on(documentActions.undone, (state, { now }): DocumentState => {
    const step = state.past.at(-1);
    if (!step || !state.current || state.readOnly) return state;
    return {
      ...state,
      current: { project: step.project, loose: step.loose },
      past: state.past.slice(0, -1),
      future: [
        { ...state.current, label: step.label, pointers: { ...step.pointers, after: now } },
        ...state.future,
      ],
    };
  }),
  on(documentActions.redone, (state, { now }): DocumentState => {
    const [step, ...future] = state.future;
    if (!step || !state.current || state.readOnly) return state;
    return {
      ...state,
      current: { project: step.project, loose: step.loose },
      past: [
        ...state.past,
        { ...state.current, label: step.label, pointers: { ...step.pointers, before: now } },
      ],
      future,
    };
  }),
);

export const documentFeature = createFeature({
  name: 'document',
  reducer: documentReducer,
  extraSelectors: ({ selectCurrent, selectPast, selectFuture }) => ({
    selectProject: createSelector(selectCurrent, (current) => current?.project ?? null),
    selectLoose: createSelector(selectCurrent, (current) => current?.loose ?? NO_LOOSE),
    selectUndoLabel: createSelector(selectPast, (past) => past.at(-1)?.label ?? null),
    selectRedoLabel: createSelector(selectFuture, (future) => future[0]?.label ?? null),
  }),
});
const NO_LOOSE: readonly LooseEdit[] = [];
