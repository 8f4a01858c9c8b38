import '@angular/compiler';
import { addDriver, newKey, type Driver, type DriverName, type DriverWish, type Project } from '@kaizen/core';
import { chartProject } from '../../testing/chart-project';
import { commandFakes } from '../../testing/command-fakes';
import { DriverTableCommands } from './driver-table-commands';

const TARGET = 'door/rotate.y';
const RUN = 'wagon/translate.x';

/** The chart’s project with the door driven by the wagon. */
function driven(kind: DriverName, wish: DriverWish): Project {
  const made = addDriver(chartProject(), kind, TARGET, wish);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return made.value.project;
}

function setUp(kind: DriverName, wish: DriverWish) {
  const made = commandFakes(driven(kind, wish), [DriverTableCommands]);
  const driver = () => made.studio.project()!.drivers.find(({ target }) => target === TARGET)!;
  return { ...made, driver };
}

const linear = { mode: 'linear', slope: 0, reach: 1 / 3 } as const;
const point = (frame: number, value: number) => ({ ...newKey(frame, value), in: linear, out: linear });

describe('points of a map', () => {
  const setUpMap = () =>
    setUp('map', {
      input: RUN,
      curve: {
        keys: [point(0, 0), point(2, 45)],
        before: { mode: 'hold', count: null, pin: null },
        after: { mode: 'hold', count: null, pin: null },
      },
    });
  const points = (driver: Driver) =>
    driver.kind === 'map' ? driver.curve.keys.map(({ frame, value }) => [frame, value]) : [];

  it('come after the last, as far from it as the one before, and go again', () => {
    const { registry, driver, usable, studio } = setUpMap();
    registry.run('drive.point-add', driver());
    expect(points(driver())).toEqual([
      [0, 0],
      [2, 45],
      [4, 45],
    ]);
    registry.run('drive.point-remove', { driver: driver(), at: 1 });
    registry.run('drive.point-remove', { driver: driver(), at: 0 });
    expect(points(driver())).toEqual([[4, 45]]);
    expect(usable('drive.point-remove', { driver: driver(), at: 0 })).toBe(false);
    expect(studio.labels).toEqual(Array.from({ length: 3 }, () => 'Driver of turn Y'));
  });

  it('are of the chosen part where no button says which: the last one is meant', () => {
    const { registry, driver, usable, studio } = setUpMap();
    expect(usable('drive.point-remove')).toBe(false);
    studio.pick({ parts: ['wagon'] });
    expect(usable('drive.point-remove')).toBe(false);
    studio.pick({ parts: ['door'] });
    registry.run('drive.point-remove');
    expect(points(driver())).toEqual([[0, 0]]);
  });

  it('are smooth all of them, or straight between', () => {
    const { registry, driver, isOn } = setUpMap();
    expect(isOn('drive.smooth', driver())).toBe(false);
    registry.run('drive.smooth', driver());
    expect(isOn('drive.smooth', driver())).toBe(true);
    registry.run('drive.smooth', driver());
    expect(isOn('drive.smooth', driver())).toBe(false);
  });
});

describe('stretches of a cam', () => {
  it('are halved at the end; without the last one the one before it goes on to the full turn', () => {
    const { registry, driver, usable, studio } = setUp('linkage', {
      linkage: 'cam',
      inputs: { angle: RUN },
      output: 'lift',
      params: {
        program: [
          { to: 120, lift: 0.02, law: 'cycloidal' },
          { to: 200, law: 'dwell' },
          { to: 360, lift: 0, law: 'cycloidal' },
        ],
      },
    });
    const ends = () => {
      const own = driver();
      return own.kind === 'linkage' ? (own.params['program'] as { to: number }[]).map(({ to }) => to) : [];
    };
    registry.run('drive.stretch-add', driver());
    expect(ends()).toEqual([120, 200, 280, 360]);
    studio.pick({ channels: [TARGET] });
    registry.run('drive.stretch-remove');
    expect(ends()).toEqual([120, 200, 360]);
    registry.run('drive.stretch-remove', { driver: driver(), at: 0 });
    expect(ends()).toEqual([200, 360]);
    registry.run('drive.stretch-remove');
    expect([ends(), usable('drive.stretch-remove')]).toEqual([[360], false]);
  });
});

describe('inputs of a formula', () => {
  it('get the usual letters that are free, never e, and what is read first already', () => {
    const { registry, driver, studio } = setUp('expression', { inputs: { x: RUN, z: RUN }, expression: 'x' });
    const inputs = () => {
      const own = driver();
      return own.kind === 'expression' ? own.inputs : {};
    };
    for (let i = 0; i < 6; i++) registry.run('drive.input-add', driver());
    expect(Object.keys(inputs()).sort()).toEqual(['a', 'b', 'c', 'd', 'f', 'x', 'y', 'z']);
    expect(inputs()['y']).toBe(RUN);
    registry.run('drive.input-remove', { driver: driver(), name: 'z' });
    studio.pick({ parts: ['door'] });
    registry.run('drive.input-remove');
    expect(Object.keys(inputs()).sort()).toEqual(['a', 'b', 'c', 'd', 'x', 'y']);
  });

  it('that the formula still reads stay, and it is said', () => {
    const { registry, driver, notices } = setUp('expression', { inputs: { x: RUN }, expression: '2 * x' });
    const before = driver();
    registry.run('drive.input-remove', { driver: before, name: 'x' });
    expect(driver()).toBe(before);
    expect(notices.said).toContain('x');
  });
});
