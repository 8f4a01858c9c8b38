import * as fc from 'fast-check';
import { Mesh } from 'three';
import { complaints, glbOf, playGlb } from '../../../testing/gltf';
import { packed, PACKINGS, SIDES } from '../../../testing/packed-model';
import { bringModel, isBringProblem, readGlb, writeGlb, type GltfJson } from './index';
import { openModel } from './open-model';
import { readAccessors } from './read-accessors';

/** How far from the rim the corners are that three.js finds in a GLB, at most, and how many they are. */
async function farthest(glb: Uint8Array): Promise<{ readonly off: number; readonly corners: number }> {
  const { scene } = await playGlb(glb);
  let [off, corners] = [0, 0];
  scene.traverse((object) => {
    if (!(object instanceof Mesh)) return;
    const places = (object as Mesh).geometry.getAttribute('position');
    corners += places.count;
    for (let i = 0; i < places.count; i++) {
      const [x, y, z] = [places.getX(i), places.getY(i), places.getZ(i)];
      off = Math.max(off, Math.abs(Math.hypot(x, z) - 1), Math.min(Math.abs(y), Math.abs(y - 0.25)));
    }
  });
  return { off, corners };
}

describe.each(Object.keys(PACKINGS) as (keyof typeof PACKINGS)[])('a model packed with %s', (how) => {
  it('is unpacked when it is brought: it shows, and goes on to readers without a decoder', async () => {
    const bytes = await packed(how);
    const { json: source } = glbJson(bytes);
    expect(source.extensionsRequired).not.toEqual(undefined);
    const brought = await bringModel({ name: 'rim.glb', bytes });
    if (isBringProblem(brought)) throw new Error(brought.message);
    expect(brought.report).toContainEqual(expect.stringMatching(/kept unpacked/));
    const again = glbOf(brought.project);
    expect(await complaints(again)).toEqual([]);
    const { off, corners } = await farthest(again);
    expect(corners).toBe(2 * SIDES);
    expect(off).toBeLessThan(1e-4);
    const { extensionsUsed = [], extensionsRequired = [] } = glbJson(again).json;
    expect([...extensionsUsed, ...extensionsRequired].join()).not.toMatch(/draco|meshopt/);
  });

  it('any run of its bytes made another gives parts or one problem, never an exception', async () => {
    const bytes = await packed(how);
    const { bin } = glbJson(bytes);
    const start = bytes.length - bin.length;
    await fc.assert(
      fc.asyncProperty(
        fc.nat(bin.length - 1),
        fc.uint8Array({ minLength: 1, maxLength: 12 }),
        async (at, noise) => {
          const broken = bytes.slice();
          broken.set(noise.subarray(0, bin.length - at), start + at);
          const brought = await bringModel({ name: 'rim.glb', bytes: broken });
          if (isBringProblem(brought))
            expect(brought.message).toMatch(/damaged|export it again|names corner/);
          else expect(brought.project.parts).toHaveLength(1);
        },
      ),
      { numRuns: 60 },
    );
  });
});

function glbJson(bytes: Uint8Array): { readonly json: GltfJson; readonly bin: Uint8Array } {
  const read = readGlb(bytes);
  if ('reason' in read) throw new Error(read.reason);
  return { json: JSON.parse(read.text) as GltfJson, bin: read.bin };
}

describe('what a packed stream says of itself', () => {
  it.each<readonly [string, (json: any) => void, RegExp]>([
    [
      'a size past all bounds',
      (json) => (json.accessors[0].count = 1e9),
      /must be at most 512 MB|do not make/,
    ],
    [
      'more elements than it has',
      (json) =>
        (json.bufferViews.find((view: any) => view.extensions).extensions.EXT_meshopt_compression.count += 1),
      /do not make the length/,
    ],
    [
      'a place outside its buffer',
      (json) =>
        (json.bufferViews.find((view: any) => view.extensions).extensions.EXT_meshopt_compression.byteOffset =
          1e6),
      /outside its buffer/,
    ],
  ])('%s is refused', async (_, change, sentence) => {
    const { json, bin } = glbJson(await packed('meshopt'));
    change(json);
    const brought = await bringModel({ name: 'rim.glb', bytes: writeGlb({ json, bin }) });
    expect(brought).toMatchObject({ problem: true, message: expect.stringMatching(sentence) as string });
  });
});

describe('numbers of accessors', () => {
  it('come without gaps, of every component type, sparse ones filled in', async () => {
    const bin = new Uint8Array(64);
    const view = new DataView(bin.buffer);
    // Two columns, every 12 bytes: three floats of which the third is a gap's.
    [1, 2, 0, 3, 4, 0].forEach((value, i) => view.setFloat32(i * 4, value, true));
    [-5, 700].forEach((value, i) => view.setInt16(24 + i * 2, value, true));
    view.setUint8(28, 1);
    view.setFloat32(32, 9, true);
    const json: GltfJson = {
      asset: { version: '2.0' },
      buffers: [{ byteLength: 64 }],
      bufferViews: [
        { buffer: 0, byteLength: 24, byteStride: 12 },
        { buffer: 0, byteOffset: 24, byteLength: 4 },
        { buffer: 0, byteOffset: 28, byteLength: 1 },
        { buffer: 0, byteOffset: 32, byteLength: 4 },
      ],
      accessors: [
        { bufferView: 0, componentType: 5126, count: 2, type: 'VEC2' },
        { bufferView: 1, componentType: 5122, count: 2, type: 'SCALAR', normalized: true },
        {
          componentType: 5126,
          count: 3,
          type: 'SCALAR',
          sparse: {
            count: 1,
            indices: { bufferView: 2, componentType: 5121 },
            values: { bufferView: 3 },
          },
        },
      ],
    };
    const document = await openModel({ name: 'x.glb', bytes: writeGlb({ json, bin }) });
    const numbers = await readAccessors(document);
    expect(numbers.map(({ array, normalized }) => [[...array], normalized])).toEqual([
      [[1, 2, 3, 4], false],
      [[-5, 700], true],
      [[0, 9, 0], false],
    ]);
  });
});
