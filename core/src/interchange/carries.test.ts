import { newPart, newProject, keyValues, addTreatment, newTreatment } from '../edit';
import type { Project } from '../project';
import { csvCarries, gltfCarries } from './carries';

const camera = newPart('camera', 'Boom camera');
const key = (project: Project, channel: string) =>
  keyValues(project, [
    { channel: `${camera.id}/${channel}`, frame: 0, value: 0 },
    { channel: `${camera.id}/${channel}`, frame: 12, value: 3 },
  ]);
const empty: Project = { ...newProject('p', 'P'), parts: [camera] };

describe('what a glTF carries', () => {
  it('of a shot with a shaken camera and a lens that moves is told as it is', () => {
    const shaken = addTreatment(
      key(empty, 'translate.x'),
      `${camera.id}/translate.x`,
      newTreatment('noise', 0.1),
    );
    const all = ['rotate.y', 'camera.focalLength', 'camera.focusDistance'].reduce(key, shaken);
    const { baked, left } = gltfCarries(all);
    expect(baked).toEqual(['1 turn', '1 curve under treatments', '1 lens']);
    expect(left).toEqual(['1 motion of focus or f-stop']);
  });

  it('counts every clip, and says nothing of what a project has not', () => {
    const moved = key(empty, 'rotate.y');
    const [main] = moved.clips;
    const two = { ...moved, clips: [main!, { ...main!, id: 'b', name: 'B' }] };
    expect(gltfCarries(two).baked).toEqual(['2 turns']);
    expect(gltfCarries(two).exactly).toContain('2 clips');
    expect(gltfCarries(key(empty, 'translate.x'))).toMatchObject({ baked: [], left: [] });
  });
});

describe('what a CSV carries', () => {
  it('is values on frames, of one clip', () => {
    const { exactly, left } = csvCarries(key(empty, 'rotate.y'), 49, 1);
    expect(exactly[0]).toMatch(/^the value of 1 channel on 49 frames/);
    expect(left).toContain('parts, shapes and looks');
  });
});
