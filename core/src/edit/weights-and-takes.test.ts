import { type Project } from '../project';
import { readProject, writeProject } from '../file';
import { repeatedKeys } from '../curve';
import { testProject, valueAt } from '../../testing/project';
import {
  addTreatment,
  changeRateKeepingSeconds,
  copyKeys,
  curveOf,
  dropTake,
  keepTake,
  keysAsTable,
  keyTable,
  keyValues,
  moveKeys,
  moveTreatment,
  newTreatment,
  otherTakeAsCurve,
  pasteKeys,
  pasteOntoParts,
  readKeyTable,
  removeTreatment,
  setOutside,
  setTreatment,
  switchTake,
  weightChannel,
  weightCurve,
} from '.';

const RUN = 'wagon/translate.x';
const WEIGHT = weightChannel(RUN, 0);
const keys = [
  { frame: 0, value: 0 },
  { frame: 10, value: 2, out: { mode: 'set', slope: 0.1 } },
  { frame: 20, value: 1 },
];
const project = (more: object = {}) => testProject({}, [{ channel: RUN, keys, ...more }]);
const gain = { kind: 'gain', factor: 3, about: 0 } as const;
const weighted = () => project({ treatments: [{ ...gain, weight: weightCurve(1, 0, 20) }] });

describe('treatments', () => {
  it('are laid on, moved, set and taken away, each edit leaving the others the same objects', () => {
    const noisy = addTreatment(project(), RUN, newTreatment('noise', 0.2));
    const both = addTreatment(noisy, RUN, newTreatment('clamp', 0));
    const [noise, clamp] = curveOf(both, RUN)!.treatments;
    expect(curveOf(moveTreatment(both, RUN, 1, 0).project, RUN)!.treatments).toEqual([clamp, noise]);
    expect(moveTreatment(both, RUN, 0, 5).project).toBe(both);
    const set = setTreatment(both, RUN, 1, { ...clamp!, muted: true });
    expect(curveOf(set, RUN)!.treatments[0]).toBe(noise);
    expect(curveOf(removeTreatment(set, RUN, 1).project, RUN)!.treatments).toEqual([noise]);
  });

  it('the order in which they lie counts', () => {
    const clamp = { ...newTreatment('clamp', 0), max: 1 } as ReturnType<typeof newTreatment>;
    const laid = addTreatment(addTreatment(project(), RUN, clamp), RUN, { ...gain, weight: 1, muted: false });
    expect(valueAt(laid, RUN, 10)).toBe(3);
    expect(valueAt(moveTreatment(laid, RUN, 1, 0).project, RUN, 10)).toBe(1);
  });
});

describe('a weight over time', () => {
  it('is a curve that is found and changed like a channel’s, inside its treatment', () => {
    expect(curveOf(weighted(), WEIGHT)!.keys.map(({ value }) => value)).toEqual([1, 1]);
    const faded = keyValues(weighted(), [{ channel: WEIGHT, frame: 20, value: 0 }]);
    expect(valueAt(faded, RUN, 0)).toBe(0);
    expect(valueAt(faded, RUN, 20)).toBe(1);
    expect(valueAt(faded, RUN, 10)).toBeCloseTo(2 + 0.5 * 4, 12);
    expect(curveOf(faded, RUN)!.keys).toEqual(curveOf(weighted(), RUN)!.keys);
    const moved = moveKeys(faded, [{ channel: WEIGHT, frame: 20 }], { frames: -8, value: 0.25 }).project;
    expect(curveOf(moved, WEIGHT)!.keys.at(-1)).toMatchObject({ frame: 12, value: 0.25 });
    const looping = setOutside(moved, [WEIGHT], 'after', { mode: 'swing' });
    expect(curveOf(looping, WEIGHT)!.after.mode).toBe('swing');
  });

  it('is not there where the weight is a number, and survives the file', () => {
    expect(curveOf(project({ treatments: [gain] }), WEIGHT)).toBeUndefined();
    const read = readProject(writeProject(weighted()));
    expect(read.ok && curveOf(read.value, WEIGHT)!.keys).toHaveLength(2);
  });
});

describe('two takes', () => {
  const changed = (of: Project) =>
    moveKeys(of, [{ channel: RUN, frame: 10 }], { frames: 0, value: 1 }).project;

  it('are kept, switched back and forth, and dropped', () => {
    const two = changed(keepTake(project(), [RUN]));
    expect(valueAt(two, RUN, 10)).toBe(3);
    expect(otherTakeAsCurve(curveOf(two, RUN)!)!.keys[1]!.value).toBe(2);
    const back = switchTake(two, [RUN]);
    expect(valueAt(back, RUN, 10)).toBe(2);
    expect(valueAt(switchTake(back, [RUN]), RUN, 10)).toBe(3);
    expect(curveOf(dropTake(back, [RUN]), RUN)).not.toHaveProperty('otherTake');
    expect(switchTake(project(), [RUN])).toEqual(project());
  });

  it('stand in the file, and go along when the rate changes', () => {
    const two = changed(keepTake(project(), [RUN]));
    const read = readProject(writeProject(two));
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(read.value).toEqual(two);
    const doubled = changeRateKeepingSeconds(two, { frames: 48, per: 1 }).project;
    expect(curveOf(doubled, RUN)!.otherTake!.keys.map(({ frame }) => frame)).toEqual([0, 20, 40]);
  });

  it('a take with keys in disorder is refused with its place', () => {
    const bad = {
      keys: [
        { frame: 5, value: 0 },
        { frame: 5, value: 1 },
      ],
    };
    const text = JSON.stringify({
      format: 'kaizen',
      version: 1,
      id: 'p',
      name: 'P',
      rate: { frames: 24, per: 1 },
      range: { start: 0, end: 10 },
      parts: [{ id: 'wagon', name: 'Wagon', kind: 'group' }],
      clips: [{ id: 'main', name: 'Main', curves: [{ channel: RUN, keys: [], otherTake: bad }] }],
      activeClip: 'main',
    });
    const read = readProject(text);
    expect(!read.ok && read.problems[0]!.pointer).toBe('/clips/0/curves/0/otherTake/keys/1/frame');
  });
});

describe('pasting', () => {
  const two = () =>
    testProject(
      {
        parts: [
          { id: 'wagon', name: 'Wagon', kind: 'group' },
          { id: 'cart', name: 'Cart', kind: 'group' },
        ],
      },
      [{ channel: RUN, keys }],
    );
  const copied = () =>
    copyKeys(
      two(),
      [10, 20].map((frame) => ({ channel: RUN, frame })),
    );
  const pasted = (...args: Parameters<typeof pasteKeys> extends [Project, ...infer Rest] ? Rest : never) =>
    curveOf(pasteKeys(two(), ...args).project, args[2]?.[0] ?? RUN)!.keys;

  it('puts keys down as they are, negated with their slopes, or shifted to a value', () => {
    expect(pasted(copied(), 30).slice(-2)).toMatchObject([
      { frame: 30, value: 2 },
      { frame: 40, value: 1 },
    ]);
    expect(pasted(copied(), 30, [], { times: -1 }).slice(-2)).toMatchObject([
      { value: -2, out: { slope: -0.1 } },
      { value: -1 },
    ]);
    expect(pasted(copied(), 30, [], { times: 0.5, startAt: () => 7 }).slice(-2)).toMatchObject([
      { value: 7, out: { slope: 0.05 } },
      { value: 6.5 },
    ]);
  });

  it('goes onto other channels, and onto other parts by the names of their channels', () => {
    expect(pasted(copied(), 0, ['cart/translate.z']).map(({ value }) => value)).toEqual([2, 1]);
    const onto = pasteOntoParts(two(), copied(), 5, ['cart']);
    expect(onto.refs).toEqual([5, 15].map((frame) => ({ channel: 'cart/translate.x', frame })));
    expect(curveOf(onto.project, 'cart/translate.x')!.keys.map(({ value }) => value)).toEqual([2, 1]);
  });

  it('leaves out channels that the other part does not have', () => {
    const lamp = testProject(
      {
        parts: [
          { id: 'lamp', name: 'Lamp', kind: 'light' },
          { id: 'cart', name: 'Cart', kind: 'group' },
        ],
      },
      ['light.intensity', 'translate.y'].map((property) => ({ channel: `lamp/${property}`, keys })),
    );
    const refs = ['light.intensity', 'translate.y'].map((property) => ({
      channel: `lamp/${property}`,
      frame: 0,
    }));
    const onto = pasteOntoParts(lamp, copyKeys(lamp, refs), 5, ['cart', 'nobody']);
    expect(onto.refs).toEqual([{ channel: 'cart/translate.y', frame: 5 }]);
    expect(readProject(writeProject(onto.project)).ok).toBe(true);
  });
});

describe('keys as a table', () => {
  it('are written with frames and seconds, and read back the same', () => {
    const refs = keys.map(({ frame }) => ({ channel: RUN, frame }));
    const text = keysAsTable(project(), refs);
    expect(text.split('\n').slice(0, 3)).toEqual([`frame\tseconds\t${RUN}`, '0\t0\t0', `10\t${10 / 24}\t2`]);
    const read = readKeyTable(text, { frames: 24, per: 1 });
    expect(read).toEqual({
      rows: keys.map(({ frame, value }) => ({ frame, value })),
      seconds: false,
      wrong: [],
    });
    const again = keyTable(testProject({}, []), [RUN], read.rows);
    expect(curveOf(again, RUN)!.keys.map(({ frame, value }) => ({ frame, value }))).toEqual(read.rows);
  });

  it.each([
    [
      '0\t1\n12\t2,5\n',
      [
        [0, 1],
        [12, 2.5],
      ],
      false,
    ],
    [
      '0;1\n12;2.5',
      [
        [0, 1],
        [12, 2.5],
      ],
      false,
    ],
    [
      '0, 1\r\n12, 2.5\r\n',
      [
        [0, 1],
        [12, 2.5],
      ],
      false,
    ],
    [
      'time\tlift\n0\t1\n0.5\t−2',
      [
        [0, 1],
        [12, -2],
      ],
      true,
    ],
  ] as const)('reads %j', (text, rows, seconds) => {
    const read = readKeyTable(text, { frames: 24, per: 1 });
    expect(read.rows.map(({ frame, value }) => [frame, value])).toEqual(rows);
    expect(read.seconds).toBe(seconds);
  });

  it('tells lines that are no two numbers, and takes seconds where it is told to', () => {
    const read = readKeyTable('1\t1\nfull\tstop\n2\t3\n4', { frames: 24, per: 1 }, true);
    expect(read.rows).toEqual([
      { frame: 24, value: 1 },
      { frame: 48, value: 3 },
    ]);
    expect(read.wrong).toEqual([2, 4]);
  });
});

describe('repeated keys', () => {
  const curve = (after: object, before: object = { mode: 'hold' }) =>
    curveOf(project({ after, before }), RUN)!;
  const listed = (after: object, from: number, to: number) =>
    repeatedKeys(curve(after), from, to).map(({ frame, value, of }) => [frame, value, of]);

  it('show where a loop, a carried loop and a swing have them, each with the key that it repeats', () => {
    expect(listed({ mode: 'loop' }, 0, 45)).toEqual([
      [30, 2, 10],
      [40, 1, 20],
    ]);
    expect(listed({ mode: 'loop-carry' }, 0, 45)).toEqual([
      [30, 3, 10],
      [40, 2, 20],
    ]);
    expect(listed({ mode: 'swing' }, 0, 45)).toEqual([
      [30, 2, 10],
      [40, 0, 0],
    ]);
  });

  it('begin at a pin, end with a count, and are only those in sight', () => {
    expect(listed({ mode: 'loop-carry', pin: 10 }, 0, 45)).toEqual([
      [30, 0, 20],
      [40, -1, 20],
    ]);
    expect(listed({ mode: 'loop', count: 1.5 }, 0, 90).map(([frame]) => frame)).toEqual([30, 40, 50]);
    expect(listed({ mode: 'loop' }, 1000, 1021).map(([frame]) => frame)).toEqual(
      [1010, 1000, 1020].sort((a, b) => a - b),
    );
    expect(
      repeatedKeys(curve({ mode: 'hold' }, { mode: 'loop' }), -25, 0)
        .map(({ frame }) => frame)
        .sort((a, b) => a - b),
    ).toEqual([-20, -10]);
  });
});
