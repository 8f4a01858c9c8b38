import { computed, Injectable, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { asEdited, framesPerSecond, holdInterlocks, type Edit } from '@kaizen/core';
import { benchActions, benchFeature, type BenchState, type Picked } from './bench';
import { documentActions, documentFeature, type LooseEdit, type Snapshot } from './document';
import { followLoose, followPointers, pointersBack, pointersOf } from './pointers';

/** The store as signals, and the few ways to change it. */
@Injectable({ providedIn: 'root' })
export class Studio {
  private readonly store = inject(Store);
  readonly current = this.store.selectSignal(documentFeature.selectCurrent);
  readonly project = this.store.selectSignal(documentFeature.selectProject);
  readonly loose = this.store.selectSignal(documentFeature.selectLoose);
  readonly readOnly = this.store.selectSignal(documentFeature.selectReadOnly);
  private readonly past = this.store.selectSignal(documentFeature.selectPast);
  private readonly future = this.store.selectSignal(documentFeature.selectFuture);
  readonly undoLabel = this.store.selectSignal(documentFeature.selectUndoLabel);
  readonly redoLabel = this.store.selectSignal(documentFeature.selectRedoLabel);
  readonly bench = this.store.selectSignal(benchFeature.selectBenchState);

  readonly framesPerSecond = computed(() => {
    const project = this.project();
    return project ? framesPerSecond(project.rate) : 24;
  });

  /**
   * One edit: one undo step under its label. An edit that changes nothing leaves no step. What points into the project goes along by
   * the edit's mapping, loose edits too, before `loose` changes them.
   */
  edit(
    label: string,
    edit: Edit,
    loose: (loose: readonly LooseEdit[]) => readonly LooseEdit[] = (same) => same,
  ): void {
    const current = this.current();
    if (!current || this.readOnly()) return;
    const edited = holdInterlocks(current.project, asEdited(edit(current.project)));
    const before = pointersOf(this.bench());
    const snapshot = {
      project: edited.project,
      loose: loose(followLoose(current.loose, current.project, edited)),
    };
    const after = followPointers(before, current.project, edited);
    this.store.dispatch(documentActions.edited({ label, snapshot, pointers: { before, after } }));
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
    const step = this.past().at(-1);
    if (!step || this.readOnly()) return;
    const now = pointersOf(this.bench());
    const { before, after } = step.pointers;
    this.store.dispatch(documentActions.undone({ now, back: pointersBack(now, after, before) }));
  }
  redo(): void {
    const [step] = this.future();
    if (!step || this.readOnly()) return;
    const now = pointersOf(this.bench());
    const { before, after } = step.pointers;
    this.store.dispatch(documentActions.redone({ now, back: pointersBack(now, before, after) }));
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
