import '@angular/compiler';
import { newPart, newProject, type Part, type Project } from '@kaizen/core';
import { fakes } from '../../testing/fake-studio';
import { PartNumbers } from './part-numbers';

/** A crate with a number of its own at X 1, a lamp at X 3, both 2 m high. */
function quay(): Project {
  const at = (part: Part, id: string, x: number): Part => ({
    ...part,
    id,
    rest: { ...part.rest, translate: [x, 2, 0] },
  });
  return {
    ...newProject('quay', 'Quay'),
    parts: [
      { ...at(newPart('box', 'Crate'), 'crate', 1), custom: [{ name: 'load', value: 0.5 }] },
      at(newPart('light', 'Lamp'), 'lamp', 3),
    ],
  };
}

function setUp() {
  const made = fakes(quay());
  const numbers = made.injector.get(PartNumbers);
  const choose = (...parts: string[]) => made.studio.pick({ parts, channels: [], keys: [], handles: [] });
  const loose = () => made.studio.loose().map(({ channel, value }) => [channel, value]);
  return { ...made, numbers, choose, loose };
}

describe('the numbers of several parts', () => {
  it('are one a part, of what all of them have', () => {
    const { numbers, choose } = setUp();
    expect([numbers.parts(), numbers.valuesOf('translate.x')]).toEqual([[], []]);
    choose('crate');
    expect(numbers.properties()).toContain('custom.load');
    choose('crate', 'lamp');
    expect(numbers.valuesOf('translate.x')).toEqual([1, 3]);
    expect(numbers.restOf('translate.y')).toEqual([2, 2]);
    expect(numbers.properties()).toContain('visible');
    expect(numbers.properties()).not.toContain('custom.load');
  });

  it('go to all: one value, so much more, so many times as much, in one step', () => {
    const { numbers, choose, loose, studio } = setUp();
    choose('crate', 'lamp');
    numbers.pose('translate.x', (x) => x * 2);
    expect(loose()).toEqual([
      ['crate/translate.x', 2],
      ['lamp/translate.x', 6],
    ]);
    expect(studio.labels).toEqual([]);
    expect([numbers.isLoose('translate.x'), numbers.isLoose('translate.y')]).toEqual([true, false]);
    numbers.setRest('translate.y', () => 0.5);
    expect(studio.project()!.parts.map(({ rest }) => rest.translate[1])).toEqual([0.5, 0.5]);
    numbers.setRest('translate.y', (y) => y + 1);
    expect(numbers.restOf('translate.y')).toEqual([1.5, 1.5]);
    expect(studio.labels).toEqual(['Rest of 2 parts', 'Rest of 2 parts']);
  });

  it('are shown while they are scrubbed, and given up', () => {
    const { numbers, choose, stage } = setUp();
    choose('crate', 'lamp');
    numbers.show('translate.x', (x) => x + 1);
    expect(stage.posing().map(({ value }) => value)).toEqual([2, 4]);
    numbers.show(null, null);
    expect(stage.posing()).toEqual([]);
  });

  it('are set together, as the three of a colour are', () => {
    const { numbers, choose, loose } = setUp();
    choose('crate', 'lamp');
    numbers.poseTogether('Place', { 'translate.x': 5, 'translate.z': 6, 'custom.load': 1 });
    expect(loose()).toEqual([
      ['crate/translate.x', 5],
      ['lamp/translate.x', 5],
      ['crate/translate.z', 6],
      ['lamp/translate.z', 6],
    ]);
  });

  it('stay while it plays, but are those of another choice at once', () => {
    const { numbers, choose, stage } = setUp();
    choose('crate');
    expect(numbers.valuesOf('translate.x')).toEqual([1]);
    stage.playing.set(true);
    numbers.show('translate.x', () => 9);
    expect(numbers.valuesOf('translate.x')).toEqual([1]);
    choose('lamp');
    expect(numbers.valuesOf('translate.x')).toEqual([3]);
  });
});
