import { activeClip } from '../../project';
import { compile } from '../../evaluate';
import { readDocument, writeProject } from '../../file';
import { newProject } from '../new-project';
import { changeOwnNumber } from './own-numbers';
import { addSun } from './sun';

function sunAt(numbers: Readonly<Record<string, number>>): {
  readonly value: (property: string) => number;
  readonly matrix: Float64Array;
} {
  const { project, added } = addSun(newProject('p', 'P'));
  const set = Object.entries(numbers).reduce(
    (at, [name, value]) => changeOwnNumber(at, added[0]!, name, { value }),
    project,
  );
  const program = compile(set);
  if (!program.ok) throw new Error(JSON.stringify(program.problems));
  const matrix = new Float64Array(16);
  program.value.worldMatrix(0, 0, matrix);
  const slot = (property: string) => program.value.structure.slots.get(`${added[0]!}/${property}`)!;
  return { value: (property) => program.value.channelValue(slot(property), 0), matrix };
}

describe('a sun by hour and day', () => {
  it.each([
    // Duffie and Beckman, Solar Engineering of Thermal Processes, example 1.6.2: Madison, 43° north.
    { day: 44, hour: 9.5, latitude: 43, height: 90 - 66.5, turn: 40 },
    { day: 182, hour: 18.5, latitude: 43, height: 90 - 79.6, turn: -112 },
  ])('stands where the textbook has it: day $day, $hour h', ({ height, turn, ...numbers }) => {
    const { value } = sunAt(numbers);
    expect(Math.abs(value('custom.height') - height)).toBeLessThan(0.3);
    expect(Math.abs(value('rotate.y') - turn)).toBeLessThan(0.3);
  });

  it('shines from there: at noon of the equinox on the equator straight down, in the morning from the east', () => {
    const noon = sunAt({ day: 81, hour: 12, latitude: 0 });
    expect(noon.matrix[9]).toBeCloseTo(1, 4);
    const morning = sunAt({ day: 81, hour: 7, latitude: 0 });
    const [x, y, z] = morning.matrix.slice(8, 11);
    expect([x, y]).toEqual([
      expect.closeTo(Math.cos((15 * Math.PI) / 180), 2),
      expect.closeTo(Math.sin((15 * Math.PI) / 180), 2),
    ]);
    expect(z).toBeCloseTo(0, 2);
    expect(sunAt({ day: 172, hour: 12, latitude: 52 }).matrix[10]).toBeGreaterThan(0.4);
  });

  it('has no light by night and a sky that is dark then', () => {
    const night = sunAt({ hour: 0 });
    expect([night.value('light.intensity'), night.value('light.sky')]).toEqual([0, 0]);
    const day = sunAt({ hour: 12, latitude: 23.45, day: 172 });
    expect([day.value('light.intensity'), day.value('light.sky')]).toEqual([expect.closeTo(1, 5), 1]);
  });

  it('is written and read again, twice beside each other', () => {
    const twice = addSun(addSun(newProject('p', 'P')).project);
    expect(twice.added).toEqual(['sun-2']);
    const read = readDocument(JSON.parse(writeProject(twice.project)));
    expect(read.ok && read.value).toEqual(twice.project);
    expect(activeClip(twice.project)?.curves).toEqual([]);
    expect(compile(twice.project).ok).toBe(true);
  });
});
