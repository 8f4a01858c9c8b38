import '@angular/compiler';
import { chartProject } from '../../testing/chart-project';
import { fakes } from '../../testing/fake-studio';
import { ChartModel } from './chart-model';
import { commandFakes } from '../../testing/command-fakes';
import { RowSetCommands } from './row-set-commands';
import { RowSets } from './row-sets';

const RUN = 'wagon/translate.x';
const LIFT = 'hook/translate.y';

function setUp() {
  const made = fakes(chartProject());
  const rows = () =>
    made.injector
      .get(ChartModel)
      .rows()
      .map(({ id }) => id);
  return { ...made, rows, sets: made.injector.get(RowSets) };
}

describe('sets of rows', () => {
  it('are kept from what is chosen, under the name of their parts, and show alone', () => {
    const { studio, sets, rows } = setUp();
    studio.pick({ channels: [RUN, LIFT] });
    sets.keep(sets.nameOffered());
    expect(sets.all()).toEqual([{ name: 'Wagon and 1 more', channels: [RUN, LIFT] }]);
    expect(rows()).toEqual(['wagon', RUN, 'hook', LIFT]);
    sets.show('Wagon and 1 more');
    expect(rows()).toContain('shed');
  });

  it('of a part have its rows; without a choice all that show', () => {
    const { studio, sets } = setUp();
    studio.pick({ parts: ['hook'] });
    expect(sets.chosen()).toEqual([LIFT]);
    studio.pick({ parts: [] });
    expect(sets.chosen()).toEqual([RUN, 'wheel/rotate.z', LIFT]);
  });

  it('get names that tell them apart; one of the same name takes the place of the other', () => {
    const { studio, sets } = setUp();
    studio.pick({ channels: [RUN] });
    sets.keep(sets.nameOffered());
    expect(sets.nameOffered()).toBe('Wagon 2');
    studio.pick({ channels: [LIFT] });
    sets.keep('Wagon');
    expect(sets.all()).toEqual([{ name: 'Wagon', channels: [LIFT] }]);
    sets.remove('Wagon');
    expect([sets.all(), studio.bench().rowSet]).toEqual([[], null]);
  });

  it('by commands: without a name the one that shows is meant, else the one kept last', () => {
    const { studio, registry, injector, usable, isOn } = commandFakes(chartProject(), [RowSetCommands]);
    const sets = injector.get(RowSets);
    expect(usable('rows.set-show')).toBe(false);
    studio.pick({ channels: [RUN] });
    sets.keep('Runs');
    studio.pick({ channels: [LIFT] });
    sets.keep('Lifts');
    expect([isOn('rows.set-show', 'Lifts'), isOn('rows.set-show', 'Runs')]).toEqual([true, false]);
    registry.run('rows.set-show', 'Runs');
    expect(sets.current()?.name).toBe('Runs');
    registry.run('rows.set-show');
    expect([sets.current(), usable('rows.set-remove')]).toEqual([null, false]);
    registry.run('rows.set-show');
    registry.run('rows.set-remove');
    expect(sets.all().map(({ name }) => name)).toEqual(['Runs']);
  });
});
