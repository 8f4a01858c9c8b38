import { validateBytes } from 'gltf-validator';
import {
  bringModel,
  exportGltf,
  isBringProblem,
  readGlb,
  safePath,
  writeGlb,
  writeGltfText,
  type GltfOptions,
} from './index';
import { compile, type FrameOutput, type Program } from '../../evaluate';
import { writeProject, type Project } from '../../project';
import { readKaizenZip, writeKaizenZip } from '../kaizen-zip';
import { playGlb } from '../../../testing/gltf';
import { programOf, testProject } from '../../../testing/project';

const LINEAR = { in: { mode: 'linear' }, out: { mode: 'linear' } };
const mesh = (id: string, more: object = {}) => ({
  id,
  name: id,
  kind: 'mesh',
  geometry: { shape: 'box', size: [1, 1, 1] },
  ...more,
});

/** Pivots, squash in both frames, every kind of leg, loops, a hold's jump, a fast spin, a slider-crank. */
function hardProject(): Project {
  return testProject(
    {
      range: { start: 10, end: 82 },
      parts: [
        mesh('base', { pivot: [0.3, -0.2, 0.1], turnOrder: 'ZXY' }),
        mesh('arm', {
          parent: 'base',
          rest: { translate: [1, 0.5, 0], scale: [1, 2, 0.5] },
          pivot: [0, 0.5, 0],
          squash: { axis: 'y', anchor: [0, -0.5, 0] },
        }),
        mesh('ball', {
          parent: 'arm',
          rest: { rotate: [10, 20, 30] },
          turnOrder: 'YZX',
          squash: { axis: 'y', anchor: [0, -0.5, 0], frame: 'parent' },
        }),
        mesh('rotor', { rest: { translate: [0, 3, 0] } }),
        { id: 'eye', name: 'Eye', kind: 'camera' },
        { id: 'lamp', name: 'Lamp', kind: 'light', light: { type: 'spot', intensity: 20, cone: 40 } },
      ],
      drivers: [
        {
          id: 'd',
          target: 'base/translate.x',
          kind: 'linkage',
          linkage: 'slider-crank',
          inputs: { angle: 'rotor/rotate.y' },
          output: 'slide',
          params: { crank: 0.2, rod: 0.7 },
        },
      ],
    },
    [
      {
        channel: 'base/translate.y',
        keys: [
          { frame: 0, value: 0, leg: { kind: 'ease', family: 'bounce', slow: 'end' } },
          { frame: 30, value: 1 },
        ],
        after: { mode: 'swing' },
      },
      {
        channel: 'base/rotate.x',
        keys: [
          { frame: 12, value: 0, leg: { kind: 'law', law: 'modified-sine' } },
          { frame: 50, value: 400, leg: { kind: 'hold' } },
          { frame: 60, value: 10 },
        ],
      },
      {
        channel: 'base/rotate.z',
        keys: [
          { frame: 10, value: 0, out: { reach: 0.9 } },
          { frame: 40, value: 80 },
          { frame: 82, value: -20 },
        ],
      },
      {
        channel: 'arm/squash',
        keys: [
          { frame: 20, value: 0 },
          { frame: 25, value: -0.5 },
          { frame: 33, value: 0.3 },
          { frame: 40, value: 0 },
        ],
      },
      {
        channel: 'ball/squash',
        keys: [
          { frame: 20, value: 0 },
          { frame: 30, value: 0.6 },
          { frame: 40, value: 0 },
        ],
        after: { mode: 'loop' },
      },
      {
        channel: 'ball/rotate.y',
        keys: [
          { frame: 10, value: 0 },
          { frame: 60, value: 300 },
        ],
      },
      {
        channel: 'rotor/rotate.y',
        keys: [
          { frame: 10, value: 0, ...LINEAR },
          { frame: 22, value: 540, ...LINEAR },
        ],
        after: { mode: 'loop-carry' },
      },
      {
        channel: 'eye/camera.focalLength',
        keys: [
          { frame: 10, value: 24 },
          { frame: 60, value: 85 },
        ],
      },
      {
        channel: 'lamp/visible',
        keys: [
          { frame: 10, value: 1, leg: { kind: 'hold' } },
          { frame: 30, value: 0 },
        ],
      },
      {
        channel: 'rotor/material.baseColor.g',
        keys: [
          { frame: 10, value: 0 },
          { frame: 60, value: 1 },
        ],
      },
    ],
  );
}

function glbOf(project: Project, options: GltfOptions = {}): Uint8Array {
  const made = exportGltf(project, options);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return writeGlb(made.value);
}

async function complaints(bytes: Uint8Array): Promise<unknown[]> {
  const report = await validateBytes(bytes, { maxIssues: 0 });
  return report.issues.messages.filter(({ severity }) => severity < 2);
}

function pointOf(
  program: Program,
  out: FrameOutput,
  part: string,
  point: readonly number[],
  frame: number,
): number[] {
  program.run(frame, out);
  const m = out.world[program.structure.parts.findIndex(({ id }) => id === part)]!;
  return [0, 1, 2].map(
    (row) => m[row]! * point[0]! + m[4 + row]! * point[1]! + m[8 + row]! * point[2]! + m[12 + row]!,
  );
}

describe('glTF written', () => {
  it.each([
    ['editable', {}],
    ['baked', { bake: true }],
  ])('%s: another player shows every part within 0.1 mm at every time', async (_, options) => {
    const project = hardProject();
    const played = await playGlb(glbOf(project, options));
    const program = programOf(project);
    const out = program.createOutput();
    let worst = 0;
    for (let frame = 10; frame < 81.9; frame += 0.37) {
      if ([22, 30, 50, 60].some((jump) => Math.abs(frame - jump) < 0.01)) continue;
      for (const part of ['base', 'arm', 'ball', 'rotor']) {
        for (const point of [
          [1, 0, 0],
          [0, 1, 0],
          [0, 0, 1],
        ] as const) {
          const expected = pointOf(program, out, part, point, frame);
          const actual = played.pointAt(part, point, (frame - 10) / 24);
          worst = Math.max(worst, Math.hypot(...expected.map((v, i) => v - actual[i]!)));
        }
      }
    }
    expect(worst).toBeLessThan(1e-4);
  });

  it('has no error and no warning for the validator', async () => {
    expect(await complaints(glbOf(hardProject()))).toEqual([]);
    expect(await complaints(glbOf(hardProject(), { bake: true }))).toEqual([]);
    expect(await complaints(glbOf(testProject()))).toEqual([]);
  });

  it('begins each animation at 0 and lasts the whole range', async () => {
    const { animations } = await playGlb(glbOf(hardProject()));
    expect(animations[0]!.name).toBe('Test');
    expect(Math.abs(animations[0]!.duration - 72 / 24)).toBeLessThan(1e-6);
    for (const track of animations[0]!.tracks) expect(track.times[0]).toBe(0);
  });

  it('points its pointers at things that exist', () => {
    const glb = readGlb(glbOf(hardProject()));
    if ('reason' in glb) throw new Error(glb.reason);
    const json = JSON.parse(glb.text) as Record<string, unknown> & {
      animations: {
        channels: { target: { extensions?: { KHR_animation_pointer: { pointer: string } } } }[];
      }[];
    };
    const pointers = json.animations[0]!.channels.flatMap(
      ({ target }) => target.extensions?.KHR_animation_pointer.pointer ?? [],
    );
    expect(pointers).toHaveLength(3);
    for (const pointer of pointers) {
      const found = pointer
        .slice(1)
        .split('/')
        .reduce<unknown>((at, step) => (at as Record<string, unknown>)[step], json);
      expect(found).toBeDefined();
    }
  });

  it('comes back as the very project, and as bare nodes once somebody changed it', () => {
    const project = hardProject();
    const glb = glbOf(project);
    const own = bringModel({ name: 'hard.glb', bytes: glb });
    if (isBringProblem(own)) throw new Error(own.message);
    expect(writeProject(own.project)).toBe(writeProject(project));

    const made = exportGltf(project);
    if (!made.ok) throw new Error('not made');
    made.value.json.nodes![0]!.translation = [9, 9, 9];
    const foreign = bringModel({ name: 'hard.glb', bytes: writeGlb(made.value) });
    if (isBringProblem(foreign)) throw new Error(foreign.message);
    expect(foreign.project.parts[0]!.rest.translate).toEqual([9, 9, 9]);
    expect(foreign.report.join()).toMatch(/animations? in the file left out/);
  });
});

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
    const brought = bringModel({ name: 'pump.glb', bytes: foreignGltf() });
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

  it('opens as .gltf with its files beside it, and from .gltf text with the buffer inside', () => {
    const glb = readGlb(foreignGltf());
    if ('reason' in glb) throw new Error(glb.reason);
    const text = JSON.stringify({
      ...(JSON.parse(glb.text) as object),
      buffers: [{ byteLength: 36, uri: 'parts/pump%20rod.bin' }],
    });
    const files = new Map([['parts/pump rod.bin', glb.bin]]);
    const brought = bringModel({
      name: 'pump.gltf',
      bytes: Buffer.from(text),
      beside: (path) => files.get(path) ?? null,
    });
    expect(isBringProblem(brought)).toBe(false);
    expect(bringModel({ name: 'pump.gltf', bytes: Buffer.from(text) })).toMatchObject({
      pointer: '/buffers/0',
      message: expect.stringMatching(/was not given/) as string,
    });
    const inside = writeGltfText({ json: JSON.parse(glb.text) as never, bin: glb.bin });
    expect(isBringProblem(bringModel({ name: 'p.gltf', bytes: Buffer.from(inside) }))).toBe(false);
  });

  it('keeps its model beside the project in a zip, checked by its hash', () => {
    const brought = bringModel({ name: 'pump.glb', bytes: foreignGltf() });
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
      (j) => (j.extensionsRequired = ['KHR_draco_mesh_compression']),
      '/extensionsRequired',
      /KHR_draco_mesh_compression/,
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
  ])('is refused with %s', (_, change, pointer, message) => {
    expect(bringModel({ name: 'x.glb', bytes: foreignGltf(change) })).toMatchObject({
      problem: true,
      pointer,
      message: expect.stringMatching(message) as string,
    });
  });

  it('is refused where it is cut off or no glTF at all, and where numbers are not finite', () => {
    expect(bringModel({ name: 'x.glb', bytes: foreignGltf().slice(0, 300) })).toMatchObject({
      problem: true,
    });
    expect(bringModel({ name: 'x.glb', bytes: Buffer.from('hello') })).toMatchObject({ problem: true });
    const bytes = foreignGltf();
    new DataView(bytes.buffer).setFloat32(bytes.length - 12, Number.NaN, true);
    expect(bringModel({ name: 'x.glb', bytes })).toMatchObject({
      pointer: '/accessors/0',
      message: expect.stringMatching(/not finite/) as string,
    });
  });

  it('with a chain of twenty thousand nodes is walked without overflowing', () => {
    const brought = bringModel({
      name: 'deep.glb',
      bytes: foreignGltf(
        (json) =>
          (json['nodes'] = Array.from({ length: 20000 }, (_, i) => (i < 19999 ? { children: [i + 1] } : {}))),
      ),
    });
    if (isBringProblem(brought)) throw new Error(brought.message);
    expect(compile(brought.project).ok).toBe(true);
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
