import '@angular/compiler';
import {
  addTreatment,
  changePart,
  curveOf,
  keepTake,
  moveKeys,
  newTreatment,
  weightChannel,
  weightCurve,
  type Project,
  type Polyline,
  RATE_STRIDE,
  rateExtent,
} from '@kaizen/core';
import { initialBench } from '../../state/bench';
import { chartProject, programOf } from '../../testing/chart-project';
import { channelLabel, limitOf } from '../stage/channel-label';
import { channelLine, channelRateLine, linesBeside, spreadOf, valueOfChannel } from './chart-lines';

const RUN = 'wagon/translate.x';
const VIEW = { axis: { first: 0, last: 48 }, width: 480 };
const LOOK = initialBench.shaping;

/** A line's value at its last point at or before a frame. */
function valueAt({ points }: Polyline, frame: number): number {
  let value = Number.NaN;
  for (let i = 0; i < points.length && points[i]! <= frame; i += 2) value = points[i + 1]!;
  return value;
}

/** The run doubled about 0: three times as much, by a weight of a half. */
function treated(): Project {
  const weight = weightCurve(0.5, 0, 48);
  return addTreatment(chartProject(), RUN, { ...newTreatment('gain', 0), factor: 3, weight } as ReturnType<
    typeof newTreatment
  >);
}

describe('lines of the Chart', () => {
  it('are drawn of channels, of driven ones and of weights; of nothing else', () => {
    const project = treated();
    const program = programOf(project);
    expect(valueAt(channelLine(VIEW, program, project, RUN)!, 24)).toBeCloseTo(4, 9);
    expect(channelLine(VIEW, program, project, 'wheel/rotate.z')!.points.length).toBeGreaterThan(40);
    const weight = channelLine(VIEW, program, project, weightChannel(RUN, 0))!;
    expect(valueAt(weight, 30)).toBe(0.5);
    expect(channelLine(VIEW, program, project, weightChannel(RUN, 4))).toBeNull();
    expect(channelLine(VIEW, program, project, 'nobody/translate.x')).toBeNull();
  });

  it('beside a curve are its second take and itself before its treatments, each where it is asked for', () => {
    const two = moveKeys(keepTake(treated(), [RUN]), [{ channel: RUN, frame: 24 }], {
      frames: 0,
      value: 1,
    }).project;
    expect(linesBeside(VIEW, two, RUN, LOOK)).toEqual([]);
    const [take] = linesBeside(VIEW, two, RUN, { ...LOOK, takes: true });
    expect(valueAt(take!, 24)).toBeCloseTo(4, 9);
    const [plain, ...none] = linesBeside(VIEW, two, RUN, { ...LOOK, untreated: true });
    expect(valueAt(plain!, 24)).toBeCloseTo(3, 9);
    expect(none).toEqual([]);
    expect(linesBeside(VIEW, chartProject(), RUN, { ...LOOK, takes: true, untreated: true })).toEqual([]);
  });

  it('a treated channel without keys is drawn before its treatments at its rest', () => {
    const channel = 'door/translate.y';
    const raised = changePart(chartProject(), 'door', (part) => ({
      ...part,
      rest: { ...part.rest, translate: [0, 2.5, 0] },
    }));
    const noisy = addTreatment(raised, channel, newTreatment('noise', 0.2));
    const [plain] = linesBeside(VIEW, noisy, channel, { ...LOOK, untreated: true });
    expect(valueAt(plain!, 20)).toBe(2.5);
  });

  it('tell the value at a frame, of weights too', () => {
    const project = treated();
    const program = programOf(project);
    expect(valueOfChannel(program, project, RUN, 24)).toBeCloseTo(4, 12);
    expect(valueOfChannel(program, project, weightChannel(RUN, 0), 24)).toBe(0.5);
    expect(channelLabel(project, weightChannel(RUN, 0)).full).toBe('Wagon, place X, weight of treatment 1');
  });
});

describe('what a strip has to hold', () => {
  it('is the spread of the values, and of rates with a limit that is near', () => {
    const project = chartProject();
    const program = programOf(project);
    expect(spreadOf(VIEW, program, project, 0, RUN)).toEqual({ low: 0, high: 4 });
    const fastest = spreadOf(VIEW, program, project, 1, RUN).high;
    expect(fastest).toBeGreaterThan(1.9);
    const limited = (speed: number) =>
      changePart(project, 'wagon', (part) => ({ ...part, limits: { 'translate.x': { speed } } }));
    const near = limited(fastest * 1.5);
    expect(limitOf(near, RUN)).toEqual({ speed: fastest * 1.5 });
    const held = spreadOf(VIEW, programOf(near), near, 1, RUN);
    expect([held.low, held.high]).toEqual([-fastest * 1.5, fastest * 1.5]);
    const far = limited(fastest * 20);
    expect(spreadOf(VIEW, programOf(far), far, 1, RUN).high).toBeCloseTo(fastest, 9);
  });

  it('holds the keys that a clamp leaves beside the line', () => {
    const clamp = { ...newTreatment('clamp', 0), max: 1 } as ReturnType<typeof newTreatment>;
    const project = addTreatment(chartProject(), RUN, clamp);
    expect(spreadOf(VIEW, programOf(project), project, 0, RUN)).toEqual({ low: 0, high: 4 });
    const early = { axis: { first: 0, last: 20 }, width: 480 };
    expect(spreadOf(early, programOf(project), project, 0, RUN)).toEqual({ low: 0, high: 1 });
  });

  it('of a weight has its rates too', () => {
    const weight = weightChannel(RUN, 0);
    const project = moveKeys(treated(), [{ channel: weight, frame: 48 }], { frames: 0, value: 0.4 }).project;
    const line = channelRateLine(VIEW, programOf(project), project, weight)!;
    for (const piece of line.pieces)
      for (let i = 0; i < piece.length; i += RATE_STRIDE)
        expect(piece[i + 1]).toBeCloseTo(valueOfChannel(programOf(project), project, weight, piece[i]!), 9);
    const { low, high } = spreadOf(VIEW, programOf(project), project, 1, weight);
    expect([low, high]).toEqual([rateExtent(line, 1, 0, 48).low, rateExtent(line, 1, 0, 48).high]);
    expect(high - low).toBeGreaterThan(0.1);
    expect(channelRateLine(VIEW, programOf(project), project, weightChannel(RUN, 5))).toBeNull();
    expect(curveOf(project, weightChannel(RUN, 0))!.keys).toHaveLength(2);
  });
});
