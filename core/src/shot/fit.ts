import type { Jet } from '../law';

/**
 * Fits cubic Hermite pieces (glTF CUBICSPLINE) or straight ones to a vector of functions of the frame whose
 * values and derivatives are known exactly. From knot to knot a piece is halved until it is within tolerance at
 * inner points; the state left of a knot is carried over by its Taylor series from just before it, so
 * jumps and corners at knots stay sharp.
 */
export interface FitRequest {
  /** Frames, first and last included, rising. Jumps and corners lie on them. */
  readonly knots: readonly number[];
  readonly secondsPerFrame: number;
  /** One jet per frame for each component, just after the frame. */
  readonly jets: (frame: number) => readonly Jet[];
  /** How far an interpolated vector is from the true one; at most 1 is good enough. */
  readonly error: (interpolated: readonly number[], exact: readonly number[]) => number;
  /** A piece must be halved whatever its error. */
  readonly tooLong?: (from: number, to: number) => boolean;
  readonly linear: boolean;
}

/** Keys of a sampler: seconds (float32) from the first knot, one vector a key, tangents per second. */
export interface FittedTrack {
  readonly times: number[];
  readonly values: number[][];
  readonly inTangents: number[][];
  readonly outTangents: number[][];
}

interface State {
  readonly value: readonly number[];
  readonly slope: readonly number[];
}

const INNER_POINTS = [0.07, 0.21, 0.36, 0.5, 0.64, 0.79, 0.93];
const SHORTEST_FRAMES = 1 / 512;
const TAYLOR_FRAMES = 1e-4;

export function fitTrack(request: FitRequest): FittedTrack {
  const writer = new TrackWriter(request);
  const { knots } = request;
  writer.start(knots[0]!, stateAt(request, knots[0]!));
  for (let i = 1; i < knots.length; i++) {
    const [from, to] = [knots[i - 1]!, knots[i]!];
    fitPiece(request, from, stateAt(request, from), to, stateBefore(request, from, to), writer);
    writer.arrive(to, stateAt(request, to));
  }
  return writer.track;
}

function stateAt(request: FitRequest, frame: number): State {
  const jets = request.jets(frame);
  return { value: jets.map((jet) => jet[0]), slope: jets.map((jet) => finite(jet[1])) };
}

function finite(slope: number): number {
  return Number.isFinite(slope) ? slope : 0;
}

function stateBefore(request: FitRequest, from: number, to: number): State {
  const back = Math.min(TAYLOR_FRAMES, (to - from) / 4);
  const jets = request.jets(to - back);
  return {
    value: jets.map(
      ([v, d1, d2, d3]) => v + back * (finite(d1) + back * (finite(d2) / 2 + (back * finite(d3)) / 6)),
    ),
    slope: jets.map(([, d1, d2, d3]) => finite(d1 + back * (d2 + (back * d3) / 2))),
  };
}

function fitPiece(
  request: FitRequest,
  from: number,
  a: State,
  to: number,
  b: State,
  writer: TrackWriter,
): void {
  const split =
    to - from > 2 * SHORTEST_FRAMES && (request.tooLong?.(from, to) || !fits(request, from, a, to, b));
  if (!split) {
    writer.piece(a, to, b);
    return;
  }
  const middle = (from + to) / 2;
  const state = stateAt(request, middle);
  fitPiece(request, from, a, middle, state, writer);
  fitPiece(request, middle, state, to, b, writer);
}

function fits(request: FitRequest, from: number, a: State, to: number, b: State): boolean {
  const length = to - from;
  return INNER_POINTS.every((u) => {
    const exact = request.jets(from + u * length).map((jet) => jet[0]);
    const interpolated = exact.map((_, i) =>
      request.linear
        ? a.value[i]! + (b.value[i]! - a.value[i]!) * u
        : hermite(a.value[i]!, a.slope[i]! * length, b.value[i]!, b.slope[i]! * length, u),
    );
    return request.error(interpolated, exact) <= 1;
  });
}

function hermite(v0: number, m0: number, v1: number, m1: number, u: number): number {
  const w = 1 - u;
  return v0 * (1 + 2 * u) * w * w + m0 * u * w * w + v1 * u * u * (3 - 2 * u) - m1 * u * u * w;
}

const previousFloat = (() => {
  const float = new Float32Array(1);
  const bits = new Uint32Array(float.buffer);
  return (value: number): number => {
    float[0] = value;
    bits[0] = bits[0]! - 1;
    return float[0];
  };
})();

class TrackWriter {
  readonly track: FittedTrack = { times: [], values: [], inTangents: [], outTangents: [] };
  private origin = 0;

  constructor(private readonly request: FitRequest) {}

  private seconds(frame: number): number {
    return Math.fround((frame - this.origin) * this.request.secondsPerFrame);
  }

  private perSecond(slope: readonly number[]): number[] {
    return slope.map((s) => s / this.request.secondsPerFrame);
  }

  private push(time: number, state: State): void {
    const { times, values, inTangents, outTangents } = this.track;
    times.push(time);
    values.push([...state.value]);
    inTangents.push(this.perSecond(state.slope));
    outTangents.push(this.perSecond(state.slope));
  }

  start(frame: number, state: State): void {
    this.origin = frame;
    this.push(0, state);
  }

  /** Ends a piece that left with state `a`; a time that rounds onto the last key's is dropped. */
  piece(a: State, to: number, b: State): void {
    this.track.outTangents[this.track.outTangents.length - 1] = this.perSecond(a.slope);
    const time = this.seconds(to);
    if (time > this.track.times.at(-1)!) this.push(time, b);
  }

  /** Goes on from a knot: with a jump, the key that arrived moves to the float32 just below. */
  arrive(frame: number, state: State): void {
    const { times, values, outTangents } = this.track;
    const arrived = values.at(-1)!;
    if (this.request.error(arrived, state.value) <= 1e-3) {
      outTangents[outTangents.length - 1] = this.perSecond(state.slope);
      return;
    }
    const time = this.seconds(frame);
    const before = previousFloat(time);
    if (times.length > 1 && before > times.at(-2)!) times[times.length - 1] = before;
    else if (times.length > 1) this.drop();
    outTangents[outTangents.length - 1] = arrived.map(() => 0);
    if (time > times.at(-1)!) this.push(time, state);
  }

  private drop(): void {
    for (const list of Object.values(this.track) as unknown[][]) list.pop();
  }
}
