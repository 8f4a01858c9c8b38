import { compile } from '../../evaluate';
import { shotCamera } from '../../reading';
import type { Part, Project } from '../../project';
import { newPart } from '../new-part';
import { newProject } from '../new-project';
import { cutsOf, cutTo, removeCut } from './cuts';

const cameras: Project = {
  ...newProject('p', 'P'),
  parts: ['boom', 'crane', 'quay'].map((id): Part => ({ ...newPart('camera', id), id })),
};

function shownAt(project: Project, frame: number): string {
  const program = compile(project);
  if (!program.ok) throw new Error('not compiled');
  const out = program.value.createOutput();
  program.value.run(frame, out);
  return project.parts[shotCamera(program.value, out)]!.id;
}

describe('cuts between cameras', () => {
  it('show one camera from their frame to the next cut, and the first one before', () => {
    const cut = cutTo(cutTo(cameras, 'quay', 30), 'crane', 80);
    expect(cutsOf(cut)).toEqual([
      { frame: 0, camera: 'boom' },
      { frame: 30, camera: 'quay' },
      { frame: 80, camera: 'crane' },
    ]);
    expect([-5, 0, 29.9, 30, 79, 80, 500].map((frame) => shownAt(cut, frame))).toEqual([
      'boom',
      'boom',
      'boom',
      'quay',
      'quay',
      'crane',
      'crane',
    ]);
  });

  it('stand on held keys, so that nothing is half shown between them', () => {
    const cut = cutTo(cameras, 'quay', 30);
    const kinds = cut.clips[0]!.curves.flatMap(({ keys }) => keys.map(({ leg }) => leg.kind));
    expect(new Set(kinds)).toEqual(new Set(['hold']));
  });

  it('between two cuts leave the later one; taken away they let the camera before go on', () => {
    const cut = cutTo(cutTo(cutTo(cameras, 'quay', 30), 'boom', 90), 'crane', 60);
    expect(cutsOf(cut).map(({ camera }) => camera)).toEqual(['boom', 'quay', 'crane', 'boom']);
    const without = removeCut(cut, 60);
    expect(shownAt(without, 70)).toBe('quay');
    expect(cutsOf(cutTo(cameras, 'no such', 3))).toEqual([]);
  });
});
