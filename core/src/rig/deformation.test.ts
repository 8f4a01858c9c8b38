import fc from 'fast-check';
import { readDocument, writeProject } from '../file';
import type { Part } from '../project';
import { testProject } from '../../testing/project';
import { expectNear, line, Rig } from '../../testing/rigged';
import { Bulge } from './bulge';
import { Deformation } from './deformation';

const MOVES = [{ at: [0, 1, 0], radius: 0.5, by: [0, -0.2, 0], scale: 1.5 }];
const drum = (more: object = {}) => ({
  id: 'drum',
  kind: 'mesh',
  geometry: { shape: 'cylinder', radius: 0.5, height: 2 },
  ...more,
});
const meshPart = (more: object): Part => testProject({ parts: [drum(more)] }).parts[0]!;

describe('made morph targets', () => {
  const deformation = new Deformation(
    meshPart({
      morphs: [
        { name: 'sag', moves: MOVES },
        { name: 'open', value: 1 },
        { name: 'puff', moves: [{ at: [0, 0, 0], radius: 2, scale: 2 }] },
      ],
    }),
  );
  const moved = (point: number[], ...values: number[]) => {
    const out = Float64Array.from(point);
    deformation.move(out, values);
    return [...out];
  };

  it('are those with moves, and move a point by their value', () => {
    expect(deformation.properties).toEqual(['morph.sag', 'morph.puff']);
    expectNear(moved([0, 1, 0], 2, 0), [0, 0.6, 0]);
    expectNear(moved([0.25, 1, 0], 1, 0), [0.25 + 0.5 * 0.125, 0.9, 0]);
    expectNear(moved([0.5, 1, 0], 1, 0), [0.5, 1, 0]);
  });

  it('count from the undeformed mesh and add up', () => {
    const number = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(number, number, number), number, number, (point, a, b) => {
        const sum = point.map((each, i) => moved(point, a, 0)[i]! + moved(point, 0, b)[i]! - each);
        expectNear(moved(point, a, b), sum);
      }),
    );
  });
});

describe('a rounded squash', () => {
  const bounds = { axis: 'y', anchor: [0.1, 0.2, 0], from: -0.4, to: 0.5 } as const;
  const lengths = fc.oneof(
    fc.constantFrom(0.05, 0.9999, 1, 1.0001),
    fc.double({ min: 0.05, max: 4, noNaN: true }),
  );
  const bulge = (k: number) => {
    const made = new Bulge(bounds);
    made.setLength(k);
    return (point: readonly number[]) => {
      const out = Float64Array.from(point);
      made.move(out);
      return [...out];
    };
  };

  it('makes the stretch between its bounds k times as long, leaves the rest as it is, and the anchor where it is', () => {
    fc.assert(
      fc.property(lengths, (k) => {
        const move = bulge(k);
        const y = (s: number) => move([0.1, 0.2 + s, 0])[1]!;
        expect(y(0.5) - y(-0.4)).toBeCloseTo(k * 0.9, 10);
        expect(y(0)).toBeCloseTo(0.2, 14);
        expect(y(0.9) - y(0.5)).toBeCloseTo(0.4, 12);
        expectNear(
          move([0.7, 0.2 + 0.6, 0.3]).filter((_, i) => i !== 1),
          [0.7, 0.3],
        );
      }),
    );
  });

  it('keeps the volume of every slice: ds′/ds is one over the square of how much wider it is', () => {
    fc.assert(
      fc.property(lengths, fc.double({ min: -0.39, max: 0.49, noNaN: true }), (k, s) => {
        const move = bulge(k);
        const h = 1e-5;
        const wider = move([1.1, 0.2 + s, 0])[0]! - 0.1;
        const longer = (move([0.1, 0.2 + s + h, 0])[1]! - move([0.1, 0.2 + s - h, 0])[1]!) / (2 * h);
        expect(longer * wider * wider).toBeCloseTo(1, 4);
      }),
    );
  });

  it('leaves the matrix, the pivot and the children alone', () => {
    const rest = { translate: [1, 0, 0] };
    const parts = [
      drum({ rest, squash: { axis: 'y', anchor: [0, -1, 0], round: { from: 0, to: 2 } } }),
      { id: 'lid', kind: 'group', parent: 'drum', rest: { translate: [0, 1, 0] } },
    ];
    const rig = new Rig(testProject({ parts }, [line('drum/squash', [0, 0], [10, -0.5])]));
    expectNear([...rig.world('drum', 10)], [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 1, 0, 0, 1]);
    expectNear(rig.point('lid', 10), [1, 1, 0]);
    expectNear(rig.point('drum', 10, [0, 1, 0]), [1, 0, 0], 1e-10);
  });

  it('may be driven by where its own part is: the matrix does not read it', () => {
    const squash = { axis: 'y', anchor: [0, -1, 0], round: { from: 0, to: 2 } };
    const parts = [drum({ squash }), { id: 'floor', kind: 'group', rest: { translate: [0, -0.7, 0] } }];
    const drivers = [{ id: 'd', target: 'drum/squash', kind: 'distance', of: 'floor', to: 'drum' }];
    expect(() => new Rig(testProject({ parts, drivers }))).not.toThrow();
    const plain = [drum({ squash: { axis: 'y' } }), parts[1]!];
    expect(() => new Rig(testProject({ parts: plain, drivers }))).toThrow(/ring/);
  });
});

describe('the second edition', () => {
  it('is written by a file that needs it, and one that is newer is refused', () => {
    const written = JSON.parse(
      writeProject(testProject({ parts: [drum({ morphs: [{ name: 'sag', moves: MOVES }] })] })),
    ) as object;
    expect(Object.entries(written).slice(0, 3)).toEqual([
      ['format', 'kaizen'],
      ['version', 1],
      ['edition', 2],
    ]);
    expect(JSON.parse(writeProject(testProject()))).not.toHaveProperty('edition');
    const read = readDocument({ ...written, edition: 3 });
    expect(read.ok ? '' : read.problems[0]!.message).toMatch(/edition 3 .* up to edition 2/);
  });

  it.each([
    [{ squash: { frame: 'parent', round: { from: 0, to: 1 } } }, /must be "part"/],
    [{ squash: { round: { from: 1, to: 1 } } }, /from must be less than to/],
    [{ morphs: [{ name: 'a' }, { name: 'a' }] }, /"a" stands twice/],
    [{ morphs: [{ name: 'a', moves: [{ at: [0, 0, 0], radius: 0 }] }] }, /> 0/],
  ])('%j is refused', (more, message) => {
    expect(() => meshPart(more)).toThrow(message);
  });
});
