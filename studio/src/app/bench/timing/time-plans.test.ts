import '@angular/compiler';
import type { Project } from '@kaizen/core';
import { initialBench, type TimeSettings } from '../../state/bench';
import { chartProject, programOf } from '../../testing/chart-project';
import { planOf, stakesPlan, stretchPlan, type TimeAsk, type TimePlan, type TimeToolId } from './time-plans';
import { timeScope } from './time-scope';

const RUN = 'wagon/translate.x';
const LIFT = 'hook/translate.y';

function asked(frame: number, settings: Partial<TimeSettings> = {}, keys: TimeAsk['scope']['refs'] = []) {
  const time = { ...initialBench.time, scope: 'all' as const, ...settings };
  const project = chartProject();
  const scope = timeScope(project, { ...initialBench, keys, time });
  return { project, ask: { scope, settings: time, frame, valueAt: () => 3 } satisfies TimeAsk };
}

function keysOf(project: Project, channel: string): readonly (readonly [number, number])[] {
  const curve = project.clips[0]!.curves.find((each) => each.channel === channel)!;
  return curve.keys.map(({ frame, value }) => [frame, value]);
}

function valueAt(project: Project, channel: string, frame: number): number {
  const program = programOf(project);
  return program.channelValue(program.structure.slots.get(channel)!, frame);
}

const framesOf = (project: Project, channel: string) => keysOf(project, channel).map(([frame]) => frame);

function done(tool: TimeToolId, frame: number, settings: Partial<TimeSettings> = {}) {
  const { project, ask } = asked(frame, settings);
  const plan = planOf(tool, ask)!;
  return { plan, edited: plan.edit(project), project };
}

const told = ({ label, does, affected }: TimePlan) => ({ label, does, affected });

describe('edits of time before they happen', () => {
  it('a push after the playhead moves all that comes after it', () => {
    const { plan, edited } = done('push-after', 20, { amount: 6 });
    expect(told(plan)).toEqual({
      label: 'Push everything after f 20',
      does: 'after f 20 later by 6 f',
      affected: { first: 20, last: Infinity },
    });
    expect(framesOf(edited.project, RUN)).toEqual([0, 30, 54]);
    expect(framesOf(edited.project, LIFT)).toEqual([12, 42]);
    expect(edited).toMatchObject({ channels: 2, keys: 3 });
  });

  it('a push before it moves what comes before it the other way', () => {
    const { plan, edited } = done('push-before', 20, { amount: 6 });
    expect(told(plan)).toEqual({
      label: 'Push everything before f 20',
      does: 'before f 20 earlier by 6 f',
      affected: { first: -Infinity, last: 20 },
    });
    expect(framesOf(edited.project, RUN)).toEqual([-6, 24, 48]);
    expect(framesOf(edited.project, LIFT)).toEqual([6, 36]);
  });

  it('a negative amount says and does the opposite', () => {
    expect(done('push-after', 40, { amount: -4 }).plan.does).toBe('after f 40 earlier by 4 f');
    expect(framesOf(done('push-after', 40, { amount: -4 }).edited.project, RUN)).toEqual([0, 24, 44]);
    expect(done('push-before', 20, { amount: -2.5 }).plan.does).toBe('before f 20 later by 2.5 f');
  });

  it('a gap is opened at the playhead, and cut out again', () => {
    const opened = done('open-gap', 24, { amount: 10 });
    expect(opened.plan.does).toBe('from f 24 on later by 10 f');
    expect(framesOf(opened.edited.project, RUN)).toEqual([0, 34, 58]);
    const { ask } = asked(24, { amount: 10 });
    const close = planOf('close-gap', ask)!;
    expect(told(close)).toEqual({
      label: 'Close the gap f 24 to 34',
      does: 'f 24 to 34 cut out, the rest earlier',
      affected: { first: 24, last: 34 },
    });
    expect(keysOf(close.edit(opened.edited.project).project, RUN)).toEqual(keysOf(opened.project, RUN));
  });

  it('time backwards shows each frame where its mirror image was, and twice it is as it was', () => {
    const { plan, edited, project } = done('reverse', 0);
    expect(plan.does).toBe('f 0 to 48 backwards');
    const back = plan.edit(edited.project).project;
    // A hold ends in a jump, and which side of it a frame on it belongs to turns round as well: these frames are beside it.
    for (const channel of [RUN, LIFT])
      for (const frame of [0, 5, 11.5, 20, 35, 37, 48]) {
        expect(valueAt(edited.project, channel, 48 - frame)).toBeCloseTo(valueAt(project, channel, frame), 5);
        expect(valueAt(back, channel, frame)).toBeCloseTo(valueAt(project, channel, frame), 5);
      }
    expect(plan.aside!(project)).toBe('');
  });

  it('values are mirrored about the first key, nothing, or what stands at the playhead', () => {
    const values = (mirrorAbout: TimeSettings['mirrorAbout']) =>
      keysOf(done('mirror', 12, { mirrorAbout }).edited.project, LIFT).map(([, value]) => value);
    expect(values('first')).toEqual([1, -1]);
    expect(values('zero')).toEqual([-1, -3]);
    // The value at the playhead is 3 here, whatever the channel.
    expect(values('playhead')).toEqual([5, 3]);
    expect(done('mirror', 12, { mirrorAbout: 'zero' }).plan.does).toBe('upside down about 0');
  });

  it('only chosen keys are mirrored where some are chosen', () => {
    const keys = [{ channel: RUN, frame: 48 }];
    const { project, ask } = asked(0, { scope: 'chosen', mirrorAbout: 'zero' }, keys);
    const edited = planOf('mirror', ask)!.edit(project);
    expect(keysOf(edited.project, RUN).map(([, value]) => value)).toEqual([0, 2, -4]);
    expect(edited).toMatchObject({ channels: 1, keys: 1 });
  });

  it('there is nothing to reverse, mirror or stretch without a span', () => {
    const { ask } = asked(0);
    const empty = { ...ask, scope: { ...ask.scope, span: null } };
    expect(planOf('reverse', empty)).toBeNull();
    expect(planOf('mirror', empty)).toBeNull();
    expect(stretchPlan(empty, { start: 0, end: 9 })).toBeNull();
  });

  it('a stretch takes what comes after along, or leaves it where it is', () => {
    const keys = [
      { channel: RUN, frame: 0 },
      { channel: RUN, frame: 24 },
    ];
    const stretched = (rest: TimeSettings['rest']) => {
      const { project, ask } = asked(0, { scope: 'chosen', rest }, keys);
      const plan = stretchPlan(ask, { start: 0, end: 36 })!;
      return { plan, frames: framesOf(plan.edit(project).project, RUN) };
    };
    const along = stretched('follows');
    expect(along.plan.does).toBe('f 0 to 24 stretched to f 0 to 36');
    expect(along.plan.affected).toEqual({ first: 0, last: Infinity });
    expect(along.frames).toEqual([0, 36, 60]);
    const alone = stretched('stays');
    expect(alone.plan.affected).toEqual({ first: 0, last: 36 });
    expect(alone.frames).toEqual([0, 36, 48]);
  });

  it('between Stakes each interval is stretched by itself, told from left to right', () => {
    const { project, ask } = asked(0);
    expect(stakesPlan(ask, [{ from: 0, to: 0 }])).toBeNull();
    const plan = stakesPlan(ask, [
      { from: 48, to: 72 },
      { from: 0, to: 0 },
      { from: 24, to: 36 },
    ])!;
    expect(plan.does).toBe('f 0, f 24 → 36, f 48 → 72');
    expect(plan.affected).toEqual({ first: 0, last: 72 });
    const { project: edited } = plan.edit(project);
    expect(framesOf(edited, RUN)).toEqual([0, 36, 72]);
    // Twelve frames into 24 are eighteen into 36.
    expect(framesOf(edited, LIFT)).toEqual([18, 54]);
  });
});
