import fc from 'fast-check';
import { newProject } from '../edit';
import { type Asset, type Project } from '../project';
import { readProject, writeProject } from '../file';
import { dataUri, sha256Hex } from './asset-bytes';
import { assetsBeside, assetsWithin, bytesOfAsset, hashNamed, pictureWithin } from './assets-beside';
import { readKaizenZip, unpackKaizenZip, writeKaizenZip } from './kaizen-zip';

const GLB = 'model/gltf-binary';
const asset = (id: string, bytes: Uint8Array, type = GLB): Asset => ({
  id,
  name: `${id}.glb`,
  type,
  sha256: sha256Hex(bytes),
  uri: dataUri(type, bytes),
});
const withAssets = (...assets: Asset[]): Project => ({ ...newProject('p', 'P'), assets });
const someBytes = fc.uint8Array({ minLength: 1, maxLength: 50 });

describe('assets beside their project', () => {
  it('leave only their hash in it, and come back to the same text of the file', () => {
    fc.assert(
      fc.property(fc.array(someBytes, { maxLength: 4 }), (list) => {
        const project = withAssets(...list.map((bytes, i) => asset(`a${i}`, bytes)));
        const beside = assetsBeside(project);
        expect(JSON.stringify(beside.project)).not.toContain('base64');
        beside.project.assets.forEach((named, i) => {
          expect(hashNamed(named.uri)).toBe(sha256Hex(list[i]!));
          expect(bytesOfAsset(named, beside.bytes)).toEqual(list[i]);
        });
        expect(writeProject(assetsWithin(beside.project, beside.bytes))).toBe(writeProject(project));
      }),
    );
  });

  it('stay in it where their bytes would not give the same text back', () => {
    const odd = { ...asset('odd', Uint8Array.of(1, 2)), uri: `data:${GLB};name=x;base64,AQI=` };
    const loose = { ...asset('loose', Uint8Array.of(1)), uri: `data:${GLB};base64,AQ` };
    const project = withAssets(odd, loose);
    const beside = assetsBeside(project);
    expect(beside.project).toBe(project);
    expect(bytesOfAsset(odd, beside.bytes)).toEqual(Uint8Array.of(1, 2));
  });

  it('are pictures of poses too; one that is nowhere is left out of the file', () => {
    const picture = dataUri('image/jpeg', Uint8Array.of(3, 1, 4));
    const pose = { id: 'up', name: 'Up', values: {}, picture };
    const project: Project = {
      ...newProject('p', 'P'),
      poses: [pose, { ...pose, id: 'bare', picture: null }],
    };
    const beside = assetsBeside(project);
    expect(beside.project.poses.map((each) => each.picture)).toEqual([
      `sha256:${sha256Hex(Uint8Array.of(3, 1, 4))};image/jpeg`,
      null,
    ]);
    expect(pictureWithin(beside.project.poses[0]!.picture!, beside.bytes)).toBe(picture);
    expect(assetsWithin(beside.project, beside.bytes)).toEqual(project);
    expect(assetsWithin(beside.project, new Map()).poses[0]!.picture).toBeNull();
    expect(unpackKaizenZip(writeKaizenZip(beside.project, beside.bytes))).toEqual({
      ok: true,
      value: beside,
    });
  });

  it('that are nowhere leave their name in the file, which can be read', () => {
    const named = { ...asset('gone', Uint8Array.of(7)), uri: `sha256:${'0'.repeat(64)}` };
    const project = withAssets(named);
    expect(assetsWithin(project, new Map())).toBe(project);
    expect(bytesOfAsset(named, new Map())).toBeNull();
    expect(readProject(writeProject(project)).ok).toBe(true);
  });

  it('go into a zip without being written as text, and come out of it beside the project', () => {
    const [model, sound] = [Uint8Array.of(1, 2, 3), Uint8Array.of(9, 8)];
    const project = withAssets(asset('model', model), asset('sound', sound, 'audio/wav'));
    const beside = assetsBeside(project);
    const zip = writeKaizenZip(beside.project, beside.bytes);
    expect(zip).toEqual(writeKaizenZip(project));
    const unpacked = unpackKaizenZip(zip);
    if (!unpacked.ok) throw new Error(JSON.stringify(unpacked.problems));
    expect(unpacked.value).toEqual(beside);
    expect(readKaizenZip(zip)).toEqual({ ok: true, value: project });
  });
});
