import '@angular/compiler';
import { signal } from '@angular/core';
import type { Network, Project } from '@kaizen/core';
import { Folding } from './folding';

/** A network of two machines of two parts each, and so many pieces on the second one. */
function world(pieces: number) {
  const project = {
    parts: [
      { id: 'crane' },
      { id: 'jib', parent: 'crane' },
      { id: 'pump' },
      ...Array.from({ length: pieces }, (_, i) => ({ id: `rod-${i}`, parent: 'pump' })),
    ],
  } as unknown as Project;
  const nodes = project.parts.map(({ id }) => ({ part: id }));
  const network = signal({ nodes } as unknown as Network);
  return { network, folding: new Folding(signal(project), network) };
}

describe('folding a network', () => {
  it('is all at first where there are many pieces, and nothing where there are few', () => {
    expect([...world(200).folding.folded()]).toEqual(['crane', 'pump']);
    expect([...world(3).folding.folded()]).toEqual([]);
  });

  it('stays as it was done by hand through an edit of the network', () => {
    for (const pieces of [3, 200]) {
      const { network, folding } = world(pieces);
      folding.toggle('jib');
      const before = [...folding.folded()];
      network.update(({ nodes, ...rest }) => ({ ...rest, nodes: [...nodes] }));
      expect([...folding.folded()]).toEqual(before);
      expect(before.includes('crane')).toBe(pieces === 3);
    }
  });
});
