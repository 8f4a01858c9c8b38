import { curvePolyline, drivenPolyline, polylineExtent, sampleStep } from './polyline';
import { moveKeys } from '../edit';
import { programOf, slotOf } from '../../testing/project';
import { RUN, wagonProject } from '../../testing/wagon';

const project = wagonProject();
const program = programOf(project);
const LIFT = 'hook/translate.y';
const curveOf = (channel: string, of = program) => of.curveAt(slotOf(of, channel));
const [run, lift] = [curveOf(RUN), curveOf(LIFT)];

describe('a curve drawn out', () => {
  it('has its keys exactly, and a hold’s jump as two points on one frame', () => {
    const { points } = curvePolyline(lift!, 0, 48, 5);
    const pairs = Array.from({ length: points.length / 2 }, (_, i) => [points[i * 2], points[i * 2 + 1]]);
    expect(pairs.filter(([frame]) => frame === 36)).toEqual([
      [36, 1],
      [36, 3],
    ]);
    expect(pairs.filter(([frame]) => frame === 12)).toEqual([[12, 1]]);
  });

  it('is the same object while the curve is, also when panned a little; another when the curve is', () => {
    const first = curvePolyline(run!, 0, 48, 0.5);
    expect(curvePolyline(run!, 10, 58, 0.5)).toBe(first);
    expect(curvePolyline(run!, 0, 48, 0.25)).not.toBe(first);
    const moved = programOf(
      moveKeys(project, [{ channel: LIFT, frame: 36 }], { frames: 1, value: 0 }).project,
    );
    expect(curveOf(RUN, moved)).toBe(run);
    expect(curveOf(LIFT, moved)).not.toBe(lift);
  });

  it('follows a driver where the channel has no curve', () => {
    const slot = program.structure.slots.get('wheel/rotate.z')!;
    const line = drivenPolyline(program, slot, 0, 48, 24);
    expect(Array.from(line.points)).toEqual([
      0,
      0,
      24,
      (2 / 0.5) * (180 / Math.PI),
      48,
      (4 / 0.5) * (180 / Math.PI),
    ]);
    expect(drivenPolyline(program, slot, 0, 48, 24)).toBe(line);
  });

  it('has an extent over the frames that show', () => {
    expect(polylineExtent(curvePolyline(run!, 0, 48, 0.5), 0, 24)).toEqual({ low: 0, high: 2 });
  });

  it('is sampled at a power of two, at most one and a half pixels apart', () => {
    for (const framesPerPixel of [0.01, 0.3, 1, 7]) {
      const step = sampleStep(framesPerPixel);
      expect(Number.isInteger(Math.log2(step))).toBe(true);
      expect(step / framesPerPixel).toBeLessThanOrEqual(1.5);
      expect(step / framesPerPixel).toBeGreaterThan(0.75);
    }
  });
});
