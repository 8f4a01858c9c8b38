import { neighbourKeyFrame } from './key-time';
import { chartProject } from '../../testing/chart-project';

const project = chartProject();
const none = { channels: [], parts: [] };

describe('stepping from key to key', () => {
  it('goes by all keys, by the chosen parts’, or by the chosen channels’', () => {
    expect(neighbourKeyFrame(project, none, 12, 1)).toBe(24);
    expect(neighbourKeyFrame(project, { channels: [], parts: ['hook'] }, 12, 1)).toBe(36);
    expect(neighbourKeyFrame(project, { channels: ['wagon/translate.x'], parts: ['hook'] }, 36, -1)).toBe(24);
  });

  it('goes nowhere beyond the last', () => {
    expect(neighbourKeyFrame(project, none, 48, 1)).toBeNull();
    expect(neighbourKeyFrame(project, none, 0, -1)).toBeNull();
  });
});
