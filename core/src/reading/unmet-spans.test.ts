import { line, partOfRig, Rig, riggedProject } from '../../testing/rigged';
import { unmetSpans } from './unmet-spans';

describe('where a constraint is not met', () => {
  it('is told by whole frames, with its reason', () => {
    const rig = new Rig(
      riggedProject(
        [
          partOfRig('root'),
          partOfRig('middle', { parent: 'root', rest: { translate: [1, 0, 0] } }),
          partOfRig('tip', { parent: 'middle', rest: { translate: [1, 0, 0] } }),
          partOfRig('skip'),
        ],
        [{ kind: 'reach', part: 'root', middle: 'middle', tip: 'tip', target: 'skip' }],
        [line('skip/translate.x', [0, 1], [10, 3], [20, 1])],
      ),
    );
    expect(unmetSpans(rig.program, 0, 0, 30)).toEqual([{ first: 6, last: 14, why: 'out of reach: too far' }]);
    expect(unmetSpans(rig.program, 0, 15, 30)).toEqual([]);
  });
});
