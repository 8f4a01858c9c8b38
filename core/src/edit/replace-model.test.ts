import { activeClip, type Project } from '../project';
import { readDocument, stripDefaults } from '../file';
import { testProject } from '../../testing/project';
import { replaceModel } from './replace-model';

const asset = (n: number) => ({
  id: `model-${n}`,
  name: 'crane.glb',
  type: 'model/gltf-binary',
  sha256: String(n).repeat(64),
  uri: 'data:,',
});
const mesh = (id: string, n: number, more: object = {}) => ({
  id,
  name: id,
  kind: 'mesh',
  geometry: { shape: 'asset', asset: `model-${n}`, node: id },
  ...more,
});
const key = (channel: string) => ({
  channel,
  keys: [
    { frame: 0, value: 0 },
    { frame: 9, value: 1 },
  ],
});

const old = testProject(
  {
    parts: [
      { id: 'crane', name: 'crane', kind: 'group', rest: { translate: [5, 0, 0] } },
      mesh('boom', 1, {
        parent: 'crane',
        morphs: [
          { name: 'bent', value: 0.25 },
          { name: 'worn', value: 0 },
        ],
      }),
      mesh('hook', 1, { parent: 'boom' }),
      { id: 'lad', name: 'Lad', kind: 'group', parent: 'hook' },
    ],
    assets: [asset(1)],
  },
  [key('boom/rotate.z'), key('boom/morph.worn'), key('boom/morph.bent')],
);
const newer = (parts: readonly object[]): Project => testProject({ parts, assets: [asset(2)] });
const isWhole = (project: Project) => readDocument(stripDefaults(project as never)).ok;

describe('a newer version of a model', () => {
  it('takes the place of the older one: parts keep their ids, places, links and keys', () => {
    const made = replaceModel(
      old,
      'model-1',
      newer([
        { id: 'crane', name: 'crane', kind: 'group' },
        mesh('boom', 2, {
          parent: 'crane',
          morphs: [
            { name: 'bent', value: 0 },
            { name: 'oiled', value: 0 },
          ],
        }),
        mesh('hook', 2, { parent: 'boom' }),
        mesh('lamp', 2, { parent: 'hook', rest: { translate: [0, 1, 0] } }),
      ]),
    );
    expect(made).toMatchObject({ replaced: 2, missing: [], added: ['lamp'], lostShapes: ['boom, worn'] });
    const { project } = made;
    expect(isWhole(project)).toBe(true);
    expect(project.assets.map(({ id }) => id)).toEqual(['model-2']);
    expect(project.parts.map(({ id, parent }) => [id, parent])).toEqual([
      ['crane', null],
      ['boom', 'crane'],
      ['hook', 'boom'],
      ['lad', 'hook'],
      ['lamp', 'hook'],
    ]);
    expect(project.parts[0]).toBe(old.parts[0]);
    expect(project.parts[1]).toMatchObject({
      geometry: { asset: 'model-2', node: 'boom' },
      morphs: [
        { name: 'bent', value: 0.25 },
        { name: 'oiled', value: 0 },
      ],
    });
    expect(activeClip(project)!.curves.map(({ channel }) => channel)).toEqual([
      'boom/rotate.z',
      'boom/morph.bent',
    ]);
  });

  it('tells what it has no more; that stays with the older mesh', () => {
    const made = replaceModel(old, 'model-1', newer([mesh('boom', 2)]));
    expect(made).toMatchObject({ replaced: 1, missing: ['hook'], added: [] });
    expect(made.project.assets.map(({ id }) => id)).toEqual(['model-1', 'model-2']);
    expect(made.project.parts[2]).toBe(old.parts[2]);
    expect(isWhole(made.project)).toBe(true);
    expect(replaceModel(old, 'model-7', newer([mesh('boom', 2)])).project).toBe(old);
  });
});
