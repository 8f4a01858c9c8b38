import { addParts, changePart, newProject, possibleParents, setRange, setRestValue } from './index';
import { readDocument, stripDefaults } from '../file';
import { testProject } from '../../testing/project';

const project = testProject({
  parts: [
    { id: 'a', name: 'A', kind: 'group' },
    { id: 'b', name: 'B', kind: 'mesh', parent: 'a', geometry: { shape: 'asset', asset: 'm', node: 'n' } },
    { id: 'c', name: 'C', kind: 'camera', parent: 'b' },
  ],
  assets: [{ id: 'm', name: 'm.glb', type: 'model/gltf-binary', sha256: '0'.repeat(64), uri: 'data:,' }],
});

describe('parts', () => {
  it('change one by one, the others the same objects', () => {
    const renamed = changePart(project, 'b', (part) => ({ ...part, name: 'New' }));
    expect(renamed.parts.map((part) => part.name)).toEqual(['A', 'New', 'C']);
    expect(renamed.parts[0]).toBe(project.parts[0]);
    expect(changePart(project, 'zz', (part) => ({ ...part, name: 'x' }))).toBe(project);
  });

  it('can hang below any part but their own descendants', () => {
    expect(possibleParents(project, 'a').map((part) => part.id)).toEqual([]);
    expect(possibleParents(project, 'c').map((part) => part.id)).toEqual(['a', 'b']);
  });

  it('set rest values by property', () => {
    expect(setRestValue(project, 'a', 'rotate.y', 30).parts[0]!.rest.rotate).toEqual([0, 30, 0]);
    expect(setRestValue(project, 'c', 'camera.focalLength', 50).parts[2]).toMatchObject({
      camera: { focalLength: 50, fStop: 5.6 },
    });
    expect(setRestValue(project, 'b', 'material.baseColor.g', 0.25).parts[1]).toMatchObject({
      material: { baseColor: [0.8, 0.25, 0.8, 1] },
    });
    expect(setRestValue(project, 'a', 'visible', 0).parts[0]!.visible).toBe(0);
  });

  it('are added once more with new ids, their model kept once', () => {
    const { project: both, added } = addParts(project, project);
    expect(added).toEqual(['a-2', 'b-2', 'c-2']);
    expect(both.parts.map((part) => part.parent)).toEqual([null, 'a', 'b', null, 'a-2', 'b-2']);
    expect(both.assets).toHaveLength(1);
    expect(readDocument(stripDefaults(both as never)).ok).toBe(true);
  });

  it('a new project is a valid one, and its range never ends before it starts', () => {
    const fresh = newProject('id', 'New');
    expect(readDocument(stripDefaults(fresh as never))).toEqual({ ok: true, value: fresh });
    expect(setRange(fresh, { start: 200 })).toBe(fresh);
    expect(setRange(fresh, { start: 20 }).range).toEqual({ start: 20, end: 120, loop: false });
  });
});
