import type { Curve, Project } from '../project';
import {
  applyTreatment,
  compileKeys,
  keyedJet,
  keyedValue,
  weightFunction,
  type FrameFunction,
} from '../curve';
import { curveContext, restOf } from '../edit';

/** One treatment of a curve, read by itself. Frames in, values in the channel's unit out. */
export interface Lane {
  /** How much it adds to what enters it; 0 where it is muted. */
  change(frame: number): number;
  /** How much it would add at full weight, muted or not. */
  fullChange(frame: number): number;
  /** 0: nothing of it, 1: all of it. */
  weight(frame: number): number;
}

/** A curve taken apart: its keys alone, and each of its treatments in the order in which they lie over them (contract §5). */
export interface LaneReading {
  keyed(frame: number): number;
  /** The value that leaves a lane and enters the next one. */
  after(lane: number, frame: number): number;
  readonly lanes: readonly Lane[];
}

interface Known {
  readonly rest: number;
  readonly secondsPerFrame: number;
  readonly gravity: number;
  readonly reading: LaneReading;
}
const cache = new WeakMap<Curve, Known>();

/** Takes a curve apart, or gives what was read of it before in the same context. */
export function readLanes(project: Project, curve: Curve): LaneReading {
  const rest = restOf(project, curve.channel);
  const context = curveContext(project);
  const known = cache.get(curve);
  const { secondsPerFrame, gravity } = context;
  if (known?.rest === rest && known.secondsPerFrame === secondsPerFrame && known.gravity === gravity)
    return known.reading;
  const keys = compileKeys(curve, context);
  const stages: FrameFunction[] = [
    {
      value: (frame) => keyedValue(keys, frame, rest),
      jet: (frame) => keyedJet(keys, frame, rest),
    },
  ];
  const lanes = curve.treatments.map((treatment): Lane => {
    const below = stages.at(-1)!;
    const whole = applyTreatment({ ...treatment, weight: 1 }, below, context);
    const weight = weightFunction(treatment.weight, context);
    const above = treatment.muted ? below : applyTreatment(treatment, below, context);
    stages.push(above);
    return {
      change: (frame) => above.value(frame) - below.value(frame),
      fullChange: (frame) => whole.value(frame) - below.value(frame),
      weight: (frame) => weight.value(frame),
    };
  });
  const reading: LaneReading = {
    keyed: (frame) => stages[0]!.value(frame),
    after: (lane, frame) => stages[lane + 1]!.value(frame),
    lanes,
  };
  cache.set(curve, { rest, secondsPerFrame, gravity, reading });
  return reading;
}

/** So many frames are looked at when a greatest change is searched; of a longer span every second, third, … */
const MOST_FRAMES = 2000;

/** The greatest change a lane makes at full weight, over whole frames from one to another: what its hairs are measured against. */
export function greatestChange(lane: Lane, first: number, last: number): number {
  const step = Math.max(1, Math.ceil((last - first) / MOST_FRAMES));
  let most = 0;
  for (let frame = Math.ceil(first); frame <= last; frame += step)
    most = Math.max(most, Math.abs(lane.fullChange(frame)));
  return most;
}
