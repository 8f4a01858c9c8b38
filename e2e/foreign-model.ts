/** A small model as another program would write it: a mast at a place with a vane on it, a mesh each, one material, no animation. */
export function foreignGlb(place: readonly [number, number, number] = [2, 0, 0]): Uint8Array {
  const corners = [
    [-0.5, 0, -0.1],
    [0.5, 0, -0.1],
    [0.5, 1, 0.1],
    [-0.5, 1, 0.1],
  ];
  const positions = Float32Array.from(corners.flat());
  const indices = Uint16Array.from([0, 1, 2, 0, 2, 3]);
  const bin = new Uint8Array(positions.byteLength + indices.byteLength);
  bin.set(new Uint8Array(positions.buffer), 0);
  bin.set(new Uint8Array(indices.buffer), positions.byteLength);
  const json = {
    asset: { version: '2.0', generator: 'A modeller of the quay' },
    scene: 0,
    scenes: [{ nodes: [0] }],
    nodes: [
      { name: 'Mast', mesh: 0, translation: place, children: [1] },
      { name: 'Vane', mesh: 0, translation: [0, 1, 0] },
    ],
    materials: [{ name: 'tin', pbrMetallicRoughness: { baseColorFactor: [0.4, 0.5, 0.6, 1] } }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 }, indices: 1, material: 0 }] }],
    buffers: [{ byteLength: bin.length }],
    bufferViews: [
      { buffer: 0, byteOffset: 0, byteLength: positions.byteLength },
      { buffer: 0, byteOffset: positions.byteLength, byteLength: indices.byteLength },
    ],
    accessors: [
      {
        bufferView: 0,
        componentType: 5126,
        count: 4,
        type: 'VEC3',
        min: [-0.5, 0, -0.1],
        max: [0.5, 1, 0.1],
      },
      { bufferView: 1, componentType: 5123, count: 6, type: 'SCALAR' },
    ],
  };
  return glb(JSON.stringify(json), bin);
}

export function glb(text: string, bin: Uint8Array): Uint8Array {
  const json = new TextEncoder().encode(text.padEnd(Math.ceil(text.length / 4) * 4));
  const total = 12 + 8 + json.length + 8 + Math.ceil(bin.length / 4) * 4;
  const out = new Uint8Array(total);
  const view = new DataView(out.buffer);
  view.setUint32(0, 0x46546c67, true);
  view.setUint32(4, 2, true);
  view.setUint32(8, total, true);
  view.setUint32(12, json.length, true);
  view.setUint32(16, 0x4e4f534a, true);
  out.set(json, 20);
  view.setUint32(20 + json.length, total - 28 - json.length, true);
  view.setUint32(24 + json.length, 0x004e4942, true);
  out.set(bin, 28 + json.length);
  return out;
}
