import '@angular/compiler';
import { changeCurves, curveOf, putMarker, setCurveFlag, type Project } from '@kaizen/core';
import { fakes } from '../../testing/fake-studio';
import { chartProject } from '../../testing/chart-project';
import { commandFakes } from '../../testing/command-fakes';
import { KeyTools } from './key-tools';
import { TimeCommands } from './time-commands';
import { TimeTools } from './time-tools';

const RUN = 'wagon/translate.x';
const LIFT = 'hook/translate.y';

function setUp(project: Project = chartProject()) {
  const made = fakes(project);
  const frames = (channel: string, of: Project | null = made.studio.project()) =>
    curveOf(of!, channel)?.keys.map(({ frame }) => frame);
  return { ...made, frames, tools: made.injector.get(TimeTools), keys: made.injector.get(KeyTools) };
}

describe('what edits of time touch', () => {
  it('is what is chosen, else every channel with keys; locked ones are left and counted', () => {
    const { studio, tools } = setUp();
    expect(tools.scope()).toMatchObject({ channels: [RUN, LIFT], all: true, span: { start: 0, end: 48 } });
    studio.pick({ parts: ['hook'] });
    expect(tools.scope()).toMatchObject({ channels: [LIFT], all: false, span: { start: 12, end: 36 } });
    studio.pick({
      keys: [
        { channel: RUN, frame: 24 },
        { channel: RUN, frame: 48 },
      ],
    });
    expect(tools.scope()).toMatchObject({ channels: [RUN], span: { start: 24, end: 48 } });
    studio.project.update((project) => setCurveFlag(project!, [RUN], 'locked', true));
    expect(tools.scope()).toMatchObject({ channels: [], locked: 1 });
  });
});

describe('an edit of time', () => {
  it('is shown first, with the part it affects, and kept on a press; the range goes along', () => {
    const { studio, stage, tools, frames } = setUp();
    stage.frame.set(24);
    tools.set({ amount: 10 });
    tools.show('open-gap');
    tools.showPending();
    expect(frames(RUN, stage.proposed())).toEqual([0, 34, 58]);
    expect(tools.affected()).toEqual({ first: 24, last: Infinity });
    expect(tools.told()).toBe('3 keys on 2 channels: from f 24 on later by 10 f, speeds stay');
    expect(frames(RUN)).toEqual([0, 24, 48]);
    tools.run('open-gap');
    tools.showPending();
    expect(stage.proposed()).toBeNull();
    expect(frames(RUN)).toEqual([0, 34, 58]);
    expect(studio.project()!.range.end).toBe(58);
    expect(studio.labels).toEqual(['Open a gap at f 24']);
  });

  it('by keyboard shows at the first press and is done at the second', () => {
    const { stage, tools, frames } = setUp();
    stage.frame.set(30);
    tools.press('push-after');
    expect(frames(RUN)).toEqual([0, 24, 48]);
    tools.press('push-after');
    expect(frames(RUN)).toEqual([0, 24, 72]);
  });

  it('takes the chosen keys along, and where all channels go, markers and range too', () => {
    const marker = { id: 'm', name: 'm', kind: 'note' as const, frame: 40, end: null };
    const { studio, stage, tools } = setUp(putMarker(chartProject(), marker));
    studio.pick({ keys: [{ channel: RUN, frame: 48 }] });
    stage.frame.set(24);
    tools.run('push-after');
    expect(studio.bench().keys).toEqual([{ channel: RUN, frame: 72 }]);
    expect(studio.project()!.markers[0]!.frame).toBe(40);
    tools.set({ scope: 'all' });
    tools.run('push-after');
    expect(studio.project()!.markers[0]!.frame).toBe(64);
    expect(studio.project()!.range.end).toBe(72);
  });

  it('takes the loose edits of its channels along, and leaves one that would land on another', () => {
    const { studio, stage, tools } = setUp();
    const edit = (channel: string, frame: number) => ({ channel, frame, value: 9, was: 0 });
    studio.loose.set([edit(RUN, 24), edit(RUN, 30), edit(RUN, 60), edit('shed/rotate.y', 30)]);
    studio.pick({ channels: [RUN] });
    stage.frame.set(24);
    tools.set({ amount: 10 });
    tools.run('close-gap');
    expect(studio.loose().map(({ frame }) => frame)).toEqual([24, 30, 50, 30]);
  });

  it('that would let keys pass each other is refused in one sentence', () => {
    const { stage, tools, frames, notices, studio } = setUp();
    stage.frame.set(30);
    tools.set({ amount: -40 });
    tools.run('push-after');
    expect(frames(RUN)).toEqual([0, 24, 48]);
    expect(notices.said).toMatch(/keys of Wagon, place X would pass each other/);
    expect(studio.labels).toEqual([]);
  });

  it('stretches to a length or by a speed, reverses, and mirrors about a value', () => {
    const { studio, tools, frames } = setUp();
    studio.pick({ channels: [RUN] });
    tools.stretchToLength(24);
    expect(frames(RUN)).toEqual([0, 12, 24]);
    tools.stretchBy(2);
    expect(frames(RUN)).toEqual([0, 24, 48]);
    tools.run('reverse');
    expect(curveOf(studio.project()!, RUN)!.keys.map(({ value }) => value)).toEqual([4, 2, 0]);
    tools.set({ mirrorAbout: 'zero' });
    tools.run('mirror');
    expect(curveOf(studio.project()!, RUN)!.keys.map(({ value }) => value)).toEqual([-4, -2, 0]);
  });
});

describe('time reversed', () => {
  it('says that noise runs on as it did, where there is some', () => {
    const noise = { kind: 'noise', amplitude: 1, period: 6, seed: 1, weight: 1, muted: false } as const;
    const project = changeCurves(chartProject(), [RUN], (curve) => ({ ...curve, treatments: [noise] }));
    const { studio, tools, notices } = setUp(project);
    studio.pick({ channels: [LIFT] });
    tools.run('reverse');
    expect(notices.said).not.toContain('noise');
    studio.pick({ channels: [RUN] });
    tools.run('reverse');
    expect(notices.said).toContain('noise and “every n-th frame” stay as they run');
  });
});

describe('Stakes', () => {
  const staked = () => {
    const made = setUp();
    for (const frame of [0, 24, 48]) {
      made.stage.frame.set(frame);
      made.tools.toggleStake();
    }
    return made;
  };

  it('stretch between each other, shown until they are applied', () => {
    const { studio, stage, tools, frames } = staked();
    tools.moveStake(tools.stakes()[1]!, 36);
    tools.showPending();
    expect(frames(RUN, stage.proposed())).toEqual([0, 36, 48]);
    expect(frames(LIFT, stage.proposed())).toEqual([18, 42]);
    expect(frames(RUN)).toEqual([0, 24, 48]);
    expect(tools.told()).toBe('3 keys on 2 channels: f 0, f 24 → 36, f 48, shape stays');
    tools.applyStakes();
    tools.showPending();
    expect(frames(RUN)).toEqual([0, 36, 48]);
    expect(studio.bench().stakes).toEqual([]);
    expect(stage.proposed()).toBeNull();
  });

  it('do not pass each other, and leave all as it was when discarded', () => {
    const { studio, stage, tools } = staked();
    const before = studio.project();
    tools.moveStake(tools.stakes()[1]!, 90);
    expect(tools.stakes()[1]!.to).toBe(47);
    tools.showPending();
    tools.discard();
    tools.showPending();
    expect(studio.project()).toBe(before);
    expect(stage.proposed()).toBeNull();
  });

  it('set while others have moved stand for where their frame came from; set again they go', () => {
    const { stage, tools } = staked();
    tools.moveStake(tools.stakes()[1]!, 36);
    stage.frame.set(18);
    tools.toggleStake();
    expect(tools.stakes().map(({ from, to }) => [from, to])).toEqual([
      [0, 0],
      [12, 18],
      [24, 36],
      [48, 48],
    ]);
    tools.toggleStake();
    expect(tools.stakes()).toHaveLength(3);
  });
});

describe('timing by one press', () => {
  it('chooses all but the first, after, before, and this pose everywhere', () => {
    const { studio, stage, keys } = setUp();
    const chosen = () => studio.bench().keys.map(({ channel, frame }) => `${channel.split('/')[0]}${frame}`);
    studio.pick({ parts: ['wagon', 'hook'] });
    keys.choose('but-first');
    expect(chosen()).toEqual(['wagon24', 'wagon48', 'hook12', 'hook36']);
    studio.pick({ keys: [] });
    stage.frame.set(24);
    keys.choose('after');
    expect(chosen()).toEqual(['wagon24', 'wagon48', 'hook36']);
    studio.pick({ keys: [] });
    keys.choose('pose');
    expect(chosen()).toEqual(['wagon24', 'hook12']);
  });

  it('waits and holds at the chosen keys, or at the last ones before the playhead', () => {
    const { studio, stage, tools, keys, frames } = setUp();
    studio.pick({ channels: [RUN] });
    stage.frame.set(30);
    tools.set({ amount: 12 });
    keys.wait();
    expect(frames(RUN)).toEqual([0, 24, 36, 60]);
    stage.frame.set(5);
    keys.holdStill();
    expect(curveOf(studio.project()!, RUN)!.keys[0]!.leg.kind).toBe('hold');
  });

  it('puts keys on whole frames, says which would fall together, and merges them on a press', () => {
    const base = chartProject();
    const [clip] = base.clips;
    const curve = clip!.curves[0]!;
    const keysAt = [0, 23.6, 24.3, 40.5].map((frame) => ({ ...curve.keys[0]!, frame }));
    const project = { ...base, clips: [{ ...clip!, curves: [{ ...curve, keys: keysAt }] }] };
    const { keys, notices, frames } = setUp(project);
    keys.wholeFrames();
    expect(frames(RUN)).toEqual([0, 23.6, 24.3, 41]);
    expect(notices.said).toMatch(
      /^1 put on whole frames; 2 would fall together .*Wagon, place X at f 23\.6 …$/,
    );
    notices.action!();
    expect(frames(RUN)).toEqual([0, 24, 41]);
    keys.wholeFrames();
    expect(notices.said).toBe('All keys stand on whole frames');
  });

  it('closes a loop at the range’s end and trims the range to the keys', () => {
    const { studio, keys, frames } = setUp();
    studio.pick({ channels: [LIFT] });
    keys.closeLoop();
    expect(frames(LIFT)).toEqual([12, 36, 48]);
    expect(studio.project()!.range).toEqual({ start: 0, end: 48, loop: true });
    keys.trimRange();
    expect(studio.project()!.range).toMatchObject({ start: 12, end: 48 });
  });
});

describe('a key every so many frames', () => {
  it('stands between the keys of each channel, on the very curve, and is chosen', () => {
    const { studio, stage, frames, keys } = setUp();
    studio.set({ frameStep: 10 });
    const before = stage.program()!;
    const slot = before.structure.slots.get(RUN)!;
    keys.keyEvery();
    expect(frames(RUN)).toEqual([0, 10, 20, 24, 30, 40, 48]);
    expect(frames(LIFT)).toEqual([12, 22, 32, 36]);
    for (let frame = -5; frame < 60; frame += 0.5)
      expect(stage.program()!.channelValue(slot, frame)).toBeCloseTo(before.channelValue(slot, frame), 12);
    expect(studio.bench().keys).toHaveLength(8);
  });

  it('stays within the chosen keys, and is not made where it would be too many', () => {
    const { studio, frames, keys, notices } = setUp();
    studio.set({ frameStep: 8 });
    studio.pick({ keys: [24, 48].map((frame) => ({ channel: RUN, frame })) });
    keys.keyEvery();
    expect(frames(RUN)).toEqual([0, 24, 32, 40, 48]);
    studio.set({ frameStep: 0.001 });
    keys.keyEvery();
    expect(frames(RUN)).toHaveLength(5);
    expect(notices.said).toContain('more than 20000 at once');
  });
});

describe('a Stake of the list', () => {
  it('is taken away by its button; keys and the palette mean the last one', () => {
    const { registry, studio, stage, usable } = commandFakes(chartProject(), [TimeCommands]);
    expect(usable('time.stake-remove')).toBe(false);
    for (const frame of [6, 18, 30]) {
      stage.frame.set(frame);
      registry.run('time.stake');
    }
    const from = () => studio.bench().stakes.map((stake) => stake.from);
    registry.run('time.stake-remove', studio.bench().stakes[0]);
    registry.run('time.stake-remove');
    expect(from()).toEqual([18]);
    registry.run('time.discard');
    expect(from()).toEqual([]);
  });
});
