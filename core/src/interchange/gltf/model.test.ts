import { bringModel, isBringProblem, readGlb, safePath, writeGlb, writeGltfText } from './index';
import { compile } from '../../evaluate';
import { writeProject } from '../../file';
import { readKaizenZip, writeKaizenZip } from '../kaizen-zip';
import { complaints, glbOf, playGlb } from '../../../testing/gltf';

function foreignGltf(change: (json: Record<string, unknown>) => void = () => undefined): Uint8Array {
  const positions = Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0);
  const json = {
    asset: { version: '2.0' },
    scene: 0,
    scenes: [{ nodes: [0] }],
    nodes: [
      { name: 'Pump rod', children: [1, 2], rotation: [0, Math.SQRT1_2, 0, Math.SQRT1_2] },
      { name: 'Paddle', mesh: 0, matrix: [0, 0, -2, 0, 0, 1, 0, 0, 1, 0, 0, 0, 3, 4, 5, 1] },
      { camera: 0 },
    ],
    cameras: [{ type: 'perspective', perspective: { yfov: 2 * Math.atan(24 / 100), znear: 0.1 } }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 }, material: 0 }] }],
    materials: [{ pbrMetallicRoughness: { baseColorFactor: [0.5, 0.25, 0.125, 1], roughnessFactor: 0.5 } }],
    accessors: [
      { bufferView: 0, componentType: 5126, count: 3, type: 'VEC3', min: [0, 0, 0], max: [1, 1, 0] },
    ],
    bufferViews: [{ buffer: 0, byteLength: 36 }],
    buffers: [{ byteLength: 36 }],
  };
  change(json);
  return writeGlb({ json: json as never, bin: new Uint8Array(positions.buffer) });
}

describe('a model from elsewhere', () => {
  it('becomes parts with names, hierarchy, meshes, materials and cameras', async () => {
    const brought = await bringModel({ name: 'pump.glb', bytes: foreignGltf() });
    if (isBringProblem(brought)) throw new Error(brought.message);
    const { project } = brought;
    expect(project.parts.map(({ id, name, kind, parent }) => [id, name, kind, parent])).toEqual([
      ['Pump-rod', 'Pump rod', 'group', null],
      ['Paddle', 'Paddle', 'mesh', 'Pump-rod'],
      ['node-2', 'Node 2', 'camera', 'Pump-rod'],
    ]);
    expect(project.parts[0]!.rest.rotate).toEqual([0, 90, 0]);
    expect(project.parts[1]!.rest).toEqual({ translate: [3, 4, 5], rotate: [0, 90, 0], scale: [2, 1, 1] });
    expect(project.parts[1]).toMatchObject({
      material: { baseColor: [0.5, 0.25, 0.125, 1], roughness: 0.5, metallic: 1 },
    });
    expect((project.parts[2] as { camera?: { focalLength: number } }).camera?.focalLength).toBeCloseTo(
      50,
      10,
    );
    expect(compile(project).ok).toBe(true);
    const again = glbOf(project);
    expect(await complaints(again)).toEqual([]);
    const played = await playGlb(again);
    played.pointAt('Paddle', [1, 0, 0], 0).forEach((v, i) => expect(v).toBeCloseTo([3, 4, -3][i]!, 5));
  });

  it('opens as .gltf with its files beside it, and from .gltf text with the buffer inside', async () => {
    const glb = readGlb(foreignGltf());
    if ('reason' in glb) throw new Error(glb.reason);
    const text = JSON.stringify({
      ...(JSON.parse(glb.text) as object),
      buffers: [{ byteLength: 36, uri: 'parts/pump%20rod.bin' }],
    });
    const files = new Map([['parts/pump rod.bin', glb.bin]]);
    const brought = await bringModel({
      name: 'pump.gltf',
      bytes: Buffer.from(text),
      beside: (path) => files.get(path) ?? null,
    });
    expect(isBringProblem(brought)).toBe(false);
    expect(await bringModel({ name: 'pump.gltf', bytes: Buffer.from(text) })).toMatchObject({
      pointer: '/buffers/0',
      message: expect.stringMatching(/was not given/) as string,
    });
    const inside = writeGltfText({ json: JSON.parse(glb.text) as never, bin: glb.bin });
    expect(isBringProblem(await bringModel({ name: 'p.gltf', bytes: Buffer.from(inside) }))).toBe(false);
  });

  it('keeps its model beside the project in a zip, checked by its hash', async () => {
    const brought = await bringModel({ name: 'pump.glb', bytes: foreignGltf() });
    if (isBringProblem(brought)) throw new Error(brought.message);
    const zip = writeKaizenZip(brought.project);
    const read = readKaizenZip(zip);
    expect(read.ok && writeProject(read.value)).toBe(writeProject(brought.project));
    const index = Buffer.from(zip).indexOf('glTF');
    if (index > 0) {
      const broken = Uint8Array.from(zip);
      broken[index + 1] = 0;
      expect(readKaizenZip(broken).ok).toBe(false);
    }
    expect(readKaizenZip(Uint8Array.of(1, 2, 3))).toMatchObject({ ok: false });
  });

  it.each<[string, (json: any) => void, string, RegExp]>([
    ['two parents', (j) => (j.nodes[1].children = [2]), '/nodes/2', /one parent/],
    [
      'a ring',
      (j) => ((j.nodes[0].children = [1]), (j.nodes[1].children = [0])),
      '/nodes/0',
      /ring|one parent/,
    ],
    ['a missing child', (j) => (j.nodes[0].children = [99]), '/nodes/0/children', /does not exist/],
    [
      'a view outside the buffer',
      (j) => (j.bufferViews[0].byteLength = 99),
      '/bufferViews/0',
      /outside its buffer/,
    ],
    [
      'an accessor outside its view',
      (j) => (j.accessors[0].count = 4e8),
      '/accessors/0',
      /outside its buffer view/,
    ],
    ['a negative offset', (j) => (j.accessors[0].byteOffset = -4), '/accessors/0', /outside/],
    [
      'an unknown required extension',
      (j) => (j.extensionsRequired = ['EXT_strange_packing']),
      '/extensionsRequired',
      /EXT_strange_packing/,
    ],
    ['another version', (j) => (j.asset.version = '1.0'), '/asset/version', /version 2/],
    ['a matrix of words', (j) => (j.nodes[1].matrix = 'hello'), '/nodes/1/matrix', /16 numbers/],
    ['a short buffer', (j) => (j.buffers[0].byteLength = 4000), '/buffers/0', /cut off/],
    [
      'a material that is not there',
      (j) => (j.meshes[0].primitives[0].material = 7),
      '/meshes/0',
      /material/,
    ],
    ['nodes that are no list', (j) => (j.nodes = 7), '/nodes', /list/],
  ])('is refused with %s', async (_, change, pointer, message) => {
    expect(await bringModel({ name: 'x.glb', bytes: foreignGltf(change) })).toMatchObject({
      problem: true,
      pointer,
      message: expect.stringMatching(message) as string,
    });
  });

  it('is refused where it is cut off or no glTF at all, and where numbers are not finite', async () => {
    expect(await bringModel({ name: 'x.glb', bytes: foreignGltf().slice(0, 300) })).toMatchObject({
      problem: true,
    });
    expect(await bringModel({ name: 'x.glb', bytes: Buffer.from('hello') })).toMatchObject({ problem: true });
    const bytes = foreignGltf();
    new DataView(bytes.buffer).setFloat32(bytes.length - 12, Number.NaN, true);
    expect(await bringModel({ name: 'x.glb', bytes })).toMatchObject({
      pointer: '/accessors/0',
      message: expect.stringMatching(/not finite/) as string,
    });
  });

  it('with a chain of twenty thousand nodes is refused in one sentence, without overflowing', async () => {
    const brought = await bringModel({
      name: 'deep.glb',
      bytes: foreignGltf(
        (json) =>
          (json['nodes'] = Array.from({ length: 20000 }, (_, i) => (i < 19999 ? { children: [i + 1] } : {}))),
      ),
    });
    expect(brought).toMatchObject({
      problem: true,
      message: expect.stringMatching(/^node-1000 is part number 1001 .* at most 1000 may$/) as string,
    });
  });

  it.each([
    ['../x.bin', null],
    ['a/../../x.bin', null],
    ['/etc/passwd', null],
    ['file:///x', null],
    ['http://x/y', null],
    ['a%2F..%2F..%2Fx', null],
    ['a\\b', null],
    ['./a/../b%20c.bin', 'b c.bin'],
  ])('path %s', (path, expected) => expect(safePath(path)).toBe(expected));
});

describe('a model whose references lead nowhere', () => {
  const said = async (change: (json: Record<string, any>) => void) => {
    const brought = await bringModel({ name: 'pump.glb', bytes: foreignGltf(change) });
    return isBringProblem(brought) ? `${brought.pointer}: ${brought.message}` : 'brought';
  };
  it.each<readonly [string, (json: Record<string, any>) => void, RegExp]>([
    [
      'a scene’s node',
      (json) => (json['scenes'][0].nodes = [9]),
      /^\/scenes\/0\/nodes: it names number 9 of nodes/,
    ],
    [
      'primitives that are no list',
      (json) => (json['meshes'] = [{ primitives: 'all' }]),
      /^\/meshes\/0\/primitives: it must be a list of objects/,
    ],
    [
      'an animation without channels',
      (json) => (json['animations'] = [{ samplers: [] }]),
      /^\/animations\/0\/channels: it must be a list of objects/,
    ],
    [
      'a node’s skin',
      (json) => (json['nodes'][0].skin = 0),
      /^\/nodes\/0\/skin: it names number 0 of skins, and there are 0/,
    ],
    [
      'a texture, deep in an extension',
      (json) =>
        (json['materials'][0].extensions = { KHR_materials_clearcoat: { clearcoatTexture: { index: 3 } } }),
      /^\/materials\/0\/extensions\/KHR_materials_clearcoat\/clearcoatTexture\/index: .* number 3 of textures/,
    ],
    ['a texture’s image', (json) => (json['textures'] = [{ source: 1 }]), /^\/textures\/0\/source/],
    [
      'a light',
      (json) => (json['nodes'][2].extensions = { KHR_lights_punctual: { light: 0 } }),
      /it names light 0, and there are 0/,
    ],
    [
      'a field of view',
      (json) => (json['cameras'][0].perspective.yfov = 'wide'),
      /^\/cameras\/0\/perspective\/yfov: it must be a number/,
    ],
    [
      'a colour',
      (json) => (json['materials'][0].pbrMetallicRoughness.baseColorFactor = [1]),
      /must be 4 numbers/,
    ],
    [
      'an animation’s sampler',
      (json) => (json['animations'] = [{ channels: [{ sampler: 1, target: {} }], samplers: [] }]),
      /names sampler 1/,
    ],
    [
      'an attribute',
      (json) => (json['meshes'][0].primitives[0].attributes.NORMAL = 4),
      /accessor that does not exist|number 4 of accessors/,
    ],
    ['no places', (json) => (json['meshes'][0].primitives[0].attributes = {}), /no places of its corners/],
    [
      'a corner beyond the last',
      (json) => {
        json['accessors'].push({ bufferView: 0, componentType: 5121, count: 3, type: 'SCALAR' });
        json['meshes'][0].primitives[0].indices = 1;
        json['accessors'][0].count = 1;
        json['accessors'][1].byteOffset = 14;
      },
      /names corner \d+, and there are 1/,
    ],
  ])('%s: the place is said, and nothing goes wrong inside', async (_, change, sentence) => {
    expect(await said(change)).toMatch(sentence);
  });

  it('any number of its JSON made another gives parts or one problem, never an exception', async () => {
    const numbers: string[] = [];
    foreignGltf((json) => {
      const walk = (value: unknown, path: string) => {
        if (typeof value === 'number') numbers.push(path);
        else if (typeof value === 'object' && value)
          for (const [name, inner] of Object.entries(value)) walk(inner, `${path}/${name}`);
      };
      walk(json, '');
    });
    expect(numbers.length).toBeGreaterThan(20);
    for (const path of numbers)
      for (const bad of [-1, 1e9, 0.5, null, 'x', {}, []]) {
        const result = await said((json) => {
          const steps = path.slice(1).split('/');
          const last = steps.pop()!;
          const holder = steps.reduce((at: any, step) => at[step], json);
          holder[last] = bad;
        });
        expect(result).not.toMatch(/does not hold together/);
      }
  });
});

describe('what a model’s materials say that is not shown', () => {
  it('is told, and survives the way through Kaizen with the textures it names', async () => {
    const clearcoat = { clearcoatFactor: 0.7, clearcoatTexture: { index: 0 } };
    const png = Uint8Array.from(
      atob(
        'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      ),
      (c) => c.charCodeAt(0),
    );
    const glb = foreignGltf((json: Record<string, any>) => {
      json['materials'][0].extensions = { KHR_materials_clearcoat: clearcoat };
      json['extensionsUsed'] = ['KHR_materials_clearcoat'];
      json['textures'] = [{ source: 0 }];
      json['images'] = [{ uri: `data:image/png;base64,${btoa(String.fromCharCode(...png))}` }];
    });
    const brought = await bringModel({ name: 'pump.glb', bytes: glb });
    if (isBringProblem(brought)) throw new Error(brought.message);
    expect(brought.report.join()).toMatch(
      /KHR_materials_clearcoat of its materials not shown here, kept for handing over/,
    );
    const again = glbOf(brought.project);
    // The model has no texture coordinates; that is its own.
    const own = ((await complaints(again)) as { code: string }[]).filter(
      ({ code }) => code !== 'MESH_PRIMITIVE_TOO_FEW_TEXCOORDS',
    );
    expect(own).toEqual([]);
    const read = readGlb(again);
    if ('reason' in read) throw new Error(read.reason);
    const json = JSON.parse(read.text) as Record<string, any>;
    expect(json['extensionsUsed']).toContain('KHR_materials_clearcoat');
    expect(json['materials'][0].extensions.KHR_materials_clearcoat).toMatchObject({ clearcoatFactor: 0.7 });
    expect(json['images']).toHaveLength(1);
  });
});

describe('a GLB of ours that was changed elsewhere', () => {
  it('is read for what it shows now, and that is said', async () => {
    const brought = await bringModel({ name: 'pump.glb', bytes: foreignGltf() });
    if (isBringProblem(brought)) throw new Error(brought.message);
    const read = readGlb(glbOf(brought.project));
    if ('reason' in read) throw new Error(read.reason);
    const json = JSON.parse(read.text) as { nodes: { translation?: number[] }[] };
    json.nodes[0]!.translation = [9, 0, 0];
    const changed = await bringModel({
      name: 'pump.glb',
      bytes: writeGlb({ json: json as never, bin: read.bin }),
    });
    if (isBringProblem(changed)) throw new Error(changed.message);
    expect(changed.report.join()).toMatch(/written by Kaizen and changed elsewhere since/);
  });
});
