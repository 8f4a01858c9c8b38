import '@angular/compiler';
import { curveOf, moveKeys, setLeg, setOutside, type Project } from '@kaizen/core';
import { chartProject } from '../../testing/chart-project';
import { fakes } from '../../testing/fake-studio';
import { easeShapes, lawShapes, PICTURE } from './leg-shapes';
import { Proposals } from '../stage/proposals';
import { Paster } from './paster';
import { ShapeTools } from './shape-tools';
import { beyondText, fieldNumber, isRefused, treatmentFields, withField } from './treatment-fields';
import { copyKeys, newTreatment } from '@kaizen/core';

const RUN = 'wagon/translate.x';
const LIFT = 'hook/translate.y';
const ref = (channel: string, frame: number) => ({ channel, frame });

function setUp(project: Project = chartProject()) {
  const made = fakes(project);
  const keys = (channel = RUN) => curveOf(made.studio.project()!, channel)!.keys;
  return { ...made, tools: made.injector.get(ShapeTools), proposals: made.injector.get(Proposals), keys };
}

describe('sides of many keys', () => {
  it('are set on all, or only where each channel leaves first or arrives last', () => {
    const { studio, tools, keys } = setUp();
    studio.pick({ keys: [0, 24, 48].map((frame) => ref(RUN, frame)) });
    tools.setSides('first', 'both', 'flat');
    expect(keys().map((key) => [key.in.mode, key.out.mode])).toEqual([
      ['smooth', 'flat'],
      ['smooth', 'smooth'],
      ['smooth', 'smooth'],
    ]);
    tools.setSides('last', 'both', 'linear');
    expect(keys()[2]!.in.mode).toBe('linear');
    tools.setSides('all', 'both', 'bounded');
    expect(keys().every((key) => key.in.mode === 'bounded' && key.out.mode === 'bounded')).toBe(true);
  });

  it('handles are chosen without their keys, contacts and tops by what they are', () => {
    const { studio, tools, notices } = setUp();
    studio.pick({ keys: [ref(RUN, 24)] });
    tools.chooseHandles('both');
    expect(studio.bench().handles).toEqual([
      { ...ref(RUN, 24), side: 'in' },
      { ...ref(RUN, 24), side: 'out' },
    ]);
    studio.pick({ keys: [], channels: [RUN] });
    tools.choose('tops');
    expect(studio.bench().keys).toEqual([ref(RUN, 48)]);
    studio.pick({ keys: [], channels: [] });
    tools.keepBetween();
    expect(notices.said).toBe('No curve here leaves the range of its keys');
  });
});

describe('an offer', () => {
  it('shows what it would make, changes nothing until it is taken, and is gone when dropped', () => {
    const { studio, stage, proposals, keys } = setUp();
    const offer = {
      label: 'Leg: hold',
      edit: (now: Project) => setLeg(now, [ref(RUN, 0)], { kind: 'hold' }),
    };
    const before = studio.project();
    proposals.show(offer);
    expect(curveOf(stage.shown()!, RUN)!.keys[0]!.leg.kind).toBe('hold');
    expect(studio.project()).toBe(before);
    expect(proposals.drop()).toBe(true);
    expect(stage.shown()).toBe(before);
    expect(proposals.drop()).toBe(false);
    proposals.take(offer);
    expect(keys()[0]!.leg.kind).toBe('hold');
    expect(studio.labels).toEqual(['Leg: hold']);
    studio.readOnly.set(true);
    proposals.take({ label: 'no', edit: () => before! });
    expect(studio.labels).toHaveLength(1);
  });
});

describe('loops', () => {
  it('are pinned at an inner key and unpinned again; an outer one can bear no pin', () => {
    const { studio, tools, notices } = setUp();
    const after = () => curveOf(studio.project()!, RUN)!.after;
    tools.pin(ref(RUN, 24), 'after');
    expect(after()).toMatchObject({ mode: 'loop-carry', pin: 24 });
    expect(notices.said).toBe('Repeats from f 24; what lies before it plays once');
    tools.pin(ref(RUN, 24), 'after');
    expect(after().pin).toBeNull();
    expect([0, 24, 48].map((frame) => tools.canPin(ref(RUN, frame)))).toEqual([false, true, false]);
  });

  it('have their seams measured, and made even where they go somewhere', () => {
    const uneven = moveKeys(chartProject(), [ref(RUN, 24)], { frames: 6, value: 0 }).project;
    const { studio, tools, keys, notices } = setUp(setOutside(uneven, [RUN], 'after', { mode: 'loop' }));
    studio.pick({ channels: [RUN] });
    expect(tools.gaps()).toMatchObject([{ channel: RUN, side: 'after', frame: 48, value: -4 }]);
    tools.makeEven();
    expect(keys().map(({ frame }) => frame)).toEqual([0, 48]);
    expect(curveOf(studio.project()!, RUN)!.after.mode).toBe('loop-carry');
    studio.edit('level', (now) => moveKeys(now, [ref(RUN, 48)], { frames: 0, value: -4 }).project);
    tools.makeEven();
    expect(notices.said).toMatch(/goes nowhere/);
  });
});

describe('legs made into curves', () => {
  it('say what they cost', () => {
    const law = setLeg(chartProject(), [ref(RUN, 0)], { kind: 'law', law: 'cycloidal' });
    const { studio, tools, notices, keys } = setUp(law);
    studio.pick({ keys: [ref(RUN, 0)] });
    tools.convert();
    expect(keys()[0]!.leg.kind).toBe('curve');
    expect(notices.said).toMatch(/^3 keys became \d; at most 0\.00\d+ m off at f /);
    tools.convert();
    expect(notices.said).toBe('These legs are curves or holds already');
  });
});

describe('pictures of legs', () => {
  it('are drawn of the true curves and tell their peaks', () => {
    const [sine] = easeShapes('both');
    expect(sine!.speed).toBeCloseTo(Math.PI / 2, 3);
    const cycloidal = lawShapes().find(({ name }) => name === 'cycloidal')!;
    expect(cycloidal.acceleration).toBeCloseTo(2 * Math.PI, 2);
    const points = cycloidal.path
      .split(/[ML]/)
      .filter(Boolean)
      .map((text) => text.split(',').map(Number));
    expect(points[0]).toEqual([2, PICTURE.height - PICTURE.room]);
    expect(points.at(-1)).toEqual([PICTURE.width - 2, PICTURE.room]);
    expect(points[Math.floor(points.length / 2)]![1]).toBeCloseTo(PICTURE.height / 2, 6);
  });
});

describe('pasting', () => {
  it('goes onto the chosen channels, starting from the value there now', () => {
    const { studio, stage, injector, keys } = setUp();
    const paster = injector.get(Paster);
    paster.copied.set(copyKeys(studio.project()!, [ref(RUN, 24), ref(RUN, 48)]));
    studio.pick({ channels: [LIFT] });
    stage.frame.set(60);
    paster.paste({ times: -1, fromNow: true });
    expect(
      keys(LIFT)
        .slice(-2)
        .map(({ frame, value }) => [frame, value]),
    ).toEqual([
      [60, 3],
      [84, 1],
    ]);
    expect(studio.bench().keys).toEqual([ref(LIFT, 60), ref(LIFT, 84)]);
  });
});

describe('numbers of treatments', () => {
  it('keep within what they may be, and bounds the right way round', () => {
    const noise = newTreatment('noise', 1);
    const [, period, seed, octaves, loop] = treatmentFields(noise);
    expect(withField(noise, period!, -3)).toMatchObject({ period: 0.01 });
    expect(beyondText(period!, -3)).toBe('Period: at least 0.01');
    expect(withField(noise, seed!, 2.6)).toMatchObject({ seed: 3 });
    expect(withField(noise, octaves!, 1e9)).toMatchObject({ octaves: 24 });
    expect(beyondText(octaves!, 1e9)).toBe('Octaves: at most 24');
    expect(beyondText(octaves!, 24)).toBeNull();
    expect(fieldNumber(noise, loop!)).toBeNull();
    expect(fieldNumber(withField(noise, loop!, 48), loop!)).toBe(48);
    const clamp = newTreatment('clamp', 0);
    const [low, high] = treatmentFields(clamp);
    expect(isRefused(withField(withField(clamp, low!, 2), high!, 1))).toBe(true);
    expect(isRefused(withField(clamp, low!, 2))).toBe(false);
  });
});
