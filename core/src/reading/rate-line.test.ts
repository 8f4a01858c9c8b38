import { curveRates, drivenRates, rateExtent, rateSteps } from './rate-line';
import { addTreatment, curveOf, newTreatment, setLeg } from '../edit';
import type { Project, Treatment } from '../project';
import { programOf } from '../../testing/project';
import { RUN, wagonProject } from '../../testing/wagon';

const trapezoid = () =>
  setLeg(wagonProject(), [{ channel: RUN, frame: 0 }], {
    kind: 'law',
    law: 'trapezoid',
    accelerate: 0.25,
    decelerate: 0.25,
  });
const linesOf = (project: Project, from = 0, to = 48, step = 1) => {
  const program = programOf(project);
  const compiled = program.curveAt(program.structure.slots.get(RUN)!)!;
  return curveRates(curveOf(project, RUN)!, compiled, from, to, step, 1 / 24);
};

describe('rates drawn out', () => {
  it('are the exact ones, per second, with pieces that end where the law bends', () => {
    const line = linesOf(trapezoid());
    const cruise = 2 / 0.75;
    expect(rateExtent(line, 1, 0, 23).high).toBeCloseTo(cruise, 6);
    expect(rateExtent(line, 2, 0, 23)).toEqual({
      low: expect.closeTo(-cruise / 0.25, 4),
      high: expect.closeTo(cruise / 0.25, 4),
    });
    const starts = line.pieces.map((piece) => piece[0]!).filter((frame) => frame >= 0 && frame < 24);
    expect(starts).toEqual([0, 6, 18]);
  });

  it('step where the acceleration does, and nowhere else', () => {
    const steps = rateSteps(linesOf(trapezoid()), 2, 0.01).filter(({ frame }) => frame < 24);
    expect(steps.map(({ frame }) => frame)).toEqual([0, 6, 18]);
    expect(steps[1]!.before).toBeCloseTo(2 / 0.75 / 0.25, 4);
    expect(steps[1]!.after).toBeCloseTo(0, 4);
    expect(rateSteps(linesOf(trapezoid()), 1, 0.01).filter(({ frame }) => frame < 24)).toEqual([]);
  });

  it('step where a clamp is met, though no key stands there', () => {
    const free = rateSteps(linesOf(wagonProject()), 1, 0.01).filter(({ frame }) => frame > 0 && frame < 24);
    const clamped = addTreatment(wagonProject(), RUN, { ...newTreatment('clamp', 0), max: 1 } as Treatment);
    const met = rateSteps(linesOf(clamped), 1, 0.01).filter(({ frame }) => frame > 0 && frame < 24);
    expect(free).toEqual([]);
    expect(met).toHaveLength(1);
    const whole = programOf(wagonProject());
    const [value, speed] = whole.channelRates(whole.structure.slots.get(RUN)!, met[0]!.frame);
    expect(value).toBeCloseTo(1, 6);
    expect(met[0]!.before).toBeCloseTo(speed, 3);
    expect(met[0]!.after).toBe(0);
  });

  it('are samples alone where corners lie denser than those', () => {
    const every = (frames: number) =>
      addTreatment(wagonProject(), RUN, { ...newTreatment('every', 0), frames } as Treatment);
    expect(linesOf(every(4)).pieces.length).toBeGreaterThan(12);
    expect(linesOf(every(0.01)).pieces.length).toBeLessThan(500);
    expect(rateExtent(linesOf(every(0.01)), 0, 0, 48).high).toBeCloseTo(4, 6);
  });

  it('are kept for the same curve and step, and drawn out anew past what is there', () => {
    const project = wagonProject();
    const program = programOf(project);
    const compiled = program.curveAt(program.structure.slots.get(RUN)!)!;
    const ask = (from: number, to: number) =>
      curveRates(curveOf(project, RUN)!, compiled, from, to, 1, 1 / 24);
    const first = ask(0, 48);
    expect(ask(10, 60)).toBe(first);
    expect(ask(0, 300)).not.toBe(first);
  });

  it('of a driven channel are those of what drives it, through its mechanism', () => {
    const project = trapezoid();
    const line = drivenRates(programOf(project), project, 'wheel/rotate.z', 0, 48, 1);
    expect(rateExtent(line, 1, 0, 23).high).toBeCloseTo(((2 / 0.75 / 0.5) * 180) / Math.PI, 4);
    expect(rateSteps(line, 2, 0.01).map(({ frame }) => Math.round(frame))).toEqual(
      expect.arrayContaining([6, 18]),
    );
  });
});
