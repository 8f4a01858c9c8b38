import '@angular/compiler';
import { newPart, newProject, type Part, type Project } from '@kaizen/core';
import { fakes } from '../../testing/fake-studio';
import { LinkHands } from './link-hands';

/** Two crates, the second turned a quarter about Y. */
function quay(): Project {
  const crate = (id: string, turn: number): Part => {
    const part = newPart('box', id);
    return { ...part, id, rest: { ...part.rest, rotate: [0, turn, 0] } };
  };
  return { ...newProject('quay', 'Quay'), parts: [crate('left', 0), crate('right', 90)] };
}

function setUp() {
  const made = fakes(quay());
  const parts = () => made.studio.project()!.parts;
  return { ...made, hands: made.injector.get(LinkHands), parts };
}

describe('pivots and turn orders of several parts', () => {
  it('go to all of them in one step, and no part moves', () => {
    const { hands, studio, parts, stage } = setUp();
    const places = () =>
      stage.now()!.out.world.map((matrix) => [...matrix].map((n) => Number(n.toFixed(9)) + 0));
    const before = places();
    hands.movePivots(['left', 'right'], ([x, , z]) => [x, -0.5, z]);
    expect(parts().map(({ pivot }) => pivot)).toEqual([
      [0, -0.5, 0],
      [0, -0.5, 0],
    ]);
    expect(places()).toEqual(before);
    hands.changeTurnOrder(['left', 'right'], 'ZYX');
    expect(parts().map(({ turnOrder }) => turnOrder)).toEqual(['ZYX', 'ZYX']);
    expect(studio.labels).toEqual(['Pivot of 2 parts', 'Turn order ZYX of 2 parts']);
  });

  it('are those of one by its name', () => {
    const { hands, studio, parts } = setUp();
    hands.movePivot('right', [0, 1, 0]);
    expect(parts().map(({ pivot }) => pivot[1])).toEqual([0, 1]);
    expect(studio.labels).toEqual(['Pivot of right']);
  });
});
