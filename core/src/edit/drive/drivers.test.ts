import { curveOf } from '../curves';
import type { Part, Project } from '../../project';
import { compile } from '../../evaluate';
import { keyValues } from '../keys';
import { newPart } from '../new-part';
import { newProject } from '../new-project';
import { areDriversBaked, bakeDrivers, unbakeDrivers } from './bake-drivers';
import { addDriver, changeDriver, moveDriver, removeDriver } from './drivers';
import { echoRow } from './echo-row';

const blocks: Project = keyValues(
  { ...newProject('p', 'P'), parts: ['a', 'b', 'c'].map((id): Part => ({ ...newPart('box', id), id })) },
  [
    { channel: 'a/translate.y', frame: 20, value: 3 },
    { channel: 'a/translate.y', frame: 94, value: 0.5 },
    { channel: 'a/translate.y', frame: 100, value: 0.9 },
    { channel: 'a/translate.y', frame: 106, value: 0.5 },
    { channel: 'b/translate.y', frame: 0, value: 7 },
  ],
);

function valueOf(project: Project, channel: string, frame: number): number {
  const program = compile(project);
  if (!program.ok) throw new Error(JSON.stringify(program.problems));
  return program.value.channelValue(program.value.structure.slots.get(channel)!, frame);
}

function echoed(): Project {
  const made = addDriver(blocks, 'echo', 'b/translate.y', {
    input: 'a/translate.y',
    delay: 3,
    gain: 0.28,
    from: 94,
  });
  if (!made.ok) throw new Error('refused');
  return made.value.project;
}

describe('drivers by hand', () => {
  it('are added after those of a channel, with what is not said as it is by default', () => {
    const project = echoed();
    expect(project.drivers).toEqual([
      expect.objectContaining({ kind: 'echo', combine: 'replace', muted: false, to: null, gain: 0.28 }),
    ]);
    expect(valueOf(project, 'b/translate.y', 96.9)).toBe(valueOf(project, 'b/translate.y', 0));
    const rest = valueOf(project, 'b/translate.y', 50);
    expect(valueOf(project, 'b/translate.y', 103) - rest).toBeCloseTo(0.28 * (0.9 - 0.5), 12);
  });

  it('are refused where they would run in a ring, naming its members', () => {
    const ring = addDriver(echoed(), 'follow', 'a/translate.y', {
      input: 'b/translate.y',
      frequency: 1,
      damping: 1,
      start: 0,
      loop: null,
    });
    expect(ring.ok ? '' : ring.problems[0]!.message).toMatch(
      /a\/translate\.y.*b\/translate\.y|b\/translate\.y.*a\/translate\.y/,
    );
    const { id } = echoed().drivers[0]!;
    const wrong = changeDriver(echoed(), id, { to: 90 });
    expect(wrong.ok ? '' : wrong.problems[0]!.message).toMatch(/from must be less than to/);
  });

  it('act in order, which can be changed, and are taken away one by one', () => {
    const second = addDriver(echoed(), 'expression', 'b/translate.y', { inputs: {}, expression: '4' });
    if (!second.ok) throw new Error('refused');
    const { project, id } = second.value;
    expect(valueOf(project, 'b/translate.y', 50)).toBe(4);
    const first = project.drivers[0]!.id;
    expect(moveDriver(project, id, -1).drivers.map((driver) => driver.id)).toEqual([id, first]);
    expect(moveDriver(project, id, 1)).toBe(project);
    expect(removeDriver(project, id).drivers.map((driver) => driver.id)).toEqual([first]);
  });

  it('become keys on every whole frame, and come back with the keys there were', () => {
    const project = echoed();
    const baked = bakeDrivers(project, 'b/translate.y');
    if (!baked.ok) throw new Error('refused');
    expect(areDriversBaked(baked.value, 'b/translate.y')).toBe(true);
    for (const frame of [0, 96, 101, 103, 120])
      expect(valueOf(baked.value, 'b/translate.y', frame)).toBe(valueOf(project, 'b/translate.y', frame));
    const back = unbakeDrivers(baked.value, 'b/translate.y');
    expect(curveOf(back, 'b/translate.y')!.keys).toEqual(curveOf(project, 'b/translate.y')!.keys);
    expect(back.drivers).toEqual(project.drivers);
    expect(bakeDrivers(project, 'c/translate.y').ok).toBe(false);
  });
});

describe('parts in a row that copy a first one', () => {
  const row = {
    properties: ['translate.y'],
    delay: 3,
    gain: 0.4,
    from: null,
    to: null,
    alternate: false,
    vary: 0,
    seed: 1,
  };

  it('are each later and weaker than the one before', () => {
    const made = echoRow(blocks, 'a', ['b', 'c'], row);
    if (!made.ok) throw new Error('refused');
    expect(made.value.drivers).toEqual([
      expect.objectContaining({ target: 'b/translate.y', input: 'a/translate.y', delay: 3, gain: 0.4 }),
      expect.objectContaining({ target: 'c/translate.y', input: 'a/translate.y', delay: 6, gain: 0.16 }),
    ]);
  });

  it('turn about one by one, and wander by a seed that gives the same again', () => {
    const wild = { ...row, alternate: true, vary: 2 };
    const delays = (seed: number) => {
      const made = echoRow(blocks, 'a', ['b', 'c'], { ...wild, seed });
      return made.ok ? made.value.drivers.map((driver) => (driver.kind === 'echo' ? driver.delay : NaN)) : [];
    };
    expect(delays(5)).toEqual(delays(5));
    expect(delays(5)).not.toEqual(delays(6));
    delays(5).forEach((delay, i) => expect(Math.abs(delay - 3 * (i + 1))).toBeLessThanOrEqual(2));
    expect(echoRow(blocks, 'a', ['b'], { ...row, properties: ['morph.none'] }).ok).toBe(false);
  });
});
