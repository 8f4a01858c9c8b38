import fc from 'fast-check';
import type { Curve, Interlock, Project } from '../../project';
import { readProject, writeProject } from '../../file';
import { compile } from '../../evaluate';
import { curveOf, emptyCurve, newKey } from '../curves';
import { moveKeys } from '../keys';
import { asEdited, type Edit } from '../mapping';
import { newPart } from '../new-part';
import { newProject } from '../new-project';
import { removeParts } from '../remove-parts';
import { changeRateKeepingSeconds } from '../retime-rate';
import { push, stretch } from '../time';
import { addInterlock, changeInterlock, holdInterlocks, interlockStanding, type InterlockWish } from '.';

const SKIP = 'skip/translate.x';
const TIP = 'skip/rotate.z';
const BOARD = 'board/rotate.y';

function curve(channel: string, places: readonly (readonly [number, number])[]): Curve {
  return { ...emptyCurve(channel), keys: places.map(([frame, value]) => newKey(frame, value)) };
}

/** A skip that comes by 132 and leaves at 180; a board that opens at 156 and closes at 240. */
function works(): Project {
  const project = newProject('works', 'Works');
  return {
    ...project,
    range: { start: 0, end: 400, loop: false },
    parts: [newPart('group', 'Skip'), newPart('group', 'Board')].map((part, i) => ({
      ...part,
      id: ['skip', 'board'][i]!,
    })),
    clips: [
      {
        id: 'main',
        name: 'Main',
        curves: [
          curve(SKIP, [
            [60, 0],
            [132, 6.393],
            [180, 6.393],
            [230, 0],
          ]),
          curve(TIP, [
            [140, 0],
            [150, 57],
          ]),
          curve(BOARD, [
            [156, 0],
            [176, 720],
            [240, 720],
            [260, 0],
          ]),
        ],
      },
    ],
  };
}

function tied(project: Project, ...wishes: readonly InterlockWish[]): Project {
  return wishes.reduce((at, wish) => {
    const made = addInterlock(at, wish);
    if (!made.ok) throw new Error(made.problems[0]!.message);
    return holdInterlocks(at, asEdited(made.value.project)).project;
  }, project);
}

const opens: InterlockWish = {
  channel: BOARD,
  frame: 156,
  after: { kind: 'key', channel: SKIP, frame: 132 },
  gap: 6,
};
const closes: InterlockWish = {
  channel: BOARD,
  frame: 240,
  after: { kind: 'key', channel: SKIP, frame: 180 },
  gap: 12,
  exact: true,
};

const framesOf = (project: Project, channel: string) =>
  curveOf(project, channel)!.keys.map(({ frame }) => frame);
const edited = (project: Project, edit: Edit) => holdInterlocks(project, asEdited(edit(project)));

describe('a key that waits for another', () => {
  it('is left where it is while there is time to spare, and is pushed with what follows it when there is not', () => {
    const project = tied(works(), opens);
    expect(interlockStanding(project, project.interlocks[0]!)).toEqual({
      awaited: 132,
      due: 138,
      spare: 18,
      holds: true,
    });
    const soon = edited(project, (at) =>
      moveKeys(at, [{ channel: SKIP, frame: 132 }], { frames: 10, value: 0 }),
    );
    expect(framesOf(soon.project, BOARD)).toEqual([156, 176, 240, 260]);
    const late = edited(project, (at) =>
      moveKeys(at, [{ channel: SKIP, frame: 132 }], { frames: 37, value: 0 }),
    );
    expect(framesOf(late.project, SKIP)).toEqual([60, 169, 180, 230]);
    expect(framesOf(late.project, BOARD)).toEqual([175, 195, 259, 279]);
    expect(late.project.interlocks[0]).toMatchObject({ frame: 175, after: { frame: 169 } });
    expect(late.mapping.frame!(176, BOARD)).toBe(195);
    expect(late.mapping.frame!(132, SKIP)).toBe(169);
  });

  it('can’t be dragged before its time, and one that comes exactly then goes back, too', () => {
    const project = tied(works(), opens, closes);
    expect(framesOf(project, BOARD)).toEqual([156, 176, 192, 212]);
    const dragged = edited(project, (at) =>
      moveKeys(at, [{ channel: BOARD, frame: 156 }], { frames: -30, value: 0 }),
    );
    expect(framesOf(dragged.project, BOARD)).toEqual([138, 176, 192, 212]);
    const late = edited(project, (at) =>
      moveKeys(at, [{ channel: BOARD, frame: 192 }], { frames: 15, value: 0 }),
    );
    expect(framesOf(late.project, BOARD)).toEqual([156, 176, 192, 212]);
    const earlier = edited(project, (at) =>
      moveKeys(at, [{ channel: SKIP, frame: 180 }], { frames: -3, value: 0 }),
    );
    expect(framesOf(earlier.project, BOARD)).toEqual([156, 176, 189, 209]);
  });

  it('keeps order and gaps when the skip is pushed by 19 frames and stretched', () => {
    const project = tied(works(), opens, closes);
    const pushed = edited(project, (at) => push(at, [SKIP, TIP], 0, 19, 'after'));
    expect(framesOf(pushed.project, SKIP)).toEqual([79, 151, 199, 249]);
    expect(framesOf(pushed.project, BOARD)).toEqual([157, 177, 211, 231]);
    const long = edited(pushed.project, (at) =>
      stretch(at, [SKIP], { start: 79, end: 249 }, { start: 79, end: 334 }, 'stays', 'speed'),
    );
    const [, stops, leaves] = framesOf(long.project, SKIP);
    const [from, , shut] = framesOf(long.project, BOARD);
    expect(from!).toBeGreaterThanOrEqual(stops! + 6);
    expect(from! - stops!).toBeLessThan(7);
    expect(shut!).toBeCloseTo(leaves! + 12, 9);
    expect(long.project.interlocks).toHaveLength(2);
  });

  it('of a locked curve stays, and the frames that are missing are told', () => {
    const start = tied(works(), opens);
    const project = {
      ...start,
      clips: start.clips.map((clip) => ({
        ...clip,
        curves: clip.curves.map((each) => (each.channel === BOARD ? { ...each, locked: true } : each)),
      })),
    };
    const late = edited(project, (at) =>
      moveKeys(at, [{ channel: SKIP, frame: 132 }], { frames: 22, value: 0 }),
    );
    expect(framesOf(late.project, BOARD)).toEqual([156, 176, 240, 260]);
    expect(interlockStanding(late.project, late.project.interlocks[0]!)).toMatchObject({
      due: 160,
      spare: -4,
      holds: false,
    });
    const renamed = edited(late.project, (at) => ({ ...at, name: 'Other' }));
    expect(framesOf(renamed.project, BOARD)).toEqual([156, 176, 240, 260]);
  });

  it('is passed by where it is muted, and goes with its keys and parts', () => {
    const muted = tied(works(), { ...opens, muted: true });
    const late = edited(muted, (at) =>
      moveKeys(at, [{ channel: SKIP, frame: 132 }], { frames: 40, value: 0 }),
    );
    expect(framesOf(late.project, BOARD)).toEqual([156, 176, 240, 260]);
    const landed = edited(muted, (at) =>
      moveKeys(at, [{ channel: SKIP, frame: 132 }], { frames: -72, value: 0 }),
    );
    expect(landed.project.interlocks).toHaveLength(1);
    expect(removeParts(muted, ['board']).interlocks).toHaveLength(0);
    const rate = changeRateKeepingSeconds(muted, { frames: 48, per: 1 }).project;
    expect(rate.interlocks[0]).toMatchObject({ frame: 312, gap: 12, after: { frame: 264 } });
  });
});

describe('a key that waits for a value to be passed', () => {
  const passes: InterlockWish = {
    channel: BOARD,
    frame: 240,
    after: { kind: 'passes', channel: SKIP, value: 3, way: 'down', nth: 1 },
    gap: 2,
  };

  it('comes after the moment, which is found between frames on the curve, and goes on with it', () => {
    const project = tied(works(), passes);
    const { awaited } = interlockStanding(project, project.interlocks[0]!);
    const program = compile(project);
    if (!program.ok) throw new Error('the project does not compile');
    const slot = program.value.structure.slots.get(SKIP)!;
    expect(program.value.channelValue(slot, awaited!)).toBeCloseTo(3, 8);
    expect(awaited!).toBeGreaterThan(180);
    const late = edited(project, (at) => push(at, [SKIP], 0, 60, 'after'));
    expect(interlockStanding(late.project, late.project.interlocks[0]!).awaited).toBeCloseTo(
      awaited! + 60,
      6,
    );
    expect(framesOf(late.project, BOARD)[2]).toBe(Math.ceil(awaited! + 62));
  });

  it('waits for ever where the value never comes, and moves nothing', () => {
    const project = tied(works(), { ...passes, after: { ...passes.after, value: 9 } as Interlock['after'] });
    expect(interlockStanding(project, project.interlocks[0]!)).toEqual({
      awaited: null,
      due: null,
      spare: null,
      holds: false,
    });
  });
});

describe('interlocks', () => {
  it('that run in a ring are refused with the names of its members; those of a machine’s cycle are not', () => {
    const project = tied(works(), opens);
    const back: InterlockWish = {
      channel: SKIP,
      frame: 132,
      after: { kind: 'key', channel: BOARD, frame: 176 },
    };
    const ring = addInterlock(project, back);
    expect(ring.ok ? '' : ring.problems[0]!.message).toBe(
      'the interlocks run in a ring: board/rotate.y at frame 156 waits for skip/translate.x at frame 132 waits for board/rotate.y at frame 156; none of them could ever begin',
    );
    expect(addInterlock(project, { ...back, frame: 180 }).ok).toBe(true);
    const own = addInterlock(project, { ...opens, after: { kind: 'key', channel: BOARD, frame: 240 } });
    expect(own.ok).toBe(false);
    expect(changeInterlock(project, 'interlock', { frame: 157 }).ok).toBe(false);
  });

  it('are in the file, checked when it is read, and come back as they were', () => {
    const project = tied(works(), opens, closes);
    const text = writeProject(project);
    const again = readProject(text);
    expect(again.ok && again.value.interlocks).toEqual(project.interlocks);
    const broken = readProject(text.replace(/("after": \{[^}]*"frame": )132/, '$1133'));
    const messages = broken.ok ? [] : broken.problems.map(({ message }) => message);
    expect(text).toContain('"interlocks"');
    expect(messages.join(' ')).toContain('has no key at frame');
  });

  it('hold after any row of edits: nothing open stands before its time, and no key is lost', () => {
    const steps = fc.array(
      fc.record({
        channel: fc.constantFrom(SKIP, BOARD),
        at: fc.integer({ min: 0, max: 260 }),
        by: fc.integer({ min: -40, max: 60 }),
      }),
      { minLength: 1, maxLength: 12 },
    );
    fc.assert(
      fc.property(steps, (history) => {
        let project = tied(works(), opens, closes);
        for (const { channel, at, by } of history) {
          const next = push(project, [channel], at, by, 'after');
          if (next.refused.length > 0) continue;
          project = holdInterlocks(project, next).project;
          for (const lock of project.interlocks) {
            const { spare } = interlockStanding(project, lock);
            expect(spare!).toBeGreaterThanOrEqual(-1e-6);
          }
          const keys = framesOf(project, BOARD);
          expect(keys).toHaveLength(4);
          expect(keys.every((frame, i) => i === 0 || frame > keys[i - 1]!)).toBe(true);
        }
      }),
      { numRuns: 200 },
    );
  });
});
