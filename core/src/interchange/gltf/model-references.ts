import { COMPONENT_BYTES, TYPE_SIZES, type GltfAccessor, type GltfDocument, type GltfJson } from './document';
import { isCount } from './model-checks';
import { gltfProblem } from './model-problem';

type Fields = Readonly<Record<string, unknown>>;
type ListName = {
  [K in keyof GltfJson]: NonNullable<GltfJson[K]> extends readonly unknown[] ? K : never;
}[keyof GltfJson] &
  string;

/**
 * Every reference of a glTF names something that is there, by glTF 2.0 §3: nodes of scenes, textures of materials and their
 * extensions, images, samplers, accessors of primitives, skins and animations; every index of a triangle names a vertex.
 * Throws ModelProblem with the place.
 */
export function checkReferences(document: GltfDocument): void {
  const { json } = document;
  checkScenes(json);
  checkTextures(json);
  json.materials?.forEach((material, i) => checkMaterial(json, material as Fields, `/materials/${i}`));
  json.cameras?.forEach((camera, i) => checkCamera(camera as unknown as Fields, `/cameras/${i}`));
  checkLights(json);
  checkPrimitives(document);
  json.skins?.forEach((skin, i) => checkSkin(json, asFields(skin), `/skins/${i}`));
  json.animations?.forEach((animation, i) =>
    checkAnimation(json, animation as unknown as Fields, `/animations/${i}`),
  );
  json.accessors?.forEach((accessor, i) => checkSparse(json, accessor, `/accessors/${i}`));
}

function asFields(value: unknown): Fields {
  return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Fields) : {};
}

function list(value: unknown, pointer: string): readonly unknown[] {
  if (value === undefined) return [];
  if (!Array.isArray(value)) throw gltfProblem(pointer, 'it must be a list');
  return value as unknown[];
}

/** An index into one of the document's lists; undefined is no reference. */
function refer(json: GltfJson, name: ListName, index: unknown, pointer: string): void {
  if (index === undefined) return;
  const length = (json[name] as readonly unknown[] | undefined)?.length ?? 0;
  if (!isCount(index) || index >= length) {
    const shown = typeof index === 'number' ? index : JSON.stringify(index);
    throw gltfProblem(pointer, `it names number ${shown} of ${name}, and there are ${length}`);
  }
}

function checkScenes(json: GltfJson): void {
  refer(json, 'scenes', json.scene, '/scene');
  json.scenes?.forEach((scene, i) => {
    const pointer = `/scenes/${i}/nodes`;
    for (const node of list(scene.nodes, pointer)) refer(json, 'nodes', node ?? null, pointer);
  });
  json.nodes?.forEach((node, i) => refer(json, 'skins', node.skin, `/nodes/${i}/skin`));
}

function checkTextures(json: GltfJson): void {
  json.textures?.forEach((texture, i) => {
    refer(json, 'images', texture.source, `/textures/${i}/source`);
    refer(json, 'samplers', texture.sampler, `/textures/${i}/sampler`);
    for (const [name, extension] of Object.entries(asFields(texture['extensions'])))
      refer(json, 'images', asFields(extension)['source'], `/textures/${i}/extensions/${name}/source`);
  });
  json.images?.forEach((image, i) => {
    refer(json, 'bufferViews', image.bufferView, `/images/${i}/bufferView`);
    if (image.uri !== undefined && typeof image.uri !== 'string')
      throw gltfProblem(`/images/${i}/uri`, 'it must be text');
  });
}

/** Numbers of a material in their bounds, and its textures, those of its extensions too. */
function checkMaterial(json: GltfJson, material: Fields, pointer: string): void {
  const pbr = asFields(material['pbrMetallicRoughness']);
  numbers(pbr['baseColorFactor'], 4, `${pointer}/pbrMetallicRoughness/baseColorFactor`);
  numbers(material['emissiveFactor'], 3, `${pointer}/emissiveFactor`);
  for (const name of ['metallicFactor', 'roughnessFactor'])
    numbers(pbr[name] === undefined ? undefined : [pbr[name]], 1, `${pointer}/pbrMetallicRoughness/${name}`);
  const open: { readonly fields: Fields; readonly at: string }[] = [{ fields: material, at: pointer }];
  for (let next = open.pop(); next; next = open.pop()) {
    for (const [name, value] of Object.entries(next.fields)) {
      const at = `${next.at}/${name}`;
      if (name === 'extras' || typeof value !== 'object' || value === null) continue;
      if (/texture$/i.test(name)) refer(json, 'textures', asFields(value)['index'] ?? null, `${at}/index`);
      open.push({ fields: asFields(value), at });
    }
  }
}

function numbers(value: unknown, count: number, pointer: string): void {
  if (value === undefined) return;
  const good = Array.isArray(value) && value.length === count && value.every((each) => Number.isFinite(each));
  if (!good) throw gltfProblem(pointer, count === 1 ? 'it must be a number' : `it must be ${count} numbers`);
}

function checkCamera(camera: Fields, pointer: string): void {
  if (camera['type'] !== 'perspective') return;
  const lens = asFields(camera['perspective']);
  for (const name of ['yfov', 'znear', 'zfar']) {
    const value = lens[name];
    if (value === undefined && name === 'zfar') continue;
    if (typeof value !== 'number' || !(value > 0) || !Number.isFinite(value))
      throw gltfProblem(`${pointer}/perspective/${name}`, 'it must be a number above 0');
  }
  if ((lens['yfov'] as number) >= Math.PI)
    throw gltfProblem(`${pointer}/perspective/yfov`, 'it must be less than half a turn, in radians');
}

const LIGHT_TYPES = ['directional', 'point', 'spot'];

function checkLights(json: GltfJson): void {
  const pointer = '/extensions/KHR_lights_punctual/lights';
  const lights = list(asFields(json.extensions?.['KHR_lights_punctual'])['lights'], pointer).map(asFields);
  lights.forEach((light, i) => {
    if (!LIGHT_TYPES.includes(String(light['type'])))
      throw gltfProblem(`${pointer}/${i}/type`, `it must be one of ${LIGHT_TYPES.join(', ')}`);
    numbers(light['color'], 3, `${pointer}/${i}/color`);
  });
  json.nodes?.forEach((node, i) => {
    const index = asFields(node.extensions?.['KHR_lights_punctual'])['light'];
    if (index === undefined) return;
    if (!isCount(index) || index >= lights.length)
      throw gltfProblem(
        `/nodes/${i}/extensions/KHR_lights_punctual/light`,
        `it names light ${JSON.stringify(index)}, and there are ${lights.length}`,
      );
  });
}

function checkPrimitives({ json, bin }: GltfDocument): void {
  json.meshes?.forEach((mesh, i) => {
    mesh.primitives.forEach((primitive, k) => {
      const pointer = `/meshes/${i}/primitives/${k}`;
      const attributes = asFields(primitive.attributes);
      const position = json.accessors?.[attributes['POSITION'] as number];
      if (!position || position.type !== 'VEC3')
        throw gltfProblem(`${pointer}/attributes`, 'it has no places of its corners (POSITION, VEC3)');
      for (const [name, accessor] of Object.entries(attributes)) {
        refer(json, 'accessors', accessor ?? null, `${pointer}/attributes/${name}`);
        if (json.accessors![accessor as number]!.count !== position.count)
          throw gltfProblem(
            `${pointer}/attributes/${name}`,
            `it has ${json.accessors![accessor as number]!.count} entries for ${position.count} corners`,
          );
      }
      refer(json, 'materials', primitive.material, `${pointer}/material`);
      if (primitive.indices === undefined) return;
      refer(json, 'accessors', primitive.indices, `${pointer}/indices`);
      checkIndices(json, bin, json.accessors![primitive.indices]!, position.count, `${pointer}/indices`);
    });
  });
}

/** Every index of a primitive names one of its corners. */
function checkIndices(
  json: GltfJson,
  bin: Uint8Array,
  accessor: GltfAccessor,
  corners: number,
  pointer: string,
): void {
  const bytes = COMPONENT_BYTES[accessor.componentType]!;
  const view = accessor.bufferView === undefined ? undefined : json.bufferViews![accessor.bufferView]!;
  if (accessor.type !== 'SCALAR' || ![5121, 5123, 5125].includes(accessor.componentType))
    throw gltfProblem(pointer, 'it must be whole numbers, one a corner');
  if (!view) return;
  const start = bin.byteOffset + (view.byteOffset ?? 0) + (accessor.byteOffset ?? 0);
  const from = new DataView(bin.buffer, start);
  const stride = view.byteStride ?? bytes;
  for (let i = 0; i < accessor.count; i++) {
    const at = i * stride;
    const index =
      bytes === 1 ? from.getUint8(at) : bytes === 2 ? from.getUint16(at, true) : from.getUint32(at, true);
    if (index >= corners)
      throw gltfProblem(pointer, `number ${i} names corner ${index}, and there are ${corners}`);
  }
}

function checkSkin(json: GltfJson, skin: Fields, pointer: string): void {
  for (const joint of list(skin['joints'], `${pointer}/joints`))
    refer(json, 'nodes', joint ?? null, `${pointer}/joints`);
  refer(json, 'nodes', skin['skeleton'], `${pointer}/skeleton`);
  refer(json, 'accessors', skin['inverseBindMatrices'], `${pointer}/inverseBindMatrices`);
}

function checkAnimation(json: GltfJson, animation: Fields, pointer: string): void {
  const samplers = list(animation['samplers'], `${pointer}/samplers`).map(asFields);
  samplers.forEach((sampler, i) => {
    refer(json, 'accessors', sampler['input'] ?? null, `${pointer}/samplers/${i}/input`);
    refer(json, 'accessors', sampler['output'] ?? null, `${pointer}/samplers/${i}/output`);
  });
  list(animation['channels'], `${pointer}/channels`)
    .map(asFields)
    .forEach((channel, i) => {
      const index = channel['sampler'];
      if (!isCount(index) || index >= samplers.length)
        throw gltfProblem(
          `${pointer}/channels/${i}/sampler`,
          `it names sampler ${JSON.stringify(index)}, and there are ${samplers.length}`,
        );
      refer(json, 'nodes', asFields(channel['target'])['node'], `${pointer}/channels/${i}/target/node`);
    });
}

/** The few elements that a sparse accessor changes, inside their views and inside the accessor. */
function checkSparse(
  json: GltfJson,
  { sparse, count, type, componentType }: GltfAccessor,
  pointer: string,
): void {
  if (sparse === undefined) return;
  const at = `${pointer}/sparse`;
  if (!isCount(sparse.count) || sparse.count > count)
    throw gltfProblem(at, `it changes ${JSON.stringify(sparse.count)} of ${count} elements`);
  const holders = [
    [
      'indices',
      asFields(sparse.indices),
      COMPONENT_BYTES[asFields(sparse.indices)['componentType'] as number],
    ],
    ['values', asFields(sparse.values), COMPONENT_BYTES[componentType]! * TYPE_SIZES[type]!],
  ] as const;
  for (const [name, holder, bytes] of holders) {
    refer(json, 'bufferViews', holder['bufferView'] ?? null, `${at}/${name}/bufferView`);
    const view = json.bufferViews![holder['bufferView'] as number]!;
    const offset = holder['byteOffset'] ?? 0;
    if (bytes === undefined || !isCount(offset) || offset + bytes * sparse.count > view.byteLength)
      throw gltfProblem(`${at}/${name}`, 'it reaches outside its buffer view; the file is damaged');
  }
}
