import '@angular/compiler';
import { Document, NodeIO, VertexLayout } from '@gltf-transform/core';
import type { Mesh, MeshStandardMaterial } from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { readGlb, shapeMesh, type GltfJson } from '@kaizen/core';
import { PlainMeshes } from './plain-meshes';
import { numbersOf } from './solids/numbers-of';

type Change = (document: Document, parts: ReturnType<typeof crate>) => void;

/** A crate of one mesh with a colour, as a document of glTF that others wrote. */
function crate(document: Document) {
  const buffer = document.createBuffer();
  const { positions, normals, indices } = shapeMesh({ shape: 'box', size: [1, 2, 3] });
  const accessor = (type: 'VEC2' | 'VEC3' | 'SCALAR', array: Float32Array | Uint16Array | Uint8Array) =>
    document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
  const places = accessor('VEC3', Float32Array.from(positions));
  const corners = accessor('SCALAR', Uint16Array.from(indices));
  const material = document.createMaterial().setBaseColorFactor([0.2, 0.4, 0.6, 1]);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', places)
    .setAttribute('NORMAL', accessor('VEC3', Float32Array.from(normals)))
    .setIndices(corners)
    .setMaterial(material);
  const mesh = document.createMesh().addPrimitive(primitive);
  const node = document.createNode('Crate').setMesh(mesh);
  document.createScene().addChild(node);
  return { positions, indices, places, corners, material, primitive, mesh, node };
}

async function glbOf(change: Change, layout: VertexLayout = VertexLayout.INTERLEAVED) {
  const document = new Document();
  change(document, crate(document));
  const bytes = await new NodeIO().setVertexLayout(layout).writeBinary(document);
  const glb = readGlb(bytes);
  if ('reason' in glb) throw new Error(glb.reason);
  return { bytes, plain: new PlainMeshes(JSON.parse(glb.text) as GltfJson, glb.bin) };
}

describe('meshes drawn from the bytes of a model', () => {
  it.each([
    ['side by side', VertexLayout.INTERLEAVED, () => undefined],
    ['one after the other', VertexLayout.SEPARATE, () => undefined],
    [
      'with corners of a byte',
      VertexLayout.INTERLEAVED,
      (_: Document, { corners, indices }: ReturnType<typeof crate>) =>
        corners.setArray(Uint8Array.from(indices)),
    ],
    [
      'without normals and corners, in white',
      VertexLayout.SEPARATE,
      (_: Document, { primitive }: ReturnType<typeof crate>) =>
        primitive.setIndices(null).setAttribute('NORMAL', null).setMaterial(null),
    ],
  ])('%s are those that the loader makes', async (_, layout, change) => {
    const { bytes, plain } = await glbOf(change, layout);
    const [{ geometry, color, map, skin }, ...more] = plain.of(0)! as [
      NonNullable<ReturnType<PlainMeshes['of']>>[number],
    ];
    const { parser } = await new GLTFLoader().parseAsync(bytes.slice().buffer, '');
    const loaded = (await parser.getDependency('node', 0)) as Mesh;
    expect([more, map, skin]).toEqual([[], null, null]);
    expect(color.getHex()).toBe((loaded.material as MeshStandardMaterial).color.getHex());
    const numbers = ({ attributes, index }: typeof geometry) => [
      Object.keys(attributes).sort(),
      ...Object.values(attributes).map((each) => [...numbersOf(each, 3)]),
      index && [...index.array],
    ];
    expect(numbers(geometry)).toEqual(numbers(loaded.geometry));
    const box = geometry.boundingBox!.clone();
    geometry.computeBoundingBox();
    expect(box).toEqual(geometry.boundingBox);
    loaded.geometry.computeBoundingSphere();
    expect(geometry.boundingSphere!.radius).toBeCloseTo(loaded.geometry.boundingSphere!.radius, 6);
  });

  it.each<[string, Change]>([
    ['a picture', (document, { material }) => material.setBaseColorTexture(picture(document))],
    [
      'a target shape',
      (document, { primitive, places }) =>
        primitive.addTarget(document.createPrimitiveTarget().setAttribute('POSITION', places)),
    ],
    [
      'a skin',
      (document, { node }) => node.setSkin(document.createSkin().addJoint(document.createNode('Joint'))),
    ],
    ['lines', (_, { primitive }) => primitive.setMode(1)],
    [
      'places in whole numbers',
      (_, { places, positions }) => places.setArray(Int16Array.from(positions)).setNormalized(true),
    ],
    [
      'sparse places',
      (_, { places, positions }) => places.setArray(new Float32Array(positions.length)).setSparse(true),
    ],
  ])('are not those of a mesh with %s', async (_, change) => {
    const { plain } = await glbOf(change);
    expect(plain.of(0)).toBeNull();
  });

  it('are none of a node without, and are read once', async () => {
    const { plain } = await glbOf((document, { mesh }) => {
      document.createNode('Bare');
      document.createNode('Second').setMesh(mesh);
    });
    expect(plain.of(1)).toEqual([]);
    expect(plain.of(2)).toBe(plain.of(0));
  });
});

/** A picture of one pixel; what it shows is not looked at. */
function picture(document: Document) {
  return document.createTexture().setMimeType('image/png').setImage(new Uint8Array(8));
}
