import fc from 'fast-check';
import { compile } from '../evaluate';
import { drivenProject, driver, ratesOf, valuesOf } from '../../testing/driven';
import { programOf, slotOf, testProject } from '../../testing/project';
import { differenceOf, expectClose } from '../../testing/rates';
import { line, partOfRig } from '../../testing/rigged';

const INPUT = 'wagon/translate.y';
const TARGET = 'wagon/translate.x';
const RAMP = line(INPUT, [0, 2], [20, 12]);

describe('echo', () => {
  it('stands exactly still up to from + delay, and copies only what happens after', () => {
    const at = valuesOf(
      drivenProject(driver('echo', { input: INPUT, delay: 3, gain: 2, from: 5, to: 15 }), [RAMP]),
      TARGET,
    );
    expect([0, 8, 10, 18, 40].map(at)).toEqual([0, 0, 2, 10, 10]);
    const rates = ratesOf(
      programOf(drivenProject(driver('echo', { input: INPUT, delay: 3, gain: 2, from: 5, to: 15 }), [RAMP])),
      TARGET,
    );
    expect([7, 8, 17.9, 18].map((frame) => Math.round(rates(frame / 24)[1] * 1e6) / 1e6)).toEqual([
      0, 24, 24, 0,
    ]);
  });

  it('refuses a span that is none', () => {
    expect(() => drivenProject(driver('echo', { input: INPUT, from: 4, to: 4 }))).toThrow(
      /from must be less than to/,
    );
  });
});

describe('map', () => {
  const curve = {
    keys: [
      { frame: 2, value: 0 },
      { frame: 7, value: 10 },
      { frame: 12, value: -4 },
    ],
    after: { mode: 'loop' },
  };

  it('reads a curve at the input’s value, by its legs and outsides', () => {
    const mapped = valuesOf(drivenProject(driver('map', { input: INPUT, curve }), [RAMP]), TARGET);
    const over = valuesOf(testProject({}, [{ channel: TARGET, ...curve }]), TARGET);
    for (const frame of [0, 3, 11.5, 20]) expectClose(mapped(frame), over(2 + frame / 2), 1e-13);
  });

  it('has exact rates, also where the input runs backward', () => {
    const back = line(INPUT, [0, 11.5], [20, 2.5]);
    for (const way of [RAMP, back]) {
      const rates = ratesOf(programOf(drivenProject(driver('map', { input: INPUT, curve }), [way])), TARGET);
      for (const seconds of [0.11, 0.37, 0.7]) {
        const [, v, a] = rates(seconds);
        const [n1, n2] = differenceOf(rates, seconds, 1e-4);
        expectClose(v, n1, 1e-6);
        expectClose(a, n2, 1e-5);
      }
    }
  });

  it('refuses a free fall', () => {
    const falling = {
      keys: [
        { frame: 0, value: 0, leg: { kind: 'ballistic' } },
        { frame: 1, value: 1 },
      ],
    };
    expect(() => drivenProject(driver('map', { input: INPUT, curve: falling }))).toThrow(/needs seconds/);
  });
});

describe('follow', () => {
  it('reads its input after all of its drivers, and adds what it goes from rest', () => {
    const drivers = [
      driver(
        'expression',
        { inputs: { y: INPUT }, expression: '2 * y' },
        { id: 'a', target: 'wagon/translate.z' },
      ),
      driver('follow', { input: 'wagon/translate.z', frequency: 1, damping: 1 }, { combine: 'add' }),
    ];
    const added = valuesOf(drivenProject(drivers, [RAMP, line(TARGET, [0, 3])]), TARGET);
    const once = valuesOf(
      drivenProject(driver('follow', { input: INPUT, frequency: 1, damping: 1 }), [RAMP]),
      TARGET,
    );
    for (const frame of [0, 7.5, 30]) expectClose(added(frame), 3 + 2 * once(frame), 1e-12);
  });

  it('has exact rates, and fails undamped in step with its loop', () => {
    const rates = ratesOf(
      programOf(drivenProject(driver('follow', { input: INPUT, frequency: 2, damping: 0.3 }), [RAMP])),
      TARGET,
    );
    const [, v, a, j] = rates(0.36);
    const [n1, n2, n3] = differenceOf(rates, 0.36, 1e-4);
    expectClose(v, n1, 1e-6);
    expectClose(a, n2, 1e-5);
    expectClose(j, n3, 1e-4);
    const program = programOf(
      drivenProject(driver('follow', { input: INPUT, frequency: 1, damping: 0, loop: 24 }), [RAMP]),
    );
    const out = program.createOutput();
    program.run(5, out);
    expect([out.channels[slotOf(program, TARGET)], out.failed[0]]).toEqual([0, 5]);
  });
});

describe('distance', () => {
  const parts = [
    partOfRig('wagon', { pivot: [1, 0, 0] }),
    partOfRig('boom', { rest: { rotate: [0, 0, 90], translate: [0, 2, 0] } }),
    partOfRig('skip', { parent: 'boom', rest: { translate: [3, 0, 0] } }),
  ];
  const measured = (more: object, curves: readonly object[] = []) =>
    testProject(
      {
        parts,
        drivers: [
          { id: 'd', target: 'wagon/translate.z', kind: 'distance', of: 'boom', to: 'skip', ...more },
        ],
      },
      curves,
    );

  it('is metres between pivots, or how far along an axis', () => {
    expectClose(valuesOf(measured({}), 'wagon/translate.z')(0), 3, 1e-14);
    expectClose(valuesOf(measured({ axis: '-x' }), 'wagon/translate.z')(0), -3, 1e-14);
    expectClose(valuesOf(measured({ axis: 'y' }), 'wagon/translate.z')(0), 0, 1e-14);
  });

  it('has rates by differences, right-sided at a key', () => {
    const swing = [
      {
        channel: 'skip/translate.y',
        keys: [
          { frame: 0, value: 0 },
          { frame: 12, value: 2 },
          { frame: 30, value: -1 },
        ],
      },
    ];
    const program = programOf(measured({}, swing));
    const rates = ratesOf(program, 'wagon/translate.z');
    const exact = ratesOf(
      programOf(
        testProject(
          {
            parts,
            drivers: [
              {
                id: 'e',
                target: 'wagon/translate.z',
                kind: 'expression',
                inputs: { y: 'skip/translate.y' },
                expression: 'hypot(3, y)',
              },
            ],
          },
          swing,
        ),
      ),
      'wagon/translate.z',
    );
    for (const frame of [0, 5.9, 12, 20.25]) {
      const [v, d1, d2, d3] = rates(frame / 24);
      const [w, e1, e2, e3] = exact(frame / 24);
      expectClose(v, w, 1e-13);
      expectClose(d1, e1, 1e-7);
      expectClose(d2, e2, 1e-5);
      expectClose(d3, e3, 1e-3);
    }
  });

  it('fails along an axis without length', () => {
    const flat = testProject({
      parts: [partOfRig('wagon'), partOfRig('boom', { rest: { scale: [0, 1, 1] } }), partOfRig('skip')],
      drivers: [
        { id: 'd', target: 'wagon/translate.z', kind: 'distance', of: 'boom', to: 'skip', axis: 'x' },
      ],
    });
    const program = programOf(flat);
    const out = program.createOutput();
    program.run(0, out);
    expect(out.failed[0]).toBe(4);
  });
});

describe('many drivers', () => {
  it('a ladder in which each reads the one before twice costs what its length does', () => {
    const name = (i: number) => `wagon/custom.c${i}`;
    const count = 60;
    const custom = Array.from({ length: count + 1 }, (_, i) => ({ name: `c${i}`, value: 0 }));
    const parts = [partOfRig('wagon', { custom })];
    const ladder = (kind: (i: number) => object[]) =>
      testProject({ parts, drivers: Array.from({ length: count }, (_, i) => kind(i + 1)).flat() }, [
        line(name(0), [0, 0], [100, 1]),
      ]);
    const doubled = programOf(
      ladder((i) => [
        {
          id: `e${i}`,
          target: name(i),
          kind: 'expression',
          inputs: { a: name(i - 1), b: name(i - 1) },
          expression: '(a + b) / 2',
        },
      ]),
    );
    expectClose(doubled.channelRates(slotOf(doubled, name(count)), 50)[1], 0.24, 1e-12);
    const echoes = programOf(
      ladder((i) => [
        { id: `e${i}`, target: name(i), kind: 'echo', input: name(i - 1), delay: 1, gain: 0.5 },
        {
          id: `f${i}`,
          target: name(i),
          kind: 'echo',
          input: name(i - 1),
          delay: 1.5,
          gain: 0.5,
          combine: 'add',
        },
      ]),
    );
    const slot = slotOf(echoes, name(count));
    expectClose(echoes.channelValue(slot, 99.9), (99.9 - 1.25 * count) / 100, 1e-3);
    expect(echoes.channelRates(slot, 99.9)[1]).toBeGreaterThan(0);
  });

  it('a chain of ten thousand runs without a call stack of its own', () => {
    const count = 10_000;
    const custom = Array.from({ length: count + 1 }, (_, i) => ({ name: `c${i}`, value: 0 }));
    const drivers = Array.from({ length: count }, (_, i) => ({
      id: `e${i}`,
      target: `wagon/custom.c${i + 1}`,
      kind: 'expression',
      inputs: { a: `wagon/custom.c${i}` },
      expression: 'a + 1',
    }));
    const program = programOf(testProject({ parts: [partOfRig('wagon', { custom })], drivers }));
    const slot = slotOf(program, `wagon/custom.c${count}`);
    expect(program.channelValue(slot, 3)).toBe(count);
    expect(program.channelRates(slot, 3)).toEqual([count, 0, 0, 0]);
    const deep = compile(
      testProject({
        parts: [partOfRig('wagon', { custom })],
        drivers: drivers.slice(0, 300).map((each, i) => ({
          id: each.id,
          target: each.target,
          kind: 'echo',
          input: `wagon/custom.c${i}`,
          delay: 1,
        })),
      }),
    );
    expect(deep.ok ? '' : deep.problems[0]!.message).toMatch(/299 deep|300 deep/);
  });

  it('outputs of one mechanism are solved once and agree with solving each alone', () => {
    const params = { ground: 1, crank: 0.3, coupler: 0.9, rocker: 0.7 };
    const bar = (id: string, target: string, output: string) => ({
      id,
      target: `wagon/${target}`,
      kind: 'linkage',
      linkage: 'four-bar',
      inputs: { angle: INPUT },
      output,
      params,
    });
    const both = [bar('a', 'rotate.x', 'rocker'), bar('b', 'rotate.y', 'coupler')];
    const together = drivenProject(both, [line(INPUT, [0, 0], [100, 900])]);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 100, noNaN: true }), (frame) => {
        for (const [i, property] of ['rotate.x', 'rotate.y'].entries()) {
          const alone = drivenProject(both[i]!, [line(INPUT, [0, 0], [100, 900])]);
          expect(valuesOf(together, `wagon/${property}`)(frame)).toBe(
            valuesOf(alone, `wagon/${property}`)(frame),
          );
        }
      }),
      { numRuns: 20 },
    );
  });
});
