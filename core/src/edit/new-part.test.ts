import { addParts, newPart, removeParts, type NewPartKind } from './index';
import { readDocument, stripDefaults } from '../file';
import { programOf, testProject } from '../../testing/project';

const KINDS: readonly NewPartKind[] = [
  'group',
  'box',
  'cylinder',
  'sphere',
  'torus',
  'plane',
  'gear',
  'camera',
  'light',
];

describe('new parts', () => {
  it.each(KINDS)('a %s is a valid part that can be evaluated', (kind) => {
    const { project } = addParts(testProject(), { parts: [newPart(kind, 'New')], assets: [] });
    const written = readDocument(stripDefaults(project as unknown as Record<string, unknown>));
    expect(written).toMatchObject({
      ok: true,
      value: { parts: [{ id: 'wagon' }, { id: kind, name: 'New' }] },
    });
    expect(programOf(project).structure.parts).toHaveLength(2);
  });
});

describe('removing parts', () => {
  const key = { frame: 0, value: 1 };
  const project = testProject(
    {
      parts: [
        { id: 'a', name: 'A', kind: 'group' },
        {
          id: 'b',
          name: 'B',
          kind: 'mesh',
          parent: 'a',
          geometry: { shape: 'asset', asset: 'm', node: 'n' },
        },
        { id: 'c', name: 'C', kind: 'group' },
      ],
      drivers: [
        { id: 'd1', target: 'c/translate.x', kind: 'echo', input: 'b/translate.x' },
        { id: 'd2', target: 'c/translate.y', kind: 'expression', inputs: {}, expression: '1' },
      ],
      assets: [{ id: 'm', name: 'm.glb', type: 'model/gltf-binary', sha256: '0'.repeat(64), uri: 'data:,' }],
    },
    [
      { channel: 'b/translate.x', keys: [key] },
      { channel: 'c/translate.z', keys: [key] },
    ],
  );

  it('takes what hangs below, its curves, the drivers that read it and models nothing shows any more', () => {
    const left = removeParts(project, ['a']);
    expect(left.parts.map((part) => part.id)).toEqual(['c']);
    expect(left.clips[0]!.curves.map((curve) => curve.channel)).toEqual(['c/translate.z']);
    expect(left.drivers.map((driver) => driver.id)).toEqual(['d2']);
    expect(left.assets).toEqual([]);
    expect(readDocument(stripDefaults(left as unknown as Record<string, unknown>)).ok).toBe(true);
  });

  it('leaves the rest the same objects, and the project where there is no such part', () => {
    expect(removeParts(project, ['zz'])).toBe(project);
    expect(removeParts(project, ['b']).parts[0]).toBe(project.parts[0]);
  });
});
