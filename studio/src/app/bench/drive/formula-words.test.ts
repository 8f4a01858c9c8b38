import { completed, wordAt } from './formula-words';

describe('the word of a formula at the caret', () => {
  it.each([
    ['2 * si', 6, 'si', 4],
    ['2 * si', 3, '', 3],
    ['clamp(x, 0', 7, 'x', 6],
    ['1e3', 3, 'e3', 1],
    ['', 0, '', 0],
  ])('%s at %d', (text, caret, word, from) => expect(wordAt(text, caret)).toEqual({ word, from }));

  it('is completed where it stands; a function gets its brackets, with the caret between them', () => {
    expect(completed('2 * si + 1', 6, { name: 'sin', isFunction: true })).toEqual({
      text: '2 * sin() + 1',
      caret: 8,
    });
    expect(completed('co(30)', 2, { name: 'cos', isFunction: true })).toEqual({ text: 'cos(30)', caret: 3 });
    expect(completed('fra', 3, { name: 'frame', isFunction: false })).toEqual({ text: 'frame', caret: 5 });
  });
});
