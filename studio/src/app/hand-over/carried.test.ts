import { csvCarries, gltfCarries } from './carried';
import { chartProject } from '../testing/chart-project';

describe('what a format carries', () => {
  it('counts what this project has', () => {
    const carried = gltfCarries(chartProject());
    expect(carried.exactly).toMatch(/^5 parts, /);
    expect(carried.baked).toMatch(/^1 driver, eases/);
    expect(csvCarries(49, 1).exactly).toMatch(/^the value of 1 channel on 49 frames/);
  });
});
