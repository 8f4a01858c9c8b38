import { heldFrame } from './index';
import { testProject } from '../../testing/project';

describe('poses held', () => {
  const project = testProject({}, [
    {
      channel: 'wagon/translate.x',
      keys: [
        { frame: 0, value: 0 },
        { frame: 24, value: 1 },
      ],
    },
    {
      channel: 'wagon/translate.y',
      keys: [
        { frame: 10.5, value: 0 },
        { frame: 40, value: 1 },
      ],
    },
    { channel: 'wagon/translate.z', muted: true, keys: [{ frame: 33, value: 0 }] },
  ]);
  it('show the last frame on which anything has a key', () => {
    const shown = [0, 9, 10.5, 23.9, 24, 39, 40, 99].map((frame) => heldFrame(project, frame));
    expect(shown).toEqual([0, 0, 10.5, 10.5, 24, 24, 40, 40]);
  });
  it('show frames before the first key, and those of a released span, as they are', () => {
    expect(heldFrame(project, -5)).toBe(-5);
    const released = { start: 12, end: 20 };
    expect([11, 12, 17, 20, 21].map((frame) => heldFrame(project, frame, released))).toEqual([
      10.5, 12, 17, 20, 10.5,
    ]);
  });
});
