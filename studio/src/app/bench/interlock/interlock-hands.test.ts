import '@angular/compiler';
import { setCurveFlag, type Interlock, type Project } from '@kaizen/core';
import { chartProject } from '../../testing/chart-project';
import { fakes } from '../../testing/fake-studio';
import { InterlockHands, standingWords } from './interlock-hands';

const WAGON = { channel: 'wagon/translate.x', frame: 24 };
const HOOK = { channel: 'hook/translate.y', frame: 36 };

function setUp(project: Project = chartProject()) {
  const made = fakes(project);
  const { studio, injector } = made;
  const now = () => studio.project()!;
  const lock = (): Interlock => now().interlocks[0]!;
  const words = () => standingWords(now(), lock());
  const frames = (channel: string) =>
    now()
      .clips[0]!.curves.find((curve) => curve.channel === channel)!
      .keys.map(({ frame }) => frame);
  const pick = (...keys: { channel: string; frame: number }[]) =>
    studio.pick({ parts: [], channels: [], keys, handles: [] });
  return { ...made, hands: injector.get(InterlockHands), now, lock, words, frames, pick };
}

/** The hook’s key waits for the wagon’s, twelve frames after it, and can’t move: its channel is locked. */
function tiedAndLocked() {
  const made = setUp();
  made.pick(HOOK, WAGON);
  made.hands.tiePair();
  made.studio.edit('Lock', (project) => setCurveFlag(project, [HOOK.channel], 'locked', true));
  return made;
}

describe('interlocks by hand', () => {
  it('two chosen keys of two channels are a pair, the earlier first', () => {
    const { hands, pick } = setUp();
    expect(hands.pair()).toBeNull();
    pick(HOOK, WAGON);
    expect(hands.pair()).toEqual([WAGON, HOOK]);
    pick(WAGON, { ...WAGON, frame: 48 });
    expect(hands.pair()).toBeNull();
    pick(WAGON, HOOK, { ...WAGON, frame: 48 });
    expect(hands.pair()).toBeNull();
  });

  it('tied, the later key waits as long as it does now: it comes just when it may', () => {
    const { hands, lock, words, pick, studio } = setUp();
    pick(HOOK, WAGON);
    hands.tiePair();
    expect(lock()).toMatchObject({ ...HOOK, after: { kind: 'key', ...WAGON }, gap: 12, muted: false });
    expect(words()).toEqual({
      word: 'met',
      short: 'met',
      whole: 'It comes just when it may: due at f 36',
      bad: false,
    });
    expect(studio.labels).toHaveLength(1);
    hands.remove(lock());
    expect(studio.project()!.interlocks).toEqual([]);
  });

  it('a longer gap moves the key that waits; a shorter one leaves it frames to spare', () => {
    const { hands, lock, words, frames, pick } = setUp();
    pick(HOOK, WAGON);
    hands.tiePair();
    hands.change(lock(), { gap: 20 });
    expect(frames(HOOK.channel)).toEqual([12, 44]);
    expect(words().word).toBe('met');
    hands.change(lock(), { gap: 4.5 });
    expect(frames(HOOK.channel)).toEqual([12, 44]);
    expect(words()).toMatchObject({ word: '15.5 f to spare', short: '+15.5 f', bad: false });
    hands.change(lock(), { muted: true });
    expect(words()).toMatchObject({ word: 'muted', bad: false });
  });

  it('a key that would wait for itself in a ring is refused in a sentence', () => {
    const { hands, now, pick, notices, studio } = setUp();
    pick(HOOK, WAGON);
    hands.tiePair();
    const before = now();
    hands.tie(WAGON, { kind: 'key', ...HOOK }, 2);
    expect(now()).toBe(before);
    expect(notices.said).not.toBe('');
    expect(studio.labels).toHaveLength(1);
  });

  it('a locked key comes too soon where it can’t move, and says by how much', () => {
    const { hands, now, lock, words, frames } = tiedAndLocked();
    hands.change(lock(), { gap: 20 });
    expect(frames(HOOK.channel)).toEqual([12, 36]);
    expect(words()).toEqual({
      word: '8 f missing',
      short: '−8 f',
      whole: 'It comes 8 frames too soon: due at f 44',
      bad: true,
    });
    expect(hands.lockedFrom(now(), lock())).toBe(44);
    expect(hands.earlierKey(now(), lock())).toBe(16);
  });

  it('unlocked, it comes when it is due', () => {
    const { hands, now, lock, words, frames, studio } = tiedAndLocked();
    hands.change(lock(), { gap: 20 });
    hands.unlock(lock());
    expect(frames(HOOK.channel)).toEqual([12, 44]);
    expect(words().word).toBe('met');
    expect(hands.lockedFrom(now(), lock())).toBeNull();
    expect(studio.labels.at(-1)).toContain('Unlock');
  });

  it('or what it waits for comes so much earlier that it can stay', () => {
    const { hands, lock, words, frames } = tiedAndLocked();
    hands.change(lock(), { gap: 20 });
    hands.comeEarlier(lock());
    expect(frames(WAGON.channel)).toEqual([0, 16, 48]);
    expect(frames(HOOK.channel)).toEqual([12, 36]);
    expect(lock().after).toEqual({ kind: 'key', channel: WAGON.channel, frame: 16 });
    expect(words().word).toBe('met');
  });

  it('which can’t be where another key stands in the way', () => {
    const { hands, now, lock } = tiedAndLocked();
    hands.change(lock(), { gap: 36 });
    expect(hands.earlierKey(now(), lock())).toBeNull();
    hands.change(lock(), { gap: 35 });
    expect(hands.earlierKey(now(), lock())).toBe(1);
  });

  it('choosing one chooses the key that waits, with the sheet that tells of it', () => {
    const { hands, lock, pick, studio } = setUp();
    pick(HOOK, WAGON);
    hands.tiePair();
    pick();
    expect(hands.isPicked(lock())).toBe(false);
    hands.pick(lock());
    expect(hands.isPicked(lock())).toBe(true);
    expect(studio.bench()).toMatchObject({ parts: ['hook'], channels: [HOOK.channel], sheet: 'key' });
  });
});
