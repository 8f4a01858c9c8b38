import '@angular/compiler';
import fc from 'fast-check';
import {
  addTreatment,
  bake,
  closeSeamValue,
  convertLegs,
  curveOf,
  deleteKeys,
  keepBetweenKeys,
  keepTake,
  makeEven,
  moveKeys,
  newProject,
  newTreatment,
  scaleBox,
  setLeg,
  setOutside,
  setRange,
  setSideMode,
  simplify,
  straying,
  switchTake,
  type KeyRef,
  type Project,
} from '@kaizen/core';
import { chartProject } from '../testing/chart-project';
import { initialBench } from './bench';
import { documentActions, documentReducer, type DocumentState } from './document';
import { pointersOf } from './pointers';

const NOTHING = pointersOf(initialBench);
const STAYED = { before: NOTHING, after: NOTHING };
const UNDONE = documentActions.undone({ now: NOTHING, back: NOTHING });
const REDONE = documentActions.redone({ now: NOTHING, back: NOTHING });

const project = newProject('p', 'P');
const opened = documentReducer(
  undefined,
  documentActions.opened({ snapshot: { project, loose: [] }, readOnly: false }),
);
const edit = (state: DocumentState, end: number) =>
  documentReducer(
    state,
    documentActions.edited({
      label: `End at ${end}`,
      snapshot: { project: setRange(state.current!.project, { end }), loose: [] },
      pointers: STAYED,
    }),
  );

describe('undo', () => {
  it('goes back and forth over the very projects, with their labels', () => {
    const two = edit(edit(opened, 130), 140);
    const back = documentReducer(documentReducer(two, UNDONE), UNDONE);
    expect(back.current!.project).toBe(project);
    expect(back.future.map((step) => step.label)).toEqual(['End at 130', 'End at 140']);
    const again = documentReducer(documentReducer(back, REDONE), REDONE);
    expect(again.current!.project).toBe(two.current!.project);
    expect(documentReducer(again, REDONE)).toBe(again);
  });

  it('an edit after undo lets the undone go; one that changes nothing is no step', () => {
    const back = documentReducer(edit(opened, 130), UNDONE);
    expect(edit(back, 150).future).toEqual([]);
    const loose = opened.current!.loose;
    expect(
      documentReducer(
        opened,
        documentActions.edited({ label: 'x', snapshot: { project, loose }, pointers: STAYED }),
      ),
    ).toBe(opened);
  });

  it('after any sequence of edits gives back the very same project', () => {
    const RUN = 'wagon/translate.x';
    const refs = (of: Project): KeyRef[] =>
      (curveOf(of, RUN)?.keys ?? []).map(({ frame }) => ({ channel: RUN, frame }));
    const edits: readonly ((of: Project) => Project)[] = [
      (of) => moveKeys(of, refs(of).slice(1), { frames: 3, value: 0.5 }).project,
      (of) => setSideMode(of, refs(of), 'out', 'bounded'),
      (of) => setLeg(of, refs(of).slice(0, 1), { kind: 'law', law: 'cycloidal' }),
      (of) => convertLegs(of, refs(of), 1e-2).project,
      (of) => setOutside(of, [RUN], 'after', { mode: 'loop-carry' }),
      (of) => makeEven(of, [RUN]),
      (of) => closeSeamValue(of, [RUN], 'after', 'both'),
      (of) => addTreatment(of, RUN, newTreatment('noise', 0.1)),
      (of) => switchTake(keepTake(of, [RUN]), [RUN]),
      (of) => scaleBox(of, refs(of), { frame: 0, frames: 0.5, value: () => 1, values: -2 }).project,
      (of) => keepBetweenKeys(of, straying(of, [RUN])),
      (of) => simplify(of, refs(of), 0.01).project,
      (of) => bake(of, [RUN], 8, { start: 0, end: 48 }).project,
      (of) => deleteKeys(of, refs(of).slice(-1)),
    ];
    const first = chartProject();
    const begun = documentReducer(
      undefined,
      documentActions.opened({ snapshot: { project: first, loose: [] }, readOnly: false }),
    );
    fc.assert(
      fc.property(fc.array(fc.nat(edits.length - 1), { minLength: 1, maxLength: 8 }), (order) => {
        let state = begun;
        const passed: Project[] = [first];
        for (const i of order) {
          const project = edits[i]!(state.current!.project);
          state = documentReducer(
            state,
            documentActions.edited({
              label: 'x',
              snapshot: { project, loose: state.current!.loose },
              pointers: STAYED,
            }),
          );
          if (project !== passed.at(-1)) passed.push(project);
        }
        for (let back = passed.length - 1; back >= 0; back--) {
          expect(state.current!.project).toBe(passed[back]);
          state = documentReducer(state, UNDONE);
        }
        expect(state.current!.project.parts).toBe(first.parts);
        expect(state.current!.project.clips[0]!.curves[1]).toBe(first.clips[0]!.curves[1]);
      }),
      { numRuns: 40, endOnFailure: true },
    );
  });

  it('a tab that follows another changes nothing', () => {
    const following = documentReducer(opened, documentActions.handedAway());
    expect(edit(following, 130)).toBe(following);
    expect(edit(documentReducer(following, documentActions.takenOver()), 130).past).toHaveLength(1);
  });
});
