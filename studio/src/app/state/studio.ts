import { computed, Injectable, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { framesPerSecond, type Project } from '@kaizen/core';
import { benchActions, benchFeature, type BenchState, type Picked } from './bench';
import { documentActions, documentFeature, type LooseEdit, type Snapshot } from './document';

/** The store as signals, and the few ways to change it. */
@Injectable({ providedIn: 'root' })
export class Studio {
  private readonly store = inject(Store);
  readonly current = this.store.selectSignal(documentFeature.selectCurrent);
  readonly project = this.store.selectSignal(documentFeature.selectProject);
  readonly loose = this.store.selectSignal(documentFeature.selectLoose);
  readonly readOnly = this.store.selectSignal(documentFeature.selectReadOnly);
  readonly undoLabel = this.store.selectSignal(documentFeature.selectUndoLabel);
  readonly redoLabel = this.store.selectSignal(documentFeature.selectRedoLabel);
  readonly bench = this.store.selectSignal(benchFeature.selectBenchState);

  readonly framesPerSecond = computed(() => {
    const project = this.project();
    return project ? framesPerSecond(project.rate) : 24;
  });

  /** One edit: one undo step under its label. An edit that changes nothing leaves no step. */
  edit(
    label: string,
    change: (project: Project) => Project,
    loose?: (loose: readonly LooseEdit[]) => readonly LooseEdit[],
  ): void {
    const current = this.current();
    if (!current) return;
    const snapshot = {
      project: change(current.project),
      loose: loose ? loose(current.loose) : current.loose,
    };
    this.store.dispatch(documentActions.edited({ label, snapshot }));
  }

  open(snapshot: Snapshot, readOnly: boolean): void {
    this.store.dispatch(documentActions.opened({ snapshot, readOnly }));
  }
  follow(snapshot: Snapshot): void {
    this.store.dispatch(documentActions.followed({ snapshot }));
  }
  setReadOnly(readOnly: boolean): void {
    this.store.dispatch(readOnly ? documentActions.handedAway() : documentActions.takenOver());
  }
  close(): void {
    this.store.dispatch(documentActions.closed());
  }
  undo(): void {
    this.store.dispatch(documentActions.undone());
  }
  redo(): void {
    this.store.dispatch(documentActions.redone());
  }
  pick(picked: Picked): void {
    this.store.dispatch(benchActions.picked({ picked }));
  }
  set(change: Partial<Omit<BenchState, keyof Picked>>): void {
    this.store.dispatch(benchActions.set({ change }));
  }
  restore(bench: Partial<BenchState>): void {
    this.store.dispatch(benchActions.restored({ bench }));
  }
}
