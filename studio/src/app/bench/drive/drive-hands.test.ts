import '@angular/compiler';
import { newPart, type Driver, type Part, type Project } from '@kaizen/core';
import { chartProject } from '../../testing/chart-project';
import { fakes } from '../../testing/fake-studio';
import { PartPicker } from '../stage/picker';
import { DriveHands } from './drive-hands';

function setUp(project: Project = chartProject()) {
  const made = fakes(project);
  const { studio, injector } = made;
  const driverOf = (target: string): Driver | undefined =>
    studio.project()!.drivers.find((driver) => driver.target === target);
  return { ...made, hands: injector.get(DriveHands), picker: injector.get(PartPicker), driverOf };
}

/** The chart’s project with a round wheel on its wagon, which nothing drives yet. */
function withRoundWheel(): Project {
  const project = chartProject();
  const round = newPart('cylinder', 'Wheel');
  const wheel = (part: Part): Part =>
    part.id === 'wheel'
      ? { ...round, id: 'wheel', parent: 'wagon', rest: { ...round.rest, rotate: [90, 0, 0] } }
      : part;
  return { ...project, drivers: [], parts: project.parts.map(wheel) };
}

describe('drivers by hand', () => {
  it('a new one is for the chosen channel of its part, else one that moves, else its height', () => {
    const { hands, studio } = setUp();
    expect(hands.targetFor('wagon')).toBe('wagon/translate.x');
    expect(hands.targetFor('door')).toBe('door/translate.y');
    studio.pick({ parts: [], channels: ['door/rotate.y', 'wagon/rotate.z'], keys: [], handles: [] });
    expect(hands.targetFor('door')).toBe('door/rotate.y');
    expect(hands.targetFor('wagon')).toBe('wagon/rotate.z');
    expect(hands.targetFor('hook')).toBe('hook/translate.y');
  });

  it('asks for what it reads: a part gives the channel like its own, a row its very channel', () => {
    const { hands, picker, driverOf, studio } = setUp();
    hands.ask('echo', 'door/translate.x');
    expect(picker.question()!.words).toContain('Door');
    picker.answer('wagon');
    expect(driverOf('door/translate.x')).toMatchObject({
      kind: 'echo',
      input: 'wagon/translate.x',
      delay: 3,
      gain: 0.5,
    });
    hands.ask('echo', 'shed/rotate.y');
    picker.answer('hook', null, 'hook/translate.y');
    expect(driverOf('shed/rotate.y')).toMatchObject({ input: 'hook/translate.y' });
    expect(studio.labels).toHaveLength(2);
    expect(picker.question()).toBeNull();
  });

  it('the distance to itself is no answer, and the question stays', () => {
    const { hands, picker, driverOf } = setUp();
    hands.ask('distance', 'door/visible');
    picker.answer('door');
    expect(picker.refusal()).toContain('pick another part');
    expect(picker.question()).not.toBeNull();
    picker.answer('wagon');
    expect(driverOf('door/visible')).toMatchObject({ kind: 'distance', of: 'door', to: 'wagon' });
  });

  it('one that would run in a ring is refused in a sentence, and nothing is changed', () => {
    const { hands, studio, notices } = setUp();
    const before = studio.project();
    hands.drive('echo', 'wagon/translate.x', 'wheel/rotate.z');
    expect(studio.project()).toBe(before);
    expect(notices.said).not.toBe('');
    expect(studio.labels).toEqual([]);
  });

  it('shows a change without keeping it, takes it back, and keeps it when it is made', () => {
    const { hands, studio, stage } = setUp();
    hands.drive('echo', 'door/translate.x', 'wagon/translate.x');
    stage.goTo(24);
    const { id } = studio.project()!.drivers.at(-1)!;
    const before = stage.valueOf('door/translate.x');
    const { slots } = stage.program()!.structure;
    const inputThen = stage.program()!.channelValue(slots.get('wagon/translate.x')!, 24 - 3);
    expect(before).toBeCloseTo(0.5 * inputThen, 9);
    hands.show(id, 'Strength', { gain: 1 });
    expect(stage.valueOf('door/translate.x')).toBeCloseTo(2 * before!, 9);
    expect(studio.project()!.drivers.at(-1)).toMatchObject({ gain: 0.5 });
    hands.show(id, 'Strength', null);
    expect(stage.valueOf('door/translate.x')).toBeCloseTo(before!, 9);
    hands.change(id, 'Strength', { gain: 1 });
    expect(stage.valueOf('door/translate.x')).toBeCloseTo(2 * before!, 9);
    expect(studio.labels.at(-1)).toBe('Strength');
  });

  it('they act in their order, which can be changed, and can be removed', () => {
    const { hands, studio } = setUp();
    hands.drive('echo', 'door/translate.x', 'wagon/translate.x');
    hands.drive('follow', 'door/translate.x', 'hook/translate.y');
    const ids = () => studio.project()!.drivers.map(({ id }) => id);
    const [, first, second] = ids();
    hands.move(second!, -1);
    expect(ids().indexOf(second!)).toBeLessThan(ids().indexOf(first!));
    hands.remove(first!);
    expect(ids()).not.toContain(first);
    expect(ids()).toContain(second);
  });

  it('baked to keys they give the same on whole frames, and come back', () => {
    const { hands, studio, stage } = setUp();
    const values = () =>
      [0, 7, 24, 48].map((frame) => {
        stage.goTo(frame);
        return stage.valueOf('wheel/rotate.z');
      });
    const before = values();
    expect(hands.isBaked('wheel/rotate.z')).toBe(false);
    hands.bake('wheel/rotate.z');
    expect(hands.isBaked('wheel/rotate.z')).toBe(true);
    for (const [i, value] of values().entries()) expect(value).toBeCloseTo(before[i]!, 6);
    hands.unbake('wheel/rotate.z');
    expect(hands.isBaked('wheel/rotate.z')).toBe(false);
    expect(values()).toEqual(before);
    expect(studio.labels).toHaveLength(2);
  });

  it('a wheel put on its wagon rolls on the way that the wagon is keyed', () => {
    const { hands, picker, studio, stage, notices } = setUp(withRoundWheel());
    hands.askWheel('wheel');
    picker.answer('wheel');
    expect(picker.refusal()).toContain('Wheel itself is no answer');
    picker.answer('wagon');
    expect(notices.said).toContain('Read off the parts');
    expect(notices.said).toContain('0.5');
    const driver = studio.project()!.drivers[0]!;
    expect(driver).toMatchObject({ kind: 'linkage', linkage: 'wheel', params: { radius: 0.5 } });
    stage.goTo(48);
    // Four metres of way on a radius of half a metre are eight radians.
    expect(Math.abs(stage.valueOf(driver.target)!)).toBeCloseTo((8 * 180) / Math.PI, 6);
  });

  it('two pieces are asked for one after the other', () => {
    const { hands, picker } = setUp();
    hands.askSliderCrank('wheel');
    expect(picker.question()!.words).toContain('Pick the rod on the pin of Wheel');
    picker.answer('hook');
    expect(picker.question()!.words).toContain('Pick what Hook pushes');
    picker.answer('hook');
    expect(picker.refusal()).toContain('Hook itself');
  });
});
