import type { Driver, Part, Project } from '../project';
import { newPart, newProject } from '../edit';
import { foldedNetwork, networkAbout, networkOf } from './network';

const driver = (id: string, target: string, input: string): Driver => ({
  id,
  kind: 'echo',
  target,
  input,
  delay: 1,
  gain: 1,
  from: null,
  to: null,
  combine: 'replace',
  muted: false,
});

const project: Project = {
  ...newProject('p', 'P'),
  parts: ['drum', 'skip', 'wheel', 'boom', 'idle'].map((id): Part => ({
    ...newPart('box', id),
    id,
    parent: id === 'wheel' ? 'skip' : null,
  })),
  drivers: [
    driver('rope', 'skip/translate.x', 'drum/rotate.z'),
    driver('roll', 'wheel/rotate.z', 'skip/translate.x'),
    {
      id: 'far',
      kind: 'distance',
      target: 'drum/scale.x',
      of: 'boom',
      to: 'wheel',
      axis: null,
      combine: 'add',
      muted: false,
    },
  ],
};

describe('the network of a project', () => {
  const network = networkOf(project);
  const ids = (of: { readonly nodes: readonly { readonly id: string }[] }) => of.nodes.map(({ id }) => id);

  it('has what drives and is driven, in the order of the parts, and no part that takes no part in it', () => {
    expect(new Set(ids(network))).toEqual(
      new Set([
        'channel drum/rotate.z',
        'driver far',
        'channel drum/scale.x',
        'driver rope',
        'channel skip/translate.x',
        'driver roll',
        'channel wheel/rotate.z',
        'place wheel',
        'place boom',
      ]),
    );
    expect([...new Set(network.nodes.map(({ part }) => part))]).toEqual(['drum', 'skip', 'wheel', 'boom']);
    expect(network.edges).toContainEqual({ from: 'channel drum/rotate.z', to: 'driver rope' });
    expect(network.edges).toContainEqual({ from: 'driver rope', to: 'channel skip/translate.x' });
    expect(network.edges).toContainEqual({ from: 'channel wheel/rotate.z', to: 'place wheel' });
    expect(network.nodes.some(({ part }) => part === 'idle')).toBe(false);
  });

  it('is cut down to what leads to a part with all that rides on it, or to what it leads to', () => {
    expect(ids(networkAbout(project, network, 'skip', 'up'))).toEqual(
      expect.arrayContaining(['channel drum/rotate.z', 'driver rope', 'channel skip/translate.x']),
    );
    expect(ids(networkAbout(project, network, 'skip', 'up'))).not.toContain('driver far');
    const down = ids(networkAbout(project, network, 'skip', 'down'));
    expect(down).toEqual(expect.arrayContaining(['driver far', 'channel drum/scale.x']));
    expect(down).not.toContain('channel drum/rotate.z');
  });

  it('is folded by subtrees: one piece for each, the edges that leave it once', () => {
    const folded = foldedNetwork(project, network, new Set(['skip', 'wheel']));
    expect(ids(folded)).toContain('subtree skip');
    expect(ids(folded).filter((id) => /skip|wheel/.test(id))).toEqual(['subtree skip']);
    const count = network.nodes.filter(({ part }) => part === 'skip' || part === 'wheel').length;
    expect(folded.nodes).toContainEqual({ id: 'subtree skip', kind: 'subtree', part: 'skip', count });
    expect(folded.edges).toContainEqual({ from: 'channel drum/rotate.z', to: 'subtree skip' });
    expect(folded.edges).toContainEqual({ from: 'subtree skip', to: 'driver far' });
    expect(folded.edges.some(({ from, to }) => from === to)).toBe(false);
    expect(foldedNetwork(project, network, new Set())).toBe(network);
    expect(foldedNetwork(project, network, new Set(['idle'])).edges).toEqual(network.edges);
  });
});
