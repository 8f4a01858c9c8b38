import fc from 'fast-check';
import { mat4, vec3 } from 'gl-matrix';
import { compile } from '../../evaluate';
import { testProject } from '../../../testing/project';
import { expectNear, line, partOfRig, Rig, riggedProject } from '../../../testing/rigged';

const rig = (...project: Parameters<typeof riggedProject>) => new Rig(riggedProject(...project));
const apart = (a: readonly number[], b: readonly number[]) => a.map((value, i) => value - b[i]!);
const length = (v: readonly number[]) => Math.hypot(...v);
const unit = (v: readonly number[]) => v.map((value) => value / length(v));

describe('attach', () => {
  const parts = [
    partOfRig('hook', { rest: { translate: [1, 2, 0] }, pivot: [0.2, 0, 0] }),
    partOfRig('cart', { rest: { translate: [5, 0, 0] } }),
    partOfRig('crate', { parent: 'cart', rest: { translate: [0, 1, 0], rotate: [0, 30, 0] } }),
  ];
  const curves = [
    line('hook/translate.x', [0, 1], [40, 9]),
    line('hook/rotate.z', [0, 0], [40, 120]),
    line('crate/translate.z', [0, 0], [40, 2]),
  ];
  const attached = rig(
    parts,
    [{ kind: 'attach', part: 'crate', target: 'hook', start: 10, end: 25 }],
    curves,
  );
  const free = rig(parts, [], curves);

  it('keeps its place in the target while it rides, its own channels going on', () => {
    for (const frame of [10, 14.5, 25]) {
      const inverse = mat4.invert(mat4.create(), attached.world('hook', frame))!;
      const inHook = mat4.multiply(mat4.create(), inverse, attached.world('crate', frame));
      const begun = mat4.invert(mat4.create(), free.world('hook', 10))!;
      const expected = mat4.multiply(mat4.create(), begun, free.world('crate', frame));
      expectNear([...inHook], [...expected], 1e-6);
    }
  });

  it('is not there before its start, and stays where it was let go', () => {
    expectNear([...attached.world('crate', 9.99)], [...free.world('crate', 9.99)]);
    const still = rig(
      parts,
      [{ kind: 'attach', part: 'crate', target: 'hook', start: 10, end: 25 }],
      curves.slice(0, 2),
    );
    expectNear([...still.world('crate', 90)], [...still.world('crate', 25)]);
  });

  it('several multiply, later on the left', () => {
    const both = rig(
      [...parts, partOfRig('lift')],
      [
        { kind: 'attach', part: 'crate', target: 'hook', start: 0, end: 10 },
        { kind: 'attach', part: 'crate', target: 'lift', start: 20 },
      ],
      [...curves.slice(0, 2), line('lift/translate.y', [0, 0], [40, 4])],
    );
    expectNear(apart(both.point('crate', 30), both.point('crate', 20)), [0, 1, 0]);
    expect(both.unmet(30)).toEqual([]);
  });
});

describe('plant', () => {
  const foot = [
    partOfRig('leg', { rest: { translate: [0, 3, 0] } }),
    partOfRig('foot', {
      parent: 'leg',
      rest: { translate: [0, -3, 0], rotate: [0, 20, 0] },
      pivot: [0, 0.1, 0.3],
    }),
  ];
  const walk = [line('leg/translate.x', [0, 0], [40, 8]), line('leg/rotate.y', [0, 0], [40, 90])];
  const pivot = (of: Rig, frame: number) => of.point('foot', frame, [0, 0.1, 0.3]);
  const planted = rig(foot, [{ kind: 'plant', part: 'foot', start: 8, end: 20, fade: 6, turn: true }], walk);
  const free = rig(foot, [], walk);

  it('holds the pivot, and the orientation with turn, from start to end', () => {
    for (const frame of [8, 13.3, 20]) {
      expectNear(pivot(planted, frame), pivot(free, 8));
      expectNear([...planted.world('foot', frame)], [...planted.world('foot', 8)]);
    }
  });

  it('fades what it held after its end by 1 − (3u² − 2u³), the turn by slerp', () => {
    const u = 2.5 / 6;
    const left = 1 - u * u * (3 - 2 * u);
    const held = apart(pivot(free, 8), pivot(free, 20));
    expectNear(
      apart(pivot(planted, 22.5), pivot(free, 22.5)),
      held.map((each) => each * left),
    );
    const angle = (of: Rig, frame: number) =>
      Math.atan2(of.axis('foot', frame, 2)[0]!, of.axis('foot', frame, 2)[2]!);
    const kept = angle(free, 8) - angle(free, 20);
    expect(angle(planted, 22.5) - angle(free, 22.5)).toBeCloseTo(kept * left, 12);
    for (const frame of [7.9, 26, 30])
      expectNear([...planted.world('foot', frame)], [...free.world('foot', frame)]);
  });
});

describe('aim', () => {
  it('points its axis at the target, up as near to +Y as it can, the own turn inside', () => {
    const place = fc.tuple(
      fc.integer({ min: -9, max: 9 }),
      fc.integer({ min: -9, max: 9 }),
      fc.integer({ min: -9, max: 9 }),
    );
    fc.assert(
      fc.property(place, place, fc.double({ min: 0.2, max: 5, noNaN: true }), (from, to, size) => {
        fc.pre(Math.hypot(from[0] - to[0], from[2] - to[2]) > 0);
        const parts = [
          partOfRig('arm', { rest: { rotate: [10, 50, -30], scale: [size, size, size] } }),
          partOfRig('lamp', { parent: 'arm', rest: { translate: from }, pivot: [0.3, 0.1, 0] }),
          partOfRig('boat', { rest: { translate: to } }),
        ];
        const aimed = rig(parts, [{ kind: 'aim', part: 'lamp', target: 'boat', axis: 'x', up: 'z' }]);
        const eye = aimed.point('lamp', 0, [0.3, 0.1, 0]);
        const way = unit(apart(to, eye));
        expectNear(aimed.axis('lamp', 0, 0), way, 1e-9);
        const up = aimed.axis('lamp', 0, 2);
        // Nothing across the way is nearer to +Y than what is left of +Y across it.
        expectNear(up, unit([-way[1]! * way[0]!, 1 - way[1]! * way[1]!, -way[1]! * way[2]!]), 1e-9);
        expect(mat4.determinant(aimed.world('lamp', 0) as unknown as mat4)).toBeCloseTo(size ** 3, 6);
      }),
    );
  });

  it('straight up and down looks to −Z with its up axis, and halfway by weight turns half as far', () => {
    const parts = [partOfRig('lamp'), partOfRig('boat', { rest: { translate: [0, 4, 0] } })];
    expectNear(rig(parts, [{ kind: 'aim', part: 'lamp', target: 'boat' }]).axis('lamp', 0, 1), [0, 0, -1]);
    const half = rig(
      [parts[0]!, partOfRig('boat', { rest: { translate: [4, 0, 0] } })],
      [{ kind: 'aim', part: 'lamp', target: 'boat', weight: 0.5 }],
    );
    expectNear(half.axis('lamp', 0, 2), [-Math.SQRT1_2, 0, Math.SQRT1_2]);
  });

  it('two lamps that share one lag each follow their own target', () => {
    const lag = { frequency: 1, damping: 0.5 };
    const parts = ['a', 'b', 'c', 'd'].map((id, i) =>
      partOfRig(id, { rest: { translate: [0, 0, i < 2 ? 0 : -5] } }),
    );
    const read = riggedProject(
      parts,
      [
        { kind: 'aim', part: 'a', target: 'c', lag },
        { kind: 'aim', part: 'b', target: 'd', lag },
      ],
      [line('c/translate.x', [0, 0], [12, 3])],
    );
    const [first, second] = read.constraints as unknown as readonly [{ lag: object }, { lag: object }];
    const sharing = {
      ...read,
      constraints: [first, { ...second, lag: first.lag }],
    } as unknown as typeof read;
    const two = new Rig(sharing);
    expect(two.axis('a', 10, 2)[0]).not.toBeCloseTo(0, 3);
    expectNear(two.axis('b', 10, 2), [0, 0, 1]);
  });

  it('lags behind like the driver follow on each coordinate, and tells where it lost its direction', () => {
    const boat = partOfRig('boat', { rest: { translate: [0, 0, -10] } });
    const curves = [line('boat/translate.x', [0, 0], [12, 6], [40, 6])];
    const lagging = rig(
      [partOfRig('lamp'), boat],
      [{ kind: 'aim', part: 'lamp', target: 'boat', lag: { frequency: 1, damping: 0.5 } }],
      curves,
    );
    const follow = testProject(
      {
        parts: [boat, partOfRig('lamp')],
        drivers: [
          {
            id: 'f',
            target: 'lamp/translate.x',
            kind: 'follow',
            input: 'boat/translate.x',
            frequency: 1,
            damping: 0.5,
          },
        ],
      },
      curves,
    );
    for (const frame of [3, 12.5, 20]) {
      const x = new Rig(follow).point('lamp', frame)[0]!;
      expectNear(lagging.axis('lamp', frame, 2), unit([-x, 0, 10]));
    }
    const lost = rig([partOfRig('lamp'), partOfRig('boat')], [{ kind: 'aim', part: 'lamp', target: 'boat' }]);
    expect(lost.unmet(0)).toEqual([expect.stringMatching(/direction is lost/)]);
    expectNear(lost.axis('lamp', 0, 2), [0, 0, 1]);
  });
});

describe('reach', () => {
  const arm = (target: readonly number[], more: object = {}) =>
    rig(
      [
        partOfRig('mast', { rest: { rotate: [0, 40, 0], scale: [1.5, 1.5, 1.5] } }),
        partOfRig('root', { parent: 'mast', rest: { translate: [0, 1, 0], rotate: [5, 0, 12] } }),
        partOfRig('sleeve', { parent: 'root', rest: { translate: [0.4, 0, 0.05] } }),
        partOfRig('middle', {
          parent: 'sleeve',
          rest: { translate: [1.6, 0, 0], rotate: [0, 0, -30] },
          pivot: [0.1, 0, 0],
        }),
        partOfRig('tip', { parent: 'middle', rest: { translate: [1.5, 0.2, 0] }, pivot: [0, 0.1, 0] }),
        partOfRig('skip', { rest: { translate: target } }),
      ],
      [{ kind: 'reach', part: 'root', middle: 'middle', tip: 'tip', target: 'skip', ...more }],
    );

  it('brings the tip to the target as seen along the axis, whichever way it bends', () => {
    const angle = fc.double({ min: -Math.PI, max: Math.PI, noNaN: true });
    fc.assert(
      fc.property(
        angle,
        fc.double({ min: 1.5, max: 4.8, noNaN: true }),
        fc.constantFrom(1, -1),
        (a, far, bend) => {
          const free = arm([0, 0, 0], { weight: 0 });
          const root = free.point('root', 0);
          const [x, y] = [free.axis('root', 0, 0), free.axis('root', 0, 1)];
          const goal = root.map((each, i) => each + far * (Math.cos(a) * x[i]! + Math.sin(a) * y[i]!));
          const reaching = arm(goal, { bend });
          expect(reaching.unmet(0)).toEqual([]);
          const normal = free.axis('root', 0, 2);
          const off = apart(reaching.point('tip', 0, [0, 0.1, 0]), goal);
          const along = off.reduce((sum, each, i) => sum + each * normal[i]!, 0);
          expect(length(off.map((each, i) => each - along * normal[i]!))).toBeLessThan(1e-9);
          const upper = apart(reaching.point('middle', 0, [0.1, 0, 0]), reaching.point('root', 0));
          const lower = apart(
            reaching.point('tip', 0, [0, 0.1, 0]),
            reaching.point('middle', 0, [0.1, 0, 0]),
          );
          const turned = vec3.dot(vec3.cross(vec3.create(), upper, lower), normal);
          expect(Math.sign(turned)).toBe(bend);
        },
      ),
    );
  });

  it('too far is stretched towards the target, too near folded, and both are told', () => {
    const far = arm([40, 1, 0]);
    expect(far.unmet(0)).toEqual(['out of reach: too far']);
    const near = arm([0, 1.5, 0]);
    expect(near.unmet(0)).toEqual(['out of reach: too near']);
    const [root, middle, tip] = [
      far.point('root', 0),
      far.point('middle', 0, [0.1, 0, 0]),
      far.point('tip', 0, [0, 0.1, 0]),
    ];
    const normal = far.axis('root', 0, 2);
    const inPlane = (v: number[]) =>
      unit(v.map((each, i) => each - v.reduce((sum, other, j) => sum + other * normal[j]!, 0) * normal[i]!));
    expectNear(inPlane(apart(middle, root)), inPlane(apart(tip, middle)), 1e-9);
  });

  it('is refused where its parts do not hang below each other', () => {
    const compiled = compile(
      riggedProject(
        [partOfRig('a'), partOfRig('b'), partOfRig('c')],
        [{ kind: 'reach', part: 'a', middle: 'b', tip: 'c', target: 'c' }],
      ),
    );
    expect(compiled.ok ? [] : compiled.problems[0]).toMatchObject({
      pointer: '/constraints/0/middle',
      message: '"b" does not hang below "a"; it must',
    });
  });
});

describe('along', () => {
  const track = (points: number[][], closed: boolean) => ({
    id: 'track',
    name: 'Track',
    kind: 'path',
    path: { points, closed },
    rest: { translate: [0, 1, 0], rotate: [0, 90, 0] },
  });
  const wagon = partOfRig('wagon', { pivot: [0, 0.5, 0], custom: [{ name: 'way', value: 0 }] });
  const going = (points: number[][], closed: boolean, to: number) =>
    rig(
      [track(points, closed), wagon],
      [{ kind: 'along', part: 'wagon', path: 'track', distance: 'wagon/custom.way' }],
      [line('wagon/custom.way', [0, 0], [1000, to])],
    );
  const place = (of: Rig, frame: number) => of.point('wagon', frame, [0, 0.5, 0]);

  it('goes evenly by metres along a curve, looks along it, stays upright', () => {
    const points = [
      [0, 0, 0],
      [3, 0.5, 1],
      [4, 0, 5],
      [0, 1, 7],
    ];
    const ride = going(points, false, 8);
    let last = place(ride, 0);
    for (let frame = 1; frame <= 1000; frame++) {
      const next = place(ride, frame);
      expect(length(apart(next, last))).toBeCloseTo(0.008, 6);
      if (frame % 100 === 50) {
        const ahead = apart(place(ride, frame + 0.01), place(ride, frame - 0.01));
        expectNear(ride.axis('wagon', frame, 2), unit(ahead), 1e-6);
      }
      last = next;
    }
  });

  it('stops at the ends of an open path and goes round a closed one', () => {
    const straight = going(
      [
        [0, 0, 0],
        [0, 0, 2],
        [0, 0, 3],
      ],
      false,
      20,
    );
    expectNear(place(straight, 500), [3, 1, 0]);
    const square = [
      [0, 0, 0],
      [4, 0, 0],
      [4, 0, 4],
      [0, 0, 4],
    ];
    const round = going(square, true, 100);
    // A quarter of the way round a square is the next corner, whatever the curve between.
    const total = lengthOfLap(round);
    for (const corner of [0, 1, 2, 3, 4, 9])
      expectNear(place(round, (corner * total * 10) / 4), place(round, (corner % 4) * total * 2.5), 1e-6);
    expectNear(place(round, total * 2.5), [0, 1, -4], 1e-6);
  });

  /** Metres of a lap, by many short straight ways. */
  function lengthOfLap(ride: Rig): number {
    let [frame, sum, last] = [0, 0, place(ride, 0)];
    while (sum < 1 || length(apart(place(ride, 0), last)) > 0.011) {
      const next = place(ride, (frame += 0.1));
      sum += length(apart(next, last));
      last = next;
    }
    const refined = (low: number, high: number): number => {
      for (let i = 0; i < 60; i++) {
        const third = (high - low) / 3;
        const gap = (at: number) => length(apart(place(ride, at), place(ride, 0)));
        if (gap(low + third) < gap(high - third)) high -= third;
        else low += third;
      }
      return low / 10;
    };
    return refined(frame - 1, frame + 1);
  }
});

describe('chase and heading', () => {
  it('chase goes with the target in the axes it names, and keeps its orientation', () => {
    const parts = [
      partOfRig('cam', { rest: { translate: [1, 5, 9], rotate: [0, 30, 0] } }),
      partOfRig('cart'),
    ];
    const chasing = rig(
      parts,
      [{ kind: 'chase', part: 'cam', target: 'cart', offset: [0, 2, 6], axes: 'zx', weight: 0.5 }],
      [line('cart/translate.x', [0, 0], [10, 10])],
    );
    expectNear(chasing.point('cam', 6), [1 + 0.5 * (6 - 1), 5, 9 + 0.5 * (6 - 9)]);
    expectNear(chasing.axis('cam', 6, 2), [0.5, 0, Math.sqrt(3) / 2]);
  });

  it('heading looks where it goes, and while it stands where it went, or will go', () => {
    const going = rig(
      [partOfRig('cart')],
      [{ kind: 'heading', part: 'cart', axis: 'x' }],
      [
        line('cart/translate.x', [10, 0], [20, 5], [60, 5]),
        line('cart/translate.z', [10, 0], [20, 5], [40, 5], [50, 0], [60, 0]),
      ],
    );
    const diagonal = [Math.SQRT1_2, 0, Math.SQRT1_2];
    expectNear(going.axis('cart', 15, 0), diagonal);
    expectNear(going.axis('cart', 30, 0), diagonal);
    expectNear(going.axis('cart', 2, 0), diagonal);
    expectNear(going.axis('cart', 45.5, 0), [0, 0, -1]);
    expectNear(going.axis('cart', 90, 0), [0, 0, -1]);
    expectNear(
      rig([partOfRig('cart')], [{ kind: 'heading', part: 'cart', axis: 'x' }]).axis('cart', 5, 0),
      [1, 0, 0],
    );
  });
});

describe('constraints together', () => {
  it('act on one part in list order, each on what the one before left', () => {
    const parts = [
      partOfRig('lamp'),
      partOfRig('boat', { rest: { translate: [0, 0, -5] } }),
      partOfRig('cart', { rest: { translate: [5, 0, -5] } }),
    ];
    const both = rig(parts, [
      { kind: 'chase', part: 'lamp', target: 'cart', offset: [0, 0, 5] },
      { kind: 'aim', part: 'lamp', target: 'boat' },
    ]);
    expectNear(both.point('lamp', 0), [5, 0, 0]);
    expectNear(both.axis('lamp', 0, 2), unit([5, 0, 5]));
    const turned = rig(parts, [
      { kind: 'aim', part: 'lamp', target: 'boat' },
      { kind: 'chase', part: 'lamp', target: 'cart', offset: [0, 0, 5] },
    ]);
    expectNear(turned.axis('lamp', 0, 2), [0, 0, 1]);
  });

  it('a matrix asked for alone is the one of the whole run, for rigs of every kind', () => {
    const frame = fc.double({ min: -10, max: 110, noNaN: true });
    const all = riggedProject(
      [
        partOfRig('cart', { rest: { scale: [1, 2, 1] } }),
        partOfRig('root', { parent: 'cart', rest: { translate: [0, 2, 0] } }),
        partOfRig('middle', { parent: 'root', rest: { translate: [2, 0, 0], rotate: [0, 0, 20] } }),
        partOfRig('tip', { parent: 'middle', rest: { translate: [1.5, 0, 0] } }),
        partOfRig('skip', { rest: { translate: [3, 1, 0] } }),
        partOfRig('lamp', { rest: { translate: [0, 5, 5] } }),
      ],
      [
        { kind: 'heading', part: 'cart', axis: 'x' },
        { kind: 'reach', part: 'root', middle: 'middle', tip: 'tip', target: 'skip' },
        { kind: 'attach', part: 'lamp', target: 'tip', start: 30, end: 60 },
        { kind: 'plant', part: 'lamp', start: 70, end: 80, fade: 10, turn: true },
        { kind: 'aim', part: 'lamp', target: 'skip', lag: { frequency: 2, damping: 0.7, start: 5 } },
      ],
      [line('cart/translate.x', [0, 0], [50, 4], [100, 0]), line('skip/translate.y', [0, 1], [80, 3])],
    );
    const { program } = new Rig(all);
    const out = program.createOutput();
    const alone = new Float64Array(16);
    fc.assert(
      fc.property(frame, fc.nat(5), (at, part) => {
        program.worldMatrix(part, at, alone);
        program.run(at, out);
        expect([...alone]).toEqual([...out.world[part]!]);
      }),
    );
  });

  it('a ring of parts and channels is refused, each named by its id', () => {
    const compiled = compile(
      testProject({
        parts: [partOfRig('boom'), partOfRig('skip')],
        constraints: [{ id: 'c', kind: 'aim', part: 'skip', target: 'boom' }],
        drivers: [{ id: 'd', target: 'boom/rotate.z', kind: 'distance', of: 'skip', to: 'boom' }],
      }),
    );
    expect(compiled.ok ? '' : compiled.problems[0]!.message).toMatch(
      /ring: (boom\/rotate\.z → boom → boom\/rotate\.z|boom → skip → boom\/rotate\.z → boom|skip → boom\/rotate\.z → boom → skip|boom\/rotate\.z → boom → skip → boom\/rotate\.z|boom → boom\/rotate\.z → boom)/,
    );
  });
});

describe('chains of parts', () => {
  it('of twelve, in all turn orders, with negative and uneven sizes, are products of their local matrices', () => {
    const orders = ['XYZ', 'XZY', 'YXZ', 'YZX', 'ZXY', 'ZYX'];
    const number = fc.double({ min: -3, max: 3, noNaN: true });
    const link = fc.record({
      translate: fc.tuple(number, number, number),
      rotate: fc.tuple(number, number, number).map((angles) => angles.map((angle) => angle * 90)),
      scale: fc.tuple(...[0, 1, 2].map(() => fc.constantFrom(-1.5, -1, 0.5, 1, 2))),
      pivot: fc.tuple(number, number, number),
      order: fc.constantFrom(...orders),
    });
    fc.assert(
      fc.property(fc.array(link, { minLength: 12, maxLength: 12 }), (links) => {
        const parts = links.map(({ translate, rotate, scale, pivot, order }, i) =>
          partOfRig(`p${i}`, {
            parent: i === 0 ? null : `p${i - 1}`,
            rest: { translate, rotate, scale },
            pivot,
            turnOrder: order,
          }),
        );
        const expected = mat4.create();
        for (const { translate, rotate, scale, pivot, order } of links) {
          mat4.translate(expected, expected, translate);
          mat4.translate(expected, expected, pivot);
          for (const axis of order) {
            const i = 'XYZ'.indexOf(axis);
            mat4.rotate(expected, expected, (rotate[i]! * Math.PI) / 180, [
              i === 0 ? 1 : 0,
              i === 1 ? 1 : 0,
              i === 2 ? 1 : 0,
            ]);
          }
          mat4.scale(expected, expected, scale);
          mat4.translate(
            expected,
            expected,
            pivot.map((each) => -each),
          );
        }
        const actual = rig(parts, []).world('p11', 0);
        const size = Math.max(...[...expected].map(Math.abs));
        // gl-matrix works in single precision unless its arrays are told otherwise.
        expectNear([...actual], [...expected], 3e-5 * size);
      }),
      { numRuns: 40 },
    );
  });
});
