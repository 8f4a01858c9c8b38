import '@angular/compiler';
import {
  BufferAttribute,
  BufferGeometry,
  Color,
  DoubleSide,
  FrontSide,
  Matrix4,
  Ray,
  Texture,
  Vector2,
  Vector3,
  type InstancedBufferGeometry,
  type InterleavedBufferAttribute,
  type Matrix3,
  type Mesh,
  type ShaderMaterial,
  type Side,
} from 'three';
import { shapeMesh, type Geometry } from '@kaizen/core';
import type { MeshNumbers, PreparedMesh } from '../../../workers/mesh-api';
import { preparedMesh } from '../../../workers/mesh-work';
import { rayOnSolid } from './ray-on-solid';
import { fillMaterial, type Inks } from '../ink-material';
import { creaseLines, edgeQuads } from './edge-quads';
import type { Look, Slot, SolidBatch } from './solid-batch';
import { Solids, shapeGeometry } from './solids';

const box: Geometry = { shape: 'box', size: [1, 2, 3] };
const inks: Inks = {
  ink: new Color(),
  edge: new Color(),
  select: new Color(),
  shadow: new Color(),
  size: new Vector2(1, 1),
  light: new Vector3(0, 1, 0),
  direct: { value: 1 },
  dim: { value: 1 },
  flatten: new Matrix4(),
};
const awaited = { await: () => undefined, arrived: () => undefined };
const solidsOf = () => new Solids(inks, (mesh) => Promise.resolve(preparedMesh(mesh.numbers())), awaited);
const edgesOf = (quads: BufferGeometry) => quads.getAttribute('position').count / 4;
const creases = (quads: BufferGeometry) => creaseLines(quads).getAttribute('position').count / 2;

const FAR = new Vector3(0, 0, 50);
/** How the faces of the first drawing are drawn when they are seen from a place. */
function sideOf(solids: Solids, eye: Vector3): Side {
  solids.seenFrom(eye, 0.2);
  return (solids.group.children[0] as Mesh<InstancedBufferGeometry, ShaderMaterial>).material.side;
}
function shown(
  batch: SolidBatch,
  slot: Slot,
  look: Look = [1, 1, 1, 1, 0, 0, 0, 1, 0],
  at = new Matrix4(),
): void {
  batch.place(slot, at.elements);
  batch.look(slot, look);
}

describe('the edges of a mesh as quads', () => {
  it('of a box are its twelve, all creases, the diagonals of its faces left out', () => {
    const quads = edgeQuads(shapeGeometry(box));
    expect([edgesOf(quads), creases(quads), quads.userData['closed']]).toEqual([12, 12, true]);
  });

  it('of round things are many, for the silhouette, and few of them creases', () => {
    const quads = edgeQuads(shapeGeometry({ shape: 'sphere', radius: 1 }));
    expect(edgesOf(quads)).toBeGreaterThan(200);
    expect(creases(quads)).toBe(0);
    const drum = edgeQuads(shapeGeometry({ shape: 'cylinder', radius: 1, height: 1 }));
    expect(creases(drum)).toBeLessThan(edgesOf(drum));
  });

  it('of a gear close around every tooth: each end of a crease meets another crease', () => {
    const quads = edgeQuads(shapeGeometry({ shape: 'gear', teeth: 12, module: 0.1, width: 0.2, bore: 0.2 }));
    const ends = new Map<string, number>();
    const places = creaseLines(quads).getAttribute('position');
    for (let i = 0; i < places.count; i++) {
      const name = new Vector3()
        .fromBufferAttribute(places, i)
        .toArray()
        .map((v) => v.toFixed(4))
        .join();
      ends.set(name, (ends.get(name) ?? 0) + 1);
    }
    expect([...ends.values()].every((count) => count >= 2)).toBe(true);
    expect(quads.userData['closed']).toBe(true);
  });

  it('at the border of an open mesh have the far side of their one face as the other', () => {
    const quads = edgeQuads(shapeGeometry({ shape: 'plane', size: [1, 1] }));
    expect([edgesOf(quads), quads.userData['closed']]).toEqual([4, false]);
  });
});

describe('solids', () => {
  it('of one shape are drawn together, whichever object says the shape', () => {
    const solids = solidsOf();
    const [a, b] = [solids.addShape('a', box), solids.addShape('b', { ...box })];
    const other = solids.addShape('c', { shape: 'sphere', radius: 1 });
    expect(a.batch).toBe(b.batch);
    expect(other.batch).not.toBe(a.batch);
    const drawings = () => [solids.group.children.length, solids.shadows.children.length];
    expect(drawings()).toEqual([4, 2]);
    solids.remove(other);
    expect(drawings()).toEqual([2, 1]);
  });

  it('keep their place, look and choice when another of their batch goes', () => {
    const solids = solidsOf();
    const all = ['a', 'b', 'c', 'd', 'e', 'f'].map((id) => solids.addShape(id, box));
    all.forEach(({ batch, slot }, i) => {
      batch.place(slot, new Matrix4().makeTranslation(i, 0, 0).elements);
      batch.look(slot, [i / 10, 0, 0, 1, 0, 0, 0, 0.5, 0]);
      batch.choose(slot, i === 5);
    });
    solids.remove(all[1]!);
    const { batch, slot } = all[5]!;
    const { geometry } = solids.group.children[0] as Mesh<InstancedBufferGeometry>;
    const at = (name: string, thing: number, k: number) => geometry.getAttribute(name).getComponent(thing, k);
    expect([slot.at, batch.size, geometry.instanceCount]).toEqual([1, 5, 5]);
    const places = Array.from({ length: 16 }, (_, k) => at('placed', slot.at, k));
    expect(places).toEqual(new Matrix4().makeTranslation(5, 0, 0).elements);
    expect(at('tone', slot.at, 0)).toBeCloseTo(0.5, 6);
    expect(at('surface', slot.at, 0)).toBe(0.5);
    expect(at('glow', slot.at, 3)).toBe(1);
    expect(at('glow', all[4]!.slot.at, 3)).toBe(0);
  });

  it('that stand still upload nothing', () => {
    const solids = solidsOf();
    const { batch, slot } = solids.addShape('a', box);
    const matrix = new Matrix4().makeTranslation(1, 2, 3).elements;
    batch.place(slot, matrix);
    const { geometry } = solids.group.children[0] as Mesh<InstancedBufferGeometry>;
    const { data } = geometry.getAttribute('placed') as InterleavedBufferAttribute;
    const before = data.version;
    batch.place(slot, matrix);
    expect(data.version).toBe(before);
    batch.place(slot, null);
    expect(data.version).toBeGreaterThan(before);
  });

  it('have the picture on them where the file of a model places it', () => {
    const map = new Texture();
    map.offset.set(0.5, 0.25);
    map.repeat.set(0.5, 2);
    const onPicture = fillMaterial(inks, map).uniforms['onPicture']!.value as Matrix3;
    const places = [new Vector3(0, 0, 1), new Vector3(1, 1, 1)].map((uv) => uv.applyMatrix3(onPicture));
    expect(places.map(({ x, y }) => [x, y])).toEqual([
      [0.5, 0.25],
      [1, 2.25],
    ]);
  });

  it('of a model are drawn at once, and with edges, shadow and places to press when these have been found', async () => {
    const told: string[] = [];
    let find: (prepared: PreparedMesh) => void = () => undefined;
    let asked: MeshNumbers | null = null;
    const solids = new Solids(
      inks,
      (mesh) => {
        asked = mesh.numbers();
        return new Promise((done) => (find = done));
      },
      { await: () => told.push('awaited'), arrived: () => told.push('arrived') },
    );
    const { positions, indices } = shapeMesh({ shape: 'box', size: [1, 1, 1] });
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3));
    geometry.setIndex(Array.from(indices));
    const mesh = { geometry, map: null, oneSided: true };
    const { batch, slot } = solids.addMesh('a', mesh);
    const other = solids.addMesh('b', mesh);
    expect(other.batch).toBe(batch);
    const ray = new Ray(new Vector3(0, 0, 5), new Vector3(0, 0, -1));
    const there = Float64Array.from(new Matrix4().elements);
    const drawings = () => solids.group.children.length + solids.shadows.children.length;
    expect([told, drawings(), rayOnSolid(batch.drawn.solid, there, ray)]).toEqual([['awaited'], 1, null]);
    for (const each of [slot, other.slot]) shown(batch, each);
    expect(sideOf(solids, FAR)).toBe(FrontSide);
    find(preparedMesh(asked!));
    await batch.drawn.whole;
    const lines = solids.group.children[1] as Mesh<InstancedBufferGeometry>;
    expect([told, drawings(), edgesOf(lines.geometry)]).toEqual([['awaited', 'arrived'], 3, 12]);
    expect(lines.geometry.instanceCount).toBe(2);
    expect(rayOnSolid(batch.drawn.solid, there, ray)?.distance).toBe(4.5);
    expect(sideOf(solids, FAR)).toBe(DoubleSide);
  });
});

describe('the backs of faces', () => {
  const opaque: Look = [1, 1, 1, 1, 0, 0, 0, 1, 0];
  const moved = new Matrix4().makeTranslation(3, 0, 0);

  it('of closed shapes are left out where none can be seen', () => {
    const solids = solidsOf();
    const { batch, slot } = solids.addShape('a', box);
    shown(batch, slot, opaque, moved);
    expect(sideOf(solids, FAR)).toBe(FrontSide);
  });

  it.each<[string, Look, Matrix4, Vector3, Geometry]>([
    [
      'a hand drew the outline, which may cross itself',
      opaque,
      moved,
      FAR,
      {
        shape: 'extrude',
        outline: [
          [0, 0],
          [0, 1],
          [1, 0],
        ],
        depth: 1,
      },
    ],
    ['the shape is open', opaque, moved, FAR, { shape: 'plane', size: [1, 1] }],
    ['it is see-through', [1, 1, 1, 0.5, 0, 0, 0, 1, 0], moved, FAR, box],
    ['it is mirrored', opaque, new Matrix4().makeScale(-1, 1, 1), FAR, box],
    ['the eye is within it', opaque, moved, new Vector3(3, 0.2, 0), box],
    [
      'the eye is within it as it is sized',
      opaque,
      new Matrix4().makeScale(1, 9, 1),
      new Vector3(0, 8, 0),
      box,
    ],
  ])('are drawn where %s', (_, look, matrix, eye, shape) => {
    const solids = solidsOf();
    const { batch, slot } = solids.addShape('a', shape as typeof box);
    const other = solids.addShape('b', shape as typeof box);
    shown(batch, other.slot);
    shown(batch, slot, look, matrix);
    expect(sideOf(solids, eye)).toBe(DoubleSide);
  });

  it.each<Parameters<typeof shapeMesh>[0]>([
    box,
    { shape: 'sphere', radius: 1 },
    { shape: 'cylinder', radius: 1, height: 2 },
    { shape: 'gear', teeth: 12, module: 0.1, width: 0.2, bore: 0.2 },
    { shape: 'torus', radius: 1, tube: 0.2 },
  ])('lie inside: each closed shape’s faces turn outwards ($shape)', (shape) => {
    const { positions, indices } = shapeMesh(shape);
    const corner = (i: number) => new Vector3().fromArray(positions, indices[i]! * 3);
    let volume = 0;
    for (let i = 0; i < indices.length; i += 3)
      volume += corner(i).dot(corner(i + 1).cross(corner(i + 2))) / 6;
    expect(volume).toBeGreaterThan(0);
  });
});
