import { addTreatment, newTreatment, readDocument, setLeg, setSideMode, type Project } from '@kaizen/core';
import { chosenKeys, common, legSpan, legsWithoutSides, sideSpeeds } from './chosen-keys';

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

  it('tell where their leg ends and how long it takes, and a wait as one', () => {
    const [first, second, last] = chosenKeys(project(), [ref(0), ref(24), ref(48)]);
    expect(legSpan(project(), first!)).toBe('to f 24, 1.000 s');
    expect(legSpan(project(), second!)).toBe('to f 48, 1.000 s');
    expect(legSpan(project(), last!)).toBeNull();
    const held = setLeg(project(), [ref(0)], { kind: 'hold' });
    expect(legSpan(held, chosenKeys(held, [ref(0)])[0]!)).toBe('to f 24, 1.000 s, a wait');
    const shaken = addTreatment(held, 'skip/translate.x', newTreatment('noise', 1));
    expect(legSpan(shaken, chosenKeys(shaken, [ref(0)])[0]!)).toBe('to f 24, 1.000 s');
    const flat = setSideMode(project(), [ref(24), ref(48)], 'out', 'flat');
    expect(legSpan(flat, chosenKeys(flat, [ref(24)])[0]!)).toBe('to f 48, 1.000 s, a wait');
    const falling = setLeg(project(), [ref(24)], { kind: 'ballistic', gravity: null });
    expect(legSpan(falling, chosenKeys(falling, [ref(24)])[0]!)).toBe('to f 48, 1.000 s');
  });

  it('say which legs make nothing of their sides, unless a curve is beside one of them', () => {
    const held = setLeg(project(), [ref(0)], { kind: 'hold' });
    const both = setLeg(held, [ref(24)], { kind: 'law', law: 'cycloidal' });
    expect(legsWithoutSides(chosenKeys(both, [ref(24)]))).toBe('Hold and Law');
    expect(legsWithoutSides(chosenKeys(both, [ref(48)]))).toBe('Law');
    expect(legsWithoutSides(chosenKeys(held, [ref(24)]))).toBeNull();
    expect(legsWithoutSides([])).toBeNull();
  });

  it('share a value, or are mixed', () => {
    expect(common([2, 2])).toBe(2);
    expect(common([2, 3])).toBeNull();
    expect(common([])).toBeNull();
  });
});
