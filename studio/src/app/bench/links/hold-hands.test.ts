import '@angular/compiler';
import { newPart, type Constraint, type Part, type PathPart, type Project } from '@kaizen/core';
import { chartProject } from '../../testing/chart-project';
import { fakes } from '../../testing/fake-studio';
import { PartPicker } from '../stage/picker';
import { HoldHands } from './hold-hands';
import { PathHands } from './path-hands';

function at(part: Part, translate: readonly [number, number, number]): Part {
  return { ...part, rest: { ...part.rest, translate } };
}

function setUp(change: (project: Project) => Project = (same) => same) {
  let drawn: ((path: string) => void) | null = null;
  const paths = { draw: (then: (path: string) => void) => (drawn = then) };
  const made = fakes(change(chartProject()), [{ provide: PathHands, useValue: paths }]);
  const { studio, injector } = made;
  const last = (): Constraint => studio.project()!.constraints.at(-1)!;
  const pathDrawn = (path: string) => drawn!(path);
  return { ...made, hands: injector.get(HoldHands), picker: injector.get(PartPicker), last, pathDrawn };
}

/** The project with a straight rail of four metres. */
function withPath(project: Project): Project {
  const points = [[0, 0, 0] as const, [4, 0, 0] as const];
  const rail: PathPart = {
    ...newPart('group', 'Rail'),
    id: 'rail',
    kind: 'path',
    path: { points, closed: false },
  };
  return { ...project, parts: [...project.parts, rail] };
}

describe('constraints by hand', () => {
  it('a new span lasts from the first to the last chosen key of its part', () => {
    const { hands, studio } = setUp();
    const keys = [
      { channel: 'wagon/translate.x', frame: 24 },
      { channel: 'wagon/translate.x', frame: 0 },
      { channel: 'hook/translate.y', frame: 36 },
    ];
    studio.pick({ parts: [], channels: [], keys, handles: [] });
    expect(hands.spanFor('wagon')).toEqual({ start: 0, end: 24 });
    // The hook has one chosen key only, so all that are chosen say how long.
    expect(hands.spanFor('hook')).toEqual({ start: 0, end: 36 });
  });

  it('without keys it lasts a second from the playhead, no longer than the shot, and a frame at least', () => {
    const { hands, stage } = setUp();
    stage.goTo(10);
    expect(hands.spanFor('wagon')).toEqual({ start: 10, end: 34 });
    stage.goTo(40);
    expect(hands.spanFor('wagon')).toEqual({ start: 40, end: 48 });
    stage.goTo(60);
    expect(hands.spanFor('wagon')).toEqual({ start: 60, end: 61 });
  });

  it('asks for what carries a part, which is not itself', () => {
    const { hands, picker, last, studio, notices } = setUp();
    hands.askConstraint('attach', 'hook');
    expect(picker.question()!.words).toBe('Pick what carries Hook');
    picker.answer('hook');
    expect(picker.refusal()).toBe('Hook itself is no answer: pick another part');
    picker.answer('shed');
    expect(last()).toMatchObject({ kind: 'attach', part: 'hook', target: 'shed', start: 0, end: 24 });
    expect(studio.labels).toEqual(['Hook: attach']);
    expect(notices.said).toMatch(/^Hook /);
  });

  it('a chase keeps the way between the two as it is at the playhead', () => {
    const { hands, picker, last, stage } = setUp((project) => ({
      ...project,
      parts: project.parts.map((part) => (part.id === 'shed' ? at(part, [1, 2, 3]) : part)),
    }));
    stage.goTo(24);
    hands.askConstraint('chase', 'shed');
    picker.answer('wagon');
    // The wagon stands at x 2 there.
    expect(last()).toMatchObject({ kind: 'chase', part: 'shed', target: 'wagon', offset: [-1, 2, 3] });
  });

  it('an aim looks at what is picked; a heading needs nothing picked', () => {
    const { hands, picker, last } = setUp();
    hands.askConstraint('aim', 'shed');
    picker.answer('wagon');
    expect(last()).toMatchObject({ kind: 'aim', part: 'shed', target: 'wagon' });
    hands.heading('wagon');
    expect(last()).toMatchObject({ kind: 'heading', part: 'wagon' });
  });

  it('reaches with an arm of two links only, for nothing that is a part of it', () => {
    const { hands, picker, last, notices } = setUp((project) => ({
      ...project,
      parts: project.parts.map((part) => {
        if (part.id === 'hook') return { ...at(part, [0, -1, 0]), parent: 'wheel' };
        return part.id === 'wheel' ? at(part, [0, -1, 0]) : part;
      }),
    }));
    hands.askReach('wagon');
    expect(notices.said).toContain('an arm of two links');
    expect(picker.question()).toBeNull();
    hands.askReach('hook');
    picker.answer('wheel');
    expect(picker.refusal()).toBe('Wheel is a part of the arm itself');
    picker.answer('shed');
    expect(last()).toMatchObject({ kind: 'reach', middle: 'wheel', tip: 'hook', target: 'shed' });
  });

  it('goes along a path that is picked, by a number of its own, made once', () => {
    const { hands, picker, last, studio } = setUp(withPath);
    hands.askAlong('door');
    picker.answer('wagon');
    expect(picker.refusal()).toBe('Wagon is no path');
    picker.answer('rail');
    expect(last()).toMatchObject({ kind: 'along', part: 'door', path: 'rail', distance: 'door/custom.way' });
    const own = () => studio.project()!.parts.find(({ id }) => id === 'door')!.custom;
    expect(own()).toEqual([{ name: 'way', value: 0, unit: 'm' }]);
    hands.remove(last().id);
    hands.askAlong('door');
    picker.answer('rail');
    expect(own()).toHaveLength(1);
  });

  it('where there is no path yet, one is drawn first', () => {
    const { hands, picker, last, studio, pathDrawn } = setUp();
    hands.askAlong('door');
    expect(picker.question()).toBeNull();
    studio.project.set(withPath(studio.project()!));
    pathDrawn('rail');
    expect(last()).toMatchObject({ kind: 'along', part: 'door', path: 'rail' });
  });

  it('what would run in a ring is refused in a sentence, and nothing is changed', () => {
    const { hands, studio, notices } = setUp();
    hands.constrain('aim', 'wagon', { target: 'hook' });
    expect(studio.project()!.constraints).toEqual([]);
    expect(studio.labels).toEqual([]);
    expect(notices.said).not.toBe('');
  });

  it('changed by number, in another order, removed', () => {
    const { hands, studio, notices } = setUp();
    hands.plant('wagon');
    hands.heading('wagon');
    const ids = () => studio.project()!.constraints.map(({ id }) => id);
    const [plant, heading] = ids();
    hands.change(plant!, 'Planted until', { end: 30 });
    expect(studio.project()!.constraints[0]).toMatchObject({ kind: 'plant', start: 0, end: 30 });
    expect(studio.labels.at(-1)).toBe('Planted until');
    hands.change(plant!, 'Planted until', { end: -4 });
    expect(studio.project()!.constraints[0]).toMatchObject({ end: 30 });
    expect(notices.said).not.toBe('');
    hands.move(heading!, -1);
    expect(ids()).toEqual([heading, plant]);
    expect(studio.labels.at(-1)).toBe('Constraint earlier');
    hands.remove(plant!);
    expect(ids()).toEqual([heading]);
  });

  it('baked to keys it stands the same on whole frames, and comes back', () => {
    const { hands, picker, studio, stage } = setUp();
    hands.askConstraint('chase', 'shed');
    picker.answer('wagon');
    const places = () =>
      [0, 12, 24, 41].map((frame) => {
        stage.goTo(frame);
        const { program, out } = stage.now()!;
        return out.world[program.structure.partIndex.get('shed')!]![12]!;
      });
    const before = places();
    expect(new Set(before).size).toBe(4);
    hands.bake('shed');
    expect(studio.project()!.clips[0]!.curves.some(({ channel }) => channel.startsWith('shed/'))).toBe(true);
    for (const [i, place] of places().entries()) expect(place).toBeCloseTo(before[i]!, 6);
    hands.unbake('shed');
    expect(places()).toEqual(before);
  });
});
