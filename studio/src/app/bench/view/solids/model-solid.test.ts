import { BufferAttribute, BufferGeometry } from 'three';
import type { MeshPart, ModelSkin } from '@kaizen/core';
import { bends, ModelSolid } from './model-solid';

/** A square one metre high whose upper edge hangs on a second joint, a metre up, and that can swell to twice its width. */
function board(): { readonly geometry: BufferGeometry; readonly skin: ModelSkin } {
  const geometry = new BufferGeometry();
  geometry.setAttribute(
    'position',
    new BufferAttribute(Float32Array.of(-1, 0, 0, 1, 0, 0, -1, 1, 0, 1, 1, 0), 3),
  );
  geometry.setIndex([0, 1, 2, 2, 1, 3]);
  geometry.morphAttributes['position'] = [
    new BufferAttribute(Float32Array.of(-1, 0, 0, 1, 0, 0, -1, 0, 0, 1, 0, 0), 3),
  ];
  geometry.morphTargetsRelative = true;
  const skin = {
    joints: [0, 0, 0, 0, 0, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0],
    weights: [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0],
    inverseBinds: [translation(0, 0, 0), translation(0, -1, 0)],
  };
  return { geometry, skin };
}

function translation(x: number, y: number, z: number): number[] {
  return [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, x, y, z, 1];
}

function partOf(more: object = {}): MeshPart {
  return {
    id: 'board',
    kind: 'mesh',
    geometry: { shape: 'asset', asset: 'model', node: 'Board', skin: ['foot', 'top'] },
    morphs: [{ name: 'swell', value: 0 }],
    ...more,
  } as unknown as MeshPart;
}

const positions = (solid: ModelSolid) =>
  Array.from({ length: 4 }, (_, i) =>
    [0, 1, 2].map(
      (row) => Math.round(solid.drawn.solid.getAttribute('position').getComponent(i, row) * 1e5) / 1e5,
    ),
  );

describe('a model’s mesh that changes its shape', () => {
  it('has its creases where other joints and values would put them, and stays as it is shown', () => {
    const { geometry, skin } = board();
    const solid = new ModelSolid(partOf(), geometry, skin);
    const still = [translation(0, 0, 0), translation(0, 1, 0)];
    solid.show([0], still);
    const before = positions(solid);
    const lines = solid.creasesAt([1], [translation(0, 0, 0), translation(0, 4, 0)]).getAttribute('position');
    const xs = Array.from({ length: lines.count }, (_, i) => lines.getX(i));
    const ys = Array.from({ length: lines.count }, (_, i) => lines.getY(i));
    expect([lines.count, Math.max(...xs), Math.max(...ys)]).toEqual([8, 2, 4]);
    expect(positions(solid)).toEqual(before);
  });

  it('goes with its joints in the world after its own target, its edges and normals with it', () => {
    const { geometry, skin } = board();
    const solid = new ModelSolid(partOf(), geometry, skin);
    expect([solid.properties, solid.joints]).toEqual([['morph.swell'], ['foot', 'top']]);
    const quarter = [0, 0, -1, 0, 0, 1, 0, 0, 1, 0, 0, 0, 0, 1, 0, 1];
    solid.show([1], [translation(0, 0, 0), quarter]);
    expect(positions(solid)).toEqual([
      [-2, 0, 0],
      [2, 0, 0],
      [0, 1, 2],
      [0, 1, -2],
    ]);
    const normal = solid.drawn.solid.getAttribute('normal');
    expect([normal.getX(2), normal.getZ(2), normal.getZ(0)]).toEqual([1, expect.closeTo(0), 1]);
    const ends = solid.drawn.edges.getAttribute('position');
    const widths = Array.from({ length: ends.count }, (_, i) => Math.abs(ends.getX(i)));
    expect(Math.max(...widths)).toBe(2);
  });

  it('takes shapes made here as well, and no skin of another number of joints', () => {
    const { geometry, skin } = board();
    const lift = { name: 'lift', value: 0, moves: [{ at: [1, 1, 0], radius: 0.5, by: [0, 0, 2], scale: 1 }] };
    const part = partOf({ morphs: [{ name: 'swell', value: 0 }, lift] });
    const solid = new ModelSolid(part, geometry, null);
    solid.show([0, 0.5], []);
    expect(positions(solid)[3]).toEqual([1, 1, 1]);
    const alone = partOf({ morphs: [], geometry: { shape: 'asset', asset: 'm', node: 'n', skin: ['foot'] } });
    geometry.morphAttributes = {};
    expect(bends(alone, geometry, skin)).toBe(false);
  });
});
