import { strToU8, zipSync } from 'fflate';
import { fileName } from '../ui/download';
import { modelAmong, unpacked } from './files';

const file = (name: string) => ({ name, bytes: strToU8(name) });

describe('the model among dropped files', () => {
  it('is the .glb, or the .gltf with what lies beside it', () => {
    expect(modelAmong([file('notes.txt'), file('crane.glb')])!.name).toBe('crane.glb');
    const model = modelAmong([file('crane/crane.gltf'), file('crane/parts/arm.bin'), file('tin.png')])!;
    expect(model.name).toBe('crane.gltf');
    expect(model.folder).toBe('crane/');
    expect(model.beside.map(({ name }) => name)).toEqual(['crane/parts/arm.bin', 'tin.png']);
    expect(modelAmong([file('notes.txt')])).toBeNull();
  });

  it('is found in a .zip; a broken one says so', () => {
    const zip = zipSync({ 'a/crane.gltf': strToU8('{}'), 'a/arm.bin': strToU8('bin') });
    const files = unpacked([{ name: 'crane.zip', bytes: zip }]);
    expect(files.ok && modelAmong(files.value)!.beside).toEqual([
      { name: 'a/arm.bin', bytes: strToU8('bin') },
    ]);
    const cut = unpacked([{ name: 'cut.zip', bytes: zip.slice(0, 20) }]);
    expect(cut).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringMatching(/can't be unpacked/) }],
    });
    expect(unpacked([file('crane.glb')])).toEqual({ ok: true, value: [file('crane.glb')] });
  });
});

describe('a file’s name', () => {
  it('is the project’s, without what file systems dislike', () => {
    expect(fileName('Brine wheel, No. 2')).toBe('brine-wheel-no-2');
    expect(fileName('  ../?  ')).toBe('untitled');
    expect(fileName('Sölring')).toBe('sölring');
  });
});
