import '@angular/compiler';
import { addParts, newPart, newProject, removeParts } from '@kaizen/core';
import { chartProject } from '../../testing/chart-project';
import { fakes } from '../../testing/fake-studio';
import { PartPicker } from './picker';

function setUp() {
  const made = fakes(chartProject());
  const picker = made.injector.get(PartPicker);
  const taken: string[] = [];
  const ask = (more: { readonly anywhere?: true } = {}) =>
    picker.ask({
      words: 'Pick what carries Hook',
      refuse: (part) => (part === 'hook' ? 'Hook can’t carry itself' : null),
      take: (part) => taken.push(part),
      ...more,
    });
  return { ...made, picker, taken, ask };
}

describe('a question that a part answers', () => {
  it('stays until it is answered by one that will do', () => {
    const { picker, taken, ask } = setUp();
    expect(picker.answer('wagon')).toBe(false);
    ask();
    picker.answer('hook');
    expect([picker.refusal(), taken]).toEqual(['Hook can’t carry itself', []]);
    picker.answer('wagon');
    expect([picker.question(), picker.refusal(), taken]).toEqual([null, null, ['wagon']]);
  });

  it('a place beside all parts answers only where that was asked', () => {
    const { picker, taken, ask } = setUp();
    ask();
    expect(picker.answer(null, [1, 0, 2])).toBe(true);
    expect([picker.question() !== null, taken]).toEqual([true, []]);
    ask({ anywhere: true });
    picker.answer(null, [1, 0, 2]);
    expect(taken).toEqual(['']);
  });

  it('stays while parts come, and is given up with the first that goes: it may be about that one', () => {
    const { picker, studio, ask } = setUp();
    ask();
    studio.edit(
      'Add',
      (project) => addParts(project, { parts: [newPart('box', 'Crate')], assets: [] }).project,
    );
    expect(picker.question()).not.toBeNull();
    studio.edit('Remove', (project) => removeParts(project, ['hook']));
    expect(picker.question()).toBeNull();
    expect(picker.answer('wagon')).toBe(false);
  });

  it('is given up with its project', () => {
    const { picker, studio, ask } = setUp();
    ask();
    studio.project.set(newProject('other', 'Other'));
    expect(picker.question()).toBeNull();
  });
});
