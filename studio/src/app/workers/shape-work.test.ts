import { curveOf } from '@kaizen/core';
import { chartProject } from '../testing/chart-project';
import { shapeWork } from './shape-work';

const RUN = 'wagon/translate.x';

/** The wagon's run with a key on every frame. */
function dense() {
  const project = chartProject();
  return shapeWork.bake(project, [RUN], 1, { start: 0, end: 48 }, () => undefined);
}
const withDense = () => {
  const project = chartProject();
  const [curve] = dense().curves;
  const clip = project.clips[0]!;
  return { ...project, clips: [{ ...clip, curves: [curve!, clip.curves[1]!] }] };
};

describe('what the shape worker does', () => {
  it('bakes a key on every frame and gives back only the curves that changed', () => {
    const shares: number[] = [];
    const made = shapeWork.bake(
      chartProject(),
      [RUN],
      1,
      { start: 0, end: 48 },
      (share) => void shares.push(share),
    );
    expect(made.curves.map(({ channel }) => channel)).toEqual([RUN]);
    expect(made.keysBefore).toBe(3);
    expect(made.keysAfter).toBe(49);
    expect(made.error).toBeLessThan(1e-3);
    expect(shares.at(-1)).toBe(1);
  });

  it('simplifies what was baked back to few keys, telling how far it is', () => {
    const project = withDense();
    const refs = curveOf(project, RUN)!.keys.map(({ frame }) => ({ channel: RUN, frame }));
    const shares: number[] = [];
    const made = shapeWork.simplify(project, refs, 1e-3, (share) => void shares.push(share));
    expect(made.keysBefore).toBe(49);
    expect(made.keysAfter).toBeLessThan(6);
    expect(made.error).toBeLessThanOrEqual(1e-3);
    expect(made.at!.channel).toBe(RUN);
    expect(shares.length).toBeGreaterThan(3);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.at(-1)).toBe(1);
  });

  it('gives back nothing where nothing changes', () => {
    const project = chartProject();
    const refs = curveOf(project, RUN)!.keys.map(({ frame }) => ({ channel: RUN, frame }));
    expect(shapeWork.simplify(project, refs, 1e-9, () => undefined).curves).toEqual([]);
  });
});
