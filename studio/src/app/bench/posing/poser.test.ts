import '@angular/compiler';
import { changeCurves, curveOf, setCurveFlag, setLeg, type Key, type Project } from '@kaizen/core';
import { fakes } from '../../testing/fake-studio';
import { chartProject } from '../../testing/chart-project';
import type { KeyWhich } from './key-here';
import { Poser } from './poser';

const RUN = 'wagon/translate.x';

function setUp(project: Project = chartProject()) {
  const { studio, stage, notices, injector } = fakes(project);
  const poser = injector.get(Poser);
  const capture = (change: object) =>
    studio.set({ capture: { ...studio.bench().capture, on: true, ...change } });
  const keysOf = (channel: string) =>
    curveOf(studio.project()!, channel)?.keys.map((key) => [key.frame, key.value]) ?? [];
  return { studio, stage, notices, poser, capture, keysOf };
}

describe('a changed value', () => {
  it('waits while Capture is off, with the value it had, and is told so', () => {
    const { studio, stage, notices, poser, keysOf } = setUp();
    stage.frame.set(12);
    poser.take('Move', [{ channel: 'wagon/translate.y', value: 0.5 }]);
    expect(studio.loose()).toEqual([{ channel: 'wagon/translate.y', value: 0.5, frame: 12, was: 0 }]);
    expect(keysOf('wagon/translate.y')).toEqual([]);
    expect(notices.said).toBe('place Y waits: Capture is off');
    notices.action!();
    expect(keysOf('wagon/translate.y')).toEqual([[12, 0.5]]);
    expect(studio.loose()).toEqual([]);
  });

  it('is keyed while Capture is on, but starts no new channel unless it may', () => {
    const { studio, stage, notices, poser, capture, keysOf } = setUp();
    capture({});
    stage.frame.set(12);
    poser.take('Move', [
      { channel: RUN, value: 1.5 },
      { channel: 'wagon/translate.y', value: 0.5 },
      { channel: 'wagon/translate.z', value: 0.25 },
    ]);
    expect(keysOf(RUN)).toContainEqual([12, 1.5]);
    expect(notices.said).toBe('place X keyed at f 12; place Y, Z wait: they have no keys yet');
    capture({ startNew: true });
    poser.take('Move', [{ channel: 'wagon/translate.y', value: 0.75 }]);
    expect(keysOf('wagon/translate.y')).toEqual([
      [0, 0],
      [12, 0.75],
    ]);
    expect(notices.said).toBe('place Y keyed at f 12, and where the range starts');
    expect(studio.loose().map((edit) => edit.channel)).toEqual(['wagon/translate.z']);
    capture({ startNew: true, markStart: false });
    poser.take('Move', [{ channel: 'wagon/rotate.z', value: 5 }]);
    expect(keysOf('wagon/rotate.z')).toEqual([[12, 5]]);
  });

  it('brings the old value where the range ends, too, where that is marked; not twice where the playhead is there', () => {
    const { stage, notices, poser, capture, keysOf } = setUp();
    stage.frame.set(12);
    capture({ startNew: true, markEnd: true });
    poser.take('Move', [{ channel: 'wagon/translate.y', value: 0.75 }]);
    expect(keysOf('wagon/translate.y')).toEqual([
      [0, 0],
      [12, 0.75],
      [48, 0],
    ]);
    expect(notices.said).toBe('place Y keyed at f 12, and where the range starts and ends');
    stage.frame.set(48);
    poser.take('Move', [{ channel: 'wagon/translate.z', value: 2 }]);
    expect(keysOf('wagon/translate.z')).toEqual([
      [0, 0],
      [48, 2],
    ]);
  });

  it('that waits has one press that changes why: the Scope, its parts, or that channels may start', () => {
    const { studio, stage, notices, poser, capture, keysOf } = setUp();
    stage.frame.set(12);
    capture({ parts: ['hook'], startNew: true, markStart: false });
    poser.take('Move', [{ channel: 'wagon/translate.y', value: 1 }]);
    expect(notices.said).toBe('place Y waits: its part is outside the Scope');
    notices.action!();
    expect(studio.bench().capture.parts).toEqual(['hook', 'wagon']);
    expect(keysOf('wagon/translate.y')).toEqual([[12, 1]]);
    capture({ scope: ['place'], parts: null });
    poser.take('Turn', [{ channel: 'wagon/rotate.y', value: 30 }]);
    notices.action!();
    expect(studio.bench().capture.scope).toEqual(['place', 'turn']);
    capture({ startNew: false });
    poser.take('Move', [{ channel: 'wagon/translate.z', value: 2 }]);
    notices.action!();
    expect(studio.bench().capture.startNew).toBe(true);
    expect(keysOf('wagon/translate.z')).toEqual([[12, 2]]);
  });

  it('waits outside the Scope, and touches neither driven nor locked channels', () => {
    const { studio, notices, poser, capture, keysOf } = setUp(
      setCurveFlag(chartProject(), [RUN], 'locked', true),
    );
    capture({ scope: ['turn'], startNew: true });
    const before = keysOf(RUN);
    poser.take('Pose', [
      { channel: RUN, value: 9 },
      { channel: 'wheel/rotate.z', value: 9 },
      { channel: 'hook/translate.z', value: 9 },
      { channel: 'hook/rotate.x', value: 9 },
    ]);
    expect(notices.said).toBe(
      'Hook turn X keyed at f 0; Hook place Z waits: outside the Scope; Wheel turn Z stays as its driver has it; Wagon place X is locked',
    );
    expect(keysOf(RUN)).toEqual(before);
    expect(studio.loose().map((edit) => edit.channel)).toEqual(['hook/translate.z']);
  });

  it('is told by part where several parts change, the first three by name', () => {
    const { notices, poser } = setUp();
    const all = ['hook', 'wagon', 'shed', 'door'].flatMap((part) =>
      ['translate.x', 'translate.y', 'rotate.z'].map((property) => ({
        channel: `${part}/${property}`,
        value: 9,
      })),
    );
    poser.take('Pose', all.slice(0, 3));
    expect(notices.said).toBe('place X, Y, turn Z wait: Capture is off');
    poser.take('Pose', all.slice(0, 5));
    expect(notices.said).toBe('Hook place X, Y, turn Z · Wagon place X, Y wait: Capture is off');
    poser.take('Pose', all);
    expect(notices.said).toBe(
      'Hook place X, Y, turn Z · Wagon place X, Y, turn Z · Shed place X, Y, turn Z · 1 more part wait: Capture is off',
    );
  });

  it('takes the place of an earlier loose edit at its frame, and goes when it is back where it was', () => {
    const { studio, stage, notices, poser } = setUp();
    const place = (value: number) => poser.take('Move', [{ channel: 'hook/translate.x', value }]);
    place(1);
    place(2);
    expect(studio.loose().map((edit) => edit.value)).toEqual([2]);
    stage.frame.set(5);
    place(3);
    expect(studio.loose().map((edit) => [edit.frame, edit.value])).toEqual([
      [0, 2],
      [5, 3],
    ]);
    place(0);
    expect(studio.loose().map((edit) => edit.frame)).toEqual([0]);
    expect(notices.said).toMatch(/waits/);
    poser.discardLoose();
    expect(studio.loose()).toEqual([]);
    expect(notices.said).toBe('');
  });
});

describe('the tray', () => {
  it('keys picked edits at their frames, or all at the playhead, and tells what key got another value', () => {
    const { studio, stage, notices, poser, keysOf } = setUp();
    stage.frame.set(24);
    poser.take('Move', [{ channel: RUN, value: 9 }]);
    stage.frame.set(30);
    poser.take('Move', [
      { channel: RUN, value: 7 },
      { channel: 'hook/translate.x', value: 2 },
    ]);
    poser.keyLoose(studio.loose().slice(0, 1));
    expect(keysOf(RUN)).toContainEqual([24, 9]);
    expect(notices.said).toBe('Wagon, place X had a key at f 24; it has the loose value now');
    stage.frame.set(40);
    poser.keyLoose(studio.loose(), 40);
    expect(keysOf(RUN)).toContainEqual([40, 7]);
    expect(keysOf('hook/translate.x')).toEqual([[40, 2]]);
    expect(studio.loose()).toEqual([]);
  });

  it('keys at one frame only the last of several values of a channel; the others go on waiting', () => {
    const { studio, stage, poser, keysOf } = setUp();
    for (const [frame, value] of [
      [3, 1],
      [5, 2],
    ] as const) {
      stage.frame.set(frame);
      poser.take('Move', [{ channel: 'hook/translate.x', value }]);
    }
    poser.keyLoose(studio.loose(), 10);
    expect(keysOf('hook/translate.x')).toEqual([[10, 2]]);
    expect(studio.loose().map(({ frame }) => frame)).toEqual([3]);
  });
});

describe('Key here', () => {
  it('keys the chosen channels where they are, the curve as it was', () => {
    const { studio, stage, poser, keysOf } = setUp();
    studio.pick({ channels: [RUN] });
    stage.frame.set(36);
    poser.keyHere();
    expect(keysOf(RUN)[2]).toEqual([36, 3.25]);
    expect(studio.bench().keys).toEqual([{ channel: RUN, frame: 36 }]);
    expect(studio.labels).toEqual(['Key place X at f 36']);
  });

  it('keys what is animated of a picked part, or its place and turn where nothing is', () => {
    const { studio, stage, poser, keysOf } = setUp();
    stage.frame.set(30);
    studio.pick({ parts: ['wagon'] });
    poser.keyHere();
    expect(keysOf(RUN).map(([frame]) => frame)).toEqual([0, 24, 30, 48]);
    studio.pick({ parts: ['door'] });
    poser.keyHere();
    expect(studio.labels.at(-1)).toBe('Key 6 channels at f 30');
    expect(keysOf('door/rotate.y')).toEqual([[30, 0]]);
  });

  it('keys a loose edit at the playhead rather than what the curve has', () => {
    const { studio, stage, poser, keysOf } = setUp();
    stage.frame.set(30);
    studio.pick({ parts: ['wagon'] });
    poser.take('Move', [{ channel: RUN, value: 7 }]);
    poser.keyHere();
    expect(keysOf(RUN)).toContainEqual([30, 7]);
    expect(studio.loose()).toEqual([]);
  });

  it('keys one kind, the whole part, all below it, what is animated below, or updates keys that are there', () => {
    const keyed = (which: KeyWhich, frame = 30) => {
      const { studio, stage, poser } = setUp();
      studio.pick({ parts: ['wagon'] });
      stage.frame.set(frame);
      poser.take('Pose', [{ channel: RUN, value: 7 }]);
      poser.keyHere(which);
      return studio.bench().keys.map(({ channel }) => channel);
    };
    expect(keyed('turn')).toEqual(['wagon/rotate.x', 'wagon/rotate.y', 'wagon/rotate.z']);
    expect(keyed('part')).toHaveLength(10);
    expect(keyed('part')).toContain('wagon/visible');
    expect(keyed('below')).toHaveLength(29);
    expect(keyed('animated')).toEqual([RUN, 'hook/translate.y']);
    expect(keyed('existing')).toEqual([]);
    expect(keyed('existing', 24)).toEqual([RUN]);
  });

  it('never keys driven channels, says where nothing is picked, and stops at locked ones', () => {
    const { studio, notices, poser, keysOf } = setUp();
    poser.keyHere();
    expect(notices.said).toMatch(/^Nothing to key/);
    studio.pick({ channels: ['wheel/rotate.z'] });
    poser.keyHere();
    expect(keysOf('wheel/rotate.z')).toEqual([]);
    studio.project.update((project) => setCurveFlag(project!, [RUN], 'locked', true));
    studio.pick({ channels: [RUN] });
    poser.keyHere();
    expect(notices.said).toBe('Wagon, place X is locked; unlock it in its row first');
  });

  it('says beforehand that an Ease will become curve keys, and does it on a press', () => {
    const { studio, stage, notices, poser, keysOf } = setUp(
      setLeg(chartProject(), [{ channel: RUN, frame: 0 }], { kind: 'ease', family: 'sine', slow: 'both' }),
    );
    studio.pick({ channels: [RUN] });
    stage.frame.set(12);
    poser.keyHere();
    expect(keysOf(RUN)).toHaveLength(3);
    expect(notices.said).toMatch(
      /^place X: a key here turns the leg into curve keys, \d more, within 0\.1 % of its rise$/,
    );
    notices.action!();
    expect(keysOf(RUN).some(([frame, value]) => frame === 12 && Math.abs(value! - 1) < 1e-9)).toBe(true);
  });

  it('tells that long handles took more keys than the one', () => {
    const flat = (reach: number) => ({ mode: 'flat', slope: 0, reach }) as const;
    const { studio, stage, notices, poser, keysOf } = setUp(
      changeCurves(chartProject(), [RUN], (curve) => ({
        ...curve,
        keys: curve.keys.map((key): Key => ({ ...key, in: flat(0.97), out: flat(0.66) })),
      })),
    );
    studio.pick({ channels: [RUN] });
    stage.frame.set(6);
    poser.keyHere();
    expect(keysOf(RUN).map(([frame]) => frame)).toEqual([0, 6, 10, 24, 48]);
    expect(notices.said).toBe('One more key was needed: the handle there is too long for a shorter leg');
    stage.frame.set(36);
    poser.keyHere();
    expect(notices.said).toBe('');
  });
});
