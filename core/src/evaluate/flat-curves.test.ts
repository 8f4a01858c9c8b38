import fc from 'fast-check';
import { compile, type Program } from './program';
import {
  curveOf,
  deleteKeys,
  insertKeys,
  keyValues,
  moveKeys,
  setCurveFlag,
  setLeg,
  setOutside,
  setRestValue,
} from '../edit';
import { OUTSIDE_MODES, withMore, type Leg, type Project } from '../project';
import { curveValue } from '../curve';
import { programOf, slotOf, testProject } from '../../testing/project';

const CHANNELS = ['wagon/translate.x', 'wagon/rotate.y', 'wagon/scale.z'];
const LEGS: readonly Leg[] = [
  { kind: 'curve' },
  { kind: 'hold' },
  { kind: 'ballistic' },
  { kind: 'ease', family: 'bounce', slow: 'end' },
  { kind: 'law', law: 's-curve' },
];

const side = fc.record({
  mode: fc.constantFrom('smooth', 'bounded', 'flat', 'linear', 'set'),
  slope: fc.double({ min: -1, max: 1, noNaN: true }),
  reach: fc.constantFrom(1 / 3, 0.2, 0.9),
});
const key = fc.record({
  value: fc.double({ min: -5, max: 5, noNaN: true }),
  in: side,
  out: side,
  leg: fc.constantFrom(...LEGS),
  joined: fc.constant(false),
});
const outside = fc.record({ mode: fc.constantFrom(...OUTSIDE_MODES) });
const curve = fc.record({
  keys: fc.array(key, { minLength: 1, maxLength: 5 }),
  before: outside,
  after: outside,
  muted: fc.boolean(),
  treatments: fc.constantFrom([], [{ kind: 'delay', frames: 3 }]),
});

function projectWith(curves: readonly { readonly keys: readonly object[] }[]): Project {
  return testProject(
    {},
    curves.map((each, i) => ({
      ...each,
      channel: CHANNELS[i],
      keys: each.keys.map((entry, k) => ({ ...entry, frame: k * 10 })),
    })),
  );
}

/** What a run gives for each curve, against what the curve alone says, at frames in any order. */
function expectRunsAsAlone(program: Program, frames: readonly number[]): void {
  const out = program.createOutput();
  for (const frame of frames) {
    program.run(frame, out);
    const alone = Array.from(out.channels.keys(), (slot) => program.channelValue(slot, frame));
    expect([...out.channels]).toEqual(alone);
  }
}

describe('running a frame', () => {
  it('fills an output that was made for an earlier state of the project', () => {
    const before = projectWith([{ keys: [{ value: 1 }] }]);
    const out = programOf(before).createOutput();
    const parts = [...before.parts, { ...before.parts[0]!, id: 'crane' }];
    const driver = { id: 'd', target: 'crane/rotate.y', kind: 'expression', expression: '7', inputs: {} };
    const after = programOf({
      ...before,
      parts,
      drivers: [{ ...driver, combine: 'replace', muted: false }],
    } as unknown as Project);
    after.run(0, out);
    expect(out.channels[after.structure.slots.get('crane/rotate.y')!]).toBe(7);
    expect(out.world).toHaveLength(2);
    expect([...out.failed]).toEqual([0]);
  });

  it('gives each curve the very value it has alone, at frames in any order, within and outside its keys', () => {
    const frames = fc.array(fc.double({ min: -60, max: 120, noNaN: true }), { minLength: 3, maxLength: 12 });
    fc.assert(
      fc.property(fc.array(curve, { minLength: 1, maxLength: 3 }), frames, (curves, at) => {
        expectRunsAsAlone(programOf(projectWith(curves)), [0, 10, 20, ...at]);
      }),
    );
  });

  const drawnParts = (seed: number, parts: number): Project => {
    const drawn = fc.sample(fc.array(curve, { minLength: 3, maxLength: 3 }), { seed, numRuns: parts });
    const { parts: wagons, ...rest } = projectWith([]);
    const curves = drawn.flatMap((each, p) =>
      projectWith(each).clips[0]!.curves.map((made) => ({
        ...made,
        channel: made.channel.replace('wagon', `wagon-${p}`),
      })),
    );
    return {
      ...rest,
      parts: drawn.map((_, p) => ({ ...wagons[0]!, id: `wagon-${p}` })),
      clips: [{ id: 'main', name: 'Main', curves }],
    };
  };

  it('does so for hundreds of curves at once, where projects run by turns', () => {
    const programs = [drawnParts(7, 101), drawnParts(8, 90)].map(programOf);
    for (const at of [
      [0, 0.5, 1, 5],
      [9.5, 10.25, 40],
      [-300, 33.1, 12],
    ])
      for (const program of programs) expectRunsAsAlone(program, at);
  });

  it('does so through edits of hundreds of curves, where some are added, taken out and come back', () => {
    const step = fc.record({
      edit: fc.constantFrom('key', 'first key', 'out', 'part', 'rest', 'back'),
      part: fc.nat(99),
      frame: fc.double({ min: -20, max: 60, noNaN: true }),
    });
    const start = drawnParts(9, 87);
    const edited = (
      project: Project,
      { edit, part, frame }: { edit: string; part: number; frame: number },
    ): Project => {
      const id = project.parts[part % project.parts.length]!.id;
      if (edit === 'key') return keyValues(project, [{ channel: `${id}/translate.x`, frame, value: frame }]);
      if (edit === 'first key') return keyValues(project, [{ channel: `${id}/rotate.x`, frame, value: 1 }]);
      if (edit === 'rest') return setRestValue(project, id, 'translate.z', frame);
      if (edit === 'part')
        return {
          ...project,
          parts: withMore(project.parts, { ...project.parts[0]!, id: `more-${project.parts.length}` }),
        };
      const keys = curveOf(project, `${id}/rotate.y`)?.keys ?? [];
      return deleteKeys(
        project,
        keys.map((key) => ({ channel: `${id}/rotate.y`, frame: key.frame })),
      );
    };
    fc.assert(
      fc.property(fc.array(step, { minLength: 2, maxLength: 8 }), (steps) => {
        const history = [{ project: start, program: programOf(start) }];
        for (const each of steps) {
          const { project, program } = history.at(-1)!;
          const next =
            each.edit === 'back' ? history[each.part % history.length]!.project : edited(project, each);
          const compiled = compile(next, { previous: program });
          if (!compiled.ok) throw new Error('does not compile');
          history.push({ project: next, program: compiled.value });
          expectRunsAsAlone(compiled.value, [each.frame]);
        }
        expectRunsAsAlone(history[0]!.program, [3]);
      }),
      { numRuns: 40 },
    );
  });

  it('keeps the sign of a held zero', () => {
    const held = { kind: 'hold' };
    const keys = [-0, 0].map((value, i) => ({ frame: i * 10, value, leg: held }));
    expectRunsAsAlone(programOf(testProject({}, [{ channel: CHANNELS[0], keys }])), [0, 5, 10, 20]);
  });

  const AT = [0, 3, 9.5, 10, 14, 25, 31, 47, -4];
  const base = testProject(
    {},
    CHANNELS.map((channel, c) => ({
      channel,
      keys: [0, 10, 20, 30].map((frame) => ({ frame, value: frame * (c + 1) })),
    })),
  );
  const ref = (frame: number, channel = CHANNELS[0]!) => ({ channel, frame });
  const edits: readonly (readonly [string, (project: Project) => Project])[] = [
    ['a key moved', (project) => moveKeys(project, [ref(10)], { frames: 2, value: 5 }).project],
    [
      'keys added, more than there was room for',
      (project) =>
        insertKeys(
          project,
          [1, 2, 3, 4, 5, 6, 7, 8].map((frame) => ref(frame)),
        ),
    ],
    ['a key taken', (project) => deleteKeys(project, [ref(20)])],
    ['all but one taken', (project) => deleteKeys(project, [ref(10), ref(20), ref(30)])],
    ['a leg held', (project) => setLeg(project, [ref(10)], { kind: 'hold' })],
    ['a leg by a law', (project) => setLeg(project, [ref(0)], { kind: 'law', law: 'cycloidal' })],
    ['looped', (project) => setOutside(project, [CHANNELS[1]!], 'after', { mode: 'loop-carry' })],
    ['muted', (project) => setCurveFlag(project, [CHANNELS[2]!], 'muted', true)],
    ['another channel keyed', (project) => keyValues(project, [{ ...ref(5, 'wagon/scale.x'), value: 3 }])],
  ];

  it.each(edits)(
    'after an edit, %s: the new program and the old one both give their own values',
    (_, edit) => {
      const before = programOf(base);
      expectRunsAsAlone(before, AT);
      const edited = compile(edit(base), { previous: before });
      if (!edited.ok) throw new Error('does not compile');
      expectRunsAsAlone(edited.value, AT);
      expectRunsAsAlone(before, AT);
      expectRunsAsAlone(edited.value, [...AT].reverse());
    },
  );

  it('takes over every curve that did not change', () => {
    const before = programOf(base);
    const edited = compile(moveKeys(base, [ref(10)], { frames: 1, value: 0 }).project, { previous: before });
    if (!edited.ok) throw new Error('does not compile');
    expect(edited.value.structure).toBe(before.structure);
    const slots = CHANNELS.map((channel) => slotOf(before, channel));
    expect(slots.map((slot) => edited.value.curveAt(slot) === before.curveAt(slot))).toEqual([
      false,
      true,
      true,
    ]);
    expect(compile(base, { previous: before })).toEqual({ ok: true, value: before });
  });
});

describe('one part at any frame', () => {
  const project = testProject(
    {
      parts: [
        { id: 'arm', name: 'Arm', kind: 'group', parent: 'mast', pivot: [0, 1, 0], squash: { axis: 'y' } },
        { id: 'mast', name: 'Mast', kind: 'group', rest: { translate: [1, 2, 3], scale: [2, 1, 1] } },
        { id: 'hook', name: 'Hook', kind: 'group', parent: 'arm', turnOrder: 'ZXY' },
      ],
      drivers: [
        { id: 'd', target: 'hook/rotate.x', kind: 'echo', input: 'mast/rotate.y', delay: 4, gain: -0.5 },
      ],
    },
    [
      {
        channel: 'mast/rotate.y',
        keys: [
          { frame: 0, value: 0 },
          { frame: 40, value: 370 },
        ],
      },
      {
        channel: 'arm/squash',
        keys: [
          { frame: 0, value: 0 },
          { frame: 40, value: -0.4 },
        ],
      },
      {
        channel: 'arm/rotate.z',
        keys: [
          { frame: 0, value: -20 },
          { frame: 40, value: 80 },
        ],
      },
    ],
  );

  it('has the matrix that a run gives it, parents, drivers, pivot and squash included', () => {
    const program = programOf(project);
    const out = program.createOutput();
    const alone = new Float64Array(16);
    fc.assert(
      fc.property(
        fc.double({ min: -10, max: 60, noNaN: true }),
        fc.integer({ min: 0, max: 2 }),
        (frame, part) => {
          program.run(frame, out);
          program.worldMatrix(part, frame, alone);
          alone.forEach((value, i) => expect(value).toBeCloseTo(out.world[part]![i]!, 12));
        },
      ),
    );
  });

  it('and one channel has its curve, where it has one', () => {
    const program = programOf(project);
    const slot = (channel: string) => program.structure.slots.get(channel)!;
    expect(curveValue(program.curveAt(slot('arm/squash'))!, 40)).toBe(-0.4);
    expect(program.curveAt(slot('hook/rotate.x'))).toBeUndefined();
    expect(program.curveAt(-1)).toBeUndefined();
  });
});
