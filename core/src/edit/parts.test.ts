import {
  addParts,
  bringInto,
  placePart,
  reorderPart,
  changePart,
  newPart,
  newProject,
  possibleParents,
  setRange,
  setRestValue,
} from './index';
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

  it('change their order among those that hang on the same', () => {
    const four = { ...project, parts: [...project.parts, { ...project.parts[2]!, id: 'd', parent: 'a' }] };
    const ids = (made: typeof project) => made.parts.map(({ id }) => id).join('');
    expect(ids(reorderPart(four, 'd', -1))).toBe('adcb');
    expect(reorderPart(four, 'd', 1)).toBe(four);
    expect(reorderPart(four, 'a', -1)).toBe(four);
    expect(ids(placePart(four, 'd', 'b', false))).toBe('adbc');
    expect(ids(placePart(four, 'b', 'd', true))).toBe('acdb');
    expect(placePart(four, 'b', 'a', true)).toBe(four);
    expect(placePart(four, 'b', 'b', true)).toBe(four);
  });

  it('are added once more with new ids, their model kept once', () => {
    const { project: both, added } = addParts(project, project);
    expect(added).toEqual(['a-2', 'b-2', 'c-2']);
    expect(both.parts.map((part) => part.parent)).toEqual([null, 'a', 'b', null, 'a-2', 'b-2']);
    expect(both.assets).toHaveLength(1);
    expect(readDocument(stripDefaults(both as never)).ok).toBe(true);
  });

  it('hang below a part of the project, though one of theirs has its name', () => {
    const own = { ...newPart('group', 'C'), id: 'c' };
    const { project: both, added } = addParts(project, { parts: [own], assets: [] }, 'c');
    expect(added).toEqual(['c-2']);
    expect(both.parts.at(-1)!.parent).toBe('c');
  });

  it('a whole project comes beside another: its motions as clips, its drivers and constraints, in the other’s seconds', () => {
    const curve = (channel: string) => ({
      channel,
      keys: [
        { frame: 0, value: 0 },
        { frame: 24, value: 1 },
      ],
    });
    const moving = testProject({
      parts: project.parts,
      assets: project.assets,
      clips: [{ id: 'main', name: 'Main', curves: [curve('a/translate.x')] }],
      drivers: [{ id: 'd', target: 'c/translate.y', kind: 'echo', input: 'a/translate.x', delay: 4 }],
      constraints: [{ id: 'h', kind: 'plant', part: 'b', start: 2, end: 8 }],
    });
    const home = { ...project, rate: { frames: 48, per: 1 } };
    const first = bringInto(home, moving);
    expect(first).toMatchObject({ added: ['a-2', 'b-2', 'c-2'], clips: ['Main 2'], plays: true });
    const { project: both } = bringInto(first.project, moving);
    expect(readDocument(stripDefaults(both as never)).ok).toBe(true);
    expect(both.activeClip).toBe('main-2');
    expect(both.clips.map(({ id, name }) => [id, name])).toEqual([
      ['main', 'Main'],
      ['main-2', 'Main 2'],
      ['main-3', 'Main 3'],
    ]);
    expect(both.clips[2]!.curves[0]).toMatchObject({
      channel: 'a-3/translate.x',
      keys: [{ frame: 0 }, { frame: 48 }],
    });
    expect(both.drivers[1]).toMatchObject({
      id: 'd-2',
      target: 'c-3/translate.y',
      input: 'a-3/translate.x',
      delay: 8,
    });
    expect(both.constraints[1]).toMatchObject({ id: 'h-2', part: 'b-3', start: 4, end: 16 });
    expect(both.assets).toHaveLength(1);
  });

  it('a new project is a valid one, and its range never ends before it starts', () => {
    const fresh = newProject('id', 'New');
    expect(readDocument(stripDefaults(fresh as never))).toEqual({ ok: true, value: fresh });
    expect(setRange(fresh, { start: 200 })).toBe(fresh);
    expect(setRange(fresh, { start: 20 }).range).toEqual({ start: 20, end: 120, loop: false });
  });
});
