import fc from 'fast-check';
import { chartProject } from '../../testing/chart-project';
import { benchFromRecord, benchRecord } from '../bench-record';
import { benchFields, initialBench, type BenchState } from '.';

const names = Object.keys(benchFields) as (keyof BenchState)[];
const project = chartProject();

describe('the fields of the Bench’s state', () => {
  it('begin as what they must be', () => {
    expect(names.filter((name) => !benchFields[name].is(benchFields[name].initial))).toEqual([]);
  });

  it('come back from a record as they were', () => {
    const bench: BenchState = {
      ...initialBench,
      frame: 7,
      density: 'rates',
      tool: 'turn',
      turnPoint: [1, 2, 3],
      sheet: 'time',
      playSpeed: 0.5,
    };
    const stored = JSON.parse(JSON.stringify(benchRecord(bench, null))) as unknown;
    expect(benchFromRecord(stored, project)).toEqual(bench);
  });

  it('that are not what they must be begin anew, and no other field with them', () => {
    const kept: BenchState = { ...initialBench, frame: 9, density: 'ticks', axes: 'world', playMode: 'once' };
    fc.assert(
      fc.property(fc.constantFrom(...names), fc.jsonValue(), (name, value) => {
        if (benchFields[name].is(value)) return;
        const back = benchFromRecord({ version: 1, bench: { ...kept, [name]: value } }, project);
        const group = typeof benchFields[name].initial === 'object' && typeof value === 'object';
        const start = name === 'frame' ? project.range.start : initialBench[name];
        expect({ ...back, [name]: null }).toEqual({ ...kept, [name]: null });
        if (!group) expect(back[name]).toEqual(start);
      }),
    );
  });
});
