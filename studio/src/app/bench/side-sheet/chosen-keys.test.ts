import { readDocument, type Project } from '@kaizen/core';
import { chosenKeys, common, legNumbers, sideSpeeds, withLegNumber } from './chosen-keys';

function project(): Project {
  const read = readDocument({
    format: 'kaizen',
    version: 1,
    id: 'p',
    name: 'P',
    rate: { frames: 24, per: 1 },
    range: { start: 0, end: 48 },
    parts: [{ id: 'skip', name: 'Skip', kind: 'group' }],
    clips: [
      {
        id: 'main',
        name: 'Main',
        curves: [
          {
            channel: 'skip/translate.x',
            keys: [
              { frame: 0, value: 0, out: { mode: 'linear' }, joined: false },
              {
                frame: 24,
                value: 2,
                in: { mode: 'linear' },
                out: { mode: 'set', slope: -0.25 },
                joined: false,
              },
              { frame: 48, value: 2 },
            ],
          },
        ],
      },
    ],
    activeClip: 'main',
  });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

const ref = (frame: number) => ({ channel: 'skip/translate.x', frame });

describe('the chosen keys', () => {
  it('are those that are there', () => {
    expect(
      chosenKeys(project(), [ref(24), ref(25), { channel: 'skip/rotate.x', frame: 0 }]).map(
        ({ index }) => index,
      ),
    ).toEqual([1]);
  });

  it('have a speed on each side that has a leg, in units per second', () => {
    const keys = chosenKeys(project(), [ref(0), ref(24)]);
    expect(sideSpeeds(project(), keys, 'in')).toEqual([2]);
    expect(sideSpeeds(project(), keys, 'out')).toEqual([2, -6]);
  });

  it('share a value, or are mixed', () => {
    expect(common([2, 2])).toBe(2);
    expect(common([2, 3])).toBeNull();
    expect(common([])).toBeNull();
  });

  it('keep the ramps of a trapezoid within its leg', () => {
    const leg = { kind: 'law', law: 'trapezoid', accelerate: 0.7 } as const;
    const [accelerate, decelerate] = legNumbers(leg);
    expect(withLegNumber(leg, decelerate!, 0.5)).toMatchObject({
      accelerate: 0.7,
      decelerate: expect.closeTo(0.3, 12),
    });
    expect(withLegNumber(leg, accelerate!, -1)).toMatchObject({ accelerate: 0 });
  });
});
