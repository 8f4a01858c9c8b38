import { emptyCurve, newKey, newPart, newProject } from '../edit';
import type { Project } from '../project';
import { keyEvent } from './key-event';
import { timingSheet } from './timing-sheet';

const RUN = 'skip/translate.x';
const keys = [
  newKey(0, 0),
  newKey(30, 2),
  newKey(60, 6.393),
  newKey(80, 6.393),
  newKey(120, 0),
  newKey(130, 1),
];

function works(): Project {
  const project = newProject('works', 'Works');
  const held = [newKey(10, 0, { kind: 'hold' }), newKey(20, 5, { kind: 'hold' })];
  return {
    ...project,
    parts: [{ ...newPart('group', 'Skip'), id: 'skip' }],
    clips: [
      {
        id: 'main',
        name: 'Main',
        curves: [
          { ...emptyCurve('skip/translate.y'), keys: [newKey(50, 1), newKey(55, 2)] },
          { ...emptyCurve(RUN), keys },
          { ...emptyCurve('skip/visible'), keys: held },
          { ...emptyCurve('skip/rotate.z'), keys: [newKey(0, 0), newKey(9, 9)], muted: true },
        ],
      },
    ],
    interlocks: [
      {
        id: 'i',
        clip: 'main',
        channel: 'skip/translate.y',
        frame: 50,
        after: { kind: 'key', channel: RUN, frame: 60 },
        gap: 2,
        exact: false,
        muted: false,
      },
    ],
  };
}

describe('the timing sheet', () => {
  it('has each move of each channel, one way round, in the order in which they begin', () => {
    const { channels, interlocks } = timingSheet(works());
    expect(channels.map(({ channel }) => channel)).toEqual([RUN, 'skip/translate.y']);
    expect(channels[0]!.moves).toEqual([
      { from: 0, to: 6.393, first: 0, last: 60 },
      { from: 6.393, to: 0, first: 80, last: 120 },
      { from: 0, to: 1, first: 120, last: 130 },
    ]);
    expect(interlocks[0]!.standing).toEqual({ awaited: 60, due: 62, spare: -12, holds: false });
  });

  it('is told what a motion does at each key', () => {
    const curve = { ...emptyCurve(RUN), keys };
    expect(keys.map((_, i) => keyEvent(curve, i))).toEqual([
      'starts',
      'passes',
      'stops',
      'starts',
      'turns',
      'stops',
    ]);
    expect(keyEvent(curve, 9)).toBe('passes');
  });
});
