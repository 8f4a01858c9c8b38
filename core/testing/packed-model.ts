import { Document, WebIO } from '@gltf-transform/core';
import {
  EXTMeshoptCompression,
  KHRDracoMeshCompression,
  KHRMeshQuantization,
} from '@gltf-transform/extensions';
import draco3d from 'draco3dgltf';
import { MeshoptEncoder } from 'meshoptimizer/encoder';

export const SIDES = 40;

/** A tube of 2·SIDES corners with normals, in the world of the saltworks: the rim of a pump. */
function rim(): Document {
  const document = new Document();
  const buffer = document.createBuffer();
  const places: number[] = [];
  const normals: number[] = [];
  const corners: number[] = [];
  for (let i = 0; i < SIDES; i++) {
    const [x, z] = [Math.cos((2 * Math.PI * i) / SIDES), Math.sin((2 * Math.PI * i) / SIDES)];
    places.push(x, 0, z, x, 0.25, z);
    normals.push(x, 0, z, x, 0, z);
    const [a, b, c, d] = [2 * i, 2 * i + 1, (2 * i + 2) % (2 * SIDES), (2 * i + 3) % (2 * SIDES)];
    corners.push(a, b, c, c, b, d);
  }
  const accessor = (type: 'VEC3' | 'SCALAR', array: Float32Array | Uint16Array) =>
    document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', Float32Array.from(places)))
    .setAttribute('NORMAL', accessor('VEC3', Float32Array.from(normals)))
    .setIndices(accessor('SCALAR', Uint16Array.from(corners)))
    .setMaterial(document.createMaterial('Iron'));
  const mesh = document.createMesh('Rim').addPrimitive(primitive);
  const node = document.createNode('Rim').setMesh(mesh);
  document.createScene().addChild(node);
  const sampler = document
    .createAnimationSampler()
    .setInput(accessor('SCALAR', Float32Array.of(0, 1)))
    .setOutput(accessor('VEC3', Float32Array.of(0, 0, 0, 0, 2, 0)));
  const channel = document
    .createAnimationChannel()
    .setTargetNode(node)
    .setTargetPath('translation')
    .setSampler(sampler);
  document.createAnimation('Rise').addSampler(sampler).addChannel(channel);
  return document;
}

/** The ways of packing meshes, as their standard encoders do it. */
export const PACKINGS = {
  Draco: (document: Document) =>
    document
      .createExtension(KHRDracoMeshCompression)
      .setRequired(true)
      .setEncoderOptions({ quantizationBits: { POSITION: 16, NORMAL: 12 } }),
  meshopt: (document: Document) =>
    document
      .createExtension(EXTMeshoptCompression)
      .setRequired(true)
      .setEncoderOptions({ method: EXTMeshoptCompression.EncoderMethod.QUANTIZE }),
  'quantised meshopt': (document: Document) => {
    document.createExtension(KHRMeshQuantization).setRequired(true);
    for (const accessor of document.getRoot().listAccessors())
      if (accessor.getElementSize() === 3 && accessor.getCount() === 2 * SIDES)
        accessor
          .setArray(
            Int16Array.from(accessor.getArray() as Float32Array, (value) => Math.round(value * 32767)),
          )
          .setNormalized(true);
    return PACKINGS.meshopt(document);
  },
} as const;

/** The rim as a GLB, packed. */
export async function packed(how: keyof typeof PACKINGS): Promise<Uint8Array> {
  await MeshoptEncoder.ready;
  const document = rim();
  PACKINGS[how](document);
  const io = new WebIO()
    .registerExtensions([KHRDracoMeshCompression, EXTMeshoptCompression, KHRMeshQuantization])
    .registerDependencies({
      'draco3d.encoder': await draco3d.createEncoderModule(),
      'meshopt.encoder': MeshoptEncoder,
    });
  return io.writeBinary(document);
}
