import { COMPONENT_BYTES, TYPE_SIZES, type GltfDocument, type GltfJson } from './document';
import { gltfProblem } from './model-problem';

/** Bounds on what is opened: past them a file is refused, not tried. */
export const MOST_MODEL_BYTES = 512 * 1024 * 1024;

/** Whether a value is a count, or an index: a whole number from 0 on. */
export function isCount(value: unknown): value is number {
  return Number.isInteger(value) && (value as number) >= 0;
}

/** Every accessor inside its buffer view, of a type of glTF, its numbers finite. */
export function checkAccessors({ json, bin }: GltfDocument): void {
  json.accessors?.forEach((accessor, i) => {
    const pointer = `/accessors/${i}`;
    const bytes = COMPONENT_BYTES[accessor.componentType];
    const size = TYPE_SIZES[accessor.type];
    if (bytes === undefined || size === undefined || !isCount(accessor.count)) {
      throw gltfProblem(pointer, 'its type or count is not one of glTF; the file is damaged');
    }
    if (accessor.bufferView === undefined) {
      if (!accessor.sparse || accessor.count * size * bytes > MOST_MODEL_BYTES) {
        if (accessor.count * size * bytes > 1 << 24)
          throw gltfProblem(pointer, `it asks for ${accessor.count} elements and has no bytes for them`);
      }
      return;
    }
    const view = json.bufferViews?.[accessor.bufferView];
    const element = bytes * size;
    const stride = view?.byteStride ?? element;
    const offset = accessor.byteOffset ?? 0;
    if (
      !view ||
      !isCount(offset) ||
      !isCount(stride) ||
      (accessor.count > 0 && offset + stride * (accessor.count - 1) + element > view.byteLength)
    ) {
      throw gltfProblem(pointer, 'it reaches outside its buffer view; the file is damaged');
    }
    if (accessor.componentType === 5126)
      checkFinite(bin, (view.byteOffset ?? 0) + offset, stride, size, accessor.count, pointer);
  });
}

function checkFinite(
  bin: Uint8Array,
  start: number,
  stride: number,
  size: number,
  count: number,
  pointer: string,
): void {
  const view = new DataView(bin.buffer, bin.byteOffset, bin.byteLength);
  for (let i = 0; i < count; i++) {
    for (let k = 0; k < size; k++) {
      if (!Number.isFinite(view.getFloat32(start + i * stride + k * 4, true))) {
        throw gltfProblem(pointer, `number ${i * size + k} is not finite; the file is damaged`);
      }
    }
  }
}

/** Every node at most once below another, no loops, children that exist, numbers that are finite. Iterative. */
export function checkNodes(json: GltfJson): void {
  const nodes = json.nodes ?? [];
  const parent = new Int32Array(nodes.length).fill(-1);
  nodes.forEach((node, i) => {
    for (const child of node.children ?? []) {
      if (!isCount(child) || child >= nodes.length)
        throw gltfProblem(`/nodes/${i}/children`, `it names node ${String(child)}, which does not exist`);
      if (parent[child] !== -1 || child === i)
        throw gltfProblem(`/nodes/${child}`, 'it hangs below two nodes; a node must have one parent');
      parent[child] = i;
    }
    for (const [name, size] of [
      ['translation', 3],
      ['rotation', 4],
      ['scale', 3],
      ['matrix', 16],
    ] as const) {
      const value: unknown = node[name];
      if (
        value !== undefined &&
        (!Array.isArray(value) || value.length !== size || !value.every((v) => Number.isFinite(v)))
      ) {
        throw gltfProblem(`/nodes/${i}/${name}`, `it must be ${size} numbers`);
      }
    }
    if (node.mesh !== undefined && !json.meshes?.[node.mesh])
      throw gltfProblem(`/nodes/${i}/mesh`, `mesh ${String(node.mesh)} does not exist`);
    if (node.camera !== undefined && !json.cameras?.[node.camera])
      throw gltfProblem(`/nodes/${i}/camera`, `camera ${String(node.camera)} does not exist`);
  });
  const state = new Uint8Array(nodes.length);
  for (let i = 0; i < nodes.length; i++) {
    const path: number[] = [];
    let at = i;
    while (at >= 0 && state[at] === 0) {
      state[at] = 1;
      path.push(at);
      at = parent[at]!;
    }
    if (at >= 0 && state[at] === 1)
      throw gltfProblem(`/nodes/${at}`, 'it is above itself; the nodes must not run in a ring');
    for (const node of path) state[node] = 2;
  }
  json.meshes?.forEach((mesh, i) => {
    const accessors = json.accessors?.length ?? 0;
    if (!Array.isArray(mesh.primitives)) throw gltfProblem(`/meshes/${i}/primitives`, 'it must be a list');
    for (const primitive of mesh.primitives) {
      const used = [
        ...Object.values(primitive.attributes ?? {}),
        ...(primitive.indices === undefined ? [] : [primitive.indices]),
      ];
      for (const target of primitive.targets ?? []) used.push(...Object.values(target));
      if (used.some((index) => !isCount(index) || index >= accessors))
        throw gltfProblem(`/meshes/${i}`, 'it names an accessor that does not exist');
      if (primitive.material !== undefined && !json.materials?.[primitive.material])
        throw gltfProblem(`/meshes/${i}`, 'it names a material that does not exist');
    }
  });
}
