import '@angular/compiler';
import { newProject, setRange } from '@kaizen/core';
import { documentActions, documentReducer, type DocumentState } from './document';

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
    }),
  );

describe('undo', () => {
  it('goes back and forth over the very projects, with their labels', () => {
    const two = edit(edit(opened, 130), 140);
    const back = documentReducer(documentReducer(two, documentActions.undone()), documentActions.undone());
    expect(back.current!.project).toBe(project);
    expect(back.future.map((step) => step.label)).toEqual(['End at 130', 'End at 140']);
    const again = documentReducer(documentReducer(back, documentActions.redone()), documentActions.redone());
    expect(again.current!.project).toBe(two.current!.project);
    expect(documentReducer(again, documentActions.redone())).toBe(again);
  });

  it('an edit after undo lets the undone go; one that changes nothing is no step', () => {
    const back = documentReducer(edit(opened, 130), documentActions.undone());
    expect(edit(back, 150).future).toEqual([]);
    const loose = opened.current!.loose;
    expect(
      documentReducer(opened, documentActions.edited({ label: 'x', snapshot: { project, loose } })),
    ).toBe(opened);
  });

  it('a tab that follows another changes nothing', () => {
    const following = documentReducer(opened, documentActions.handedAway());
    expect(edit(following, 130)).toBe(following);
    expect(edit(documentReducer(following, documentActions.takenOver()), 130).past).toHaveLength(1);
  });
});
