import {
  clipId,
  flag,
  frames,
  id,
  keyed,
  maybe,
  number,
  oneOf,
  orNull,
  otherwise,
  record,
  partId,
  type Fields,
  type Placement,
} from '../project';
import { addJets, composeJet, constantJet, multiplyJets, signAfter, type Jet } from '../law';
import { compileKeys, keyedJet, keyedValue } from './keyed';
import { LEG } from './legs';
import type { CurveContext } from './slopes';
import { WEIGHT, weightFunction } from './treatment';

/** A clip laid into the shot, as a file has it (contract §6). */
export const PLACEMENT: Fields = {
  id: id(),
  clip: clipId(),
  start: frames(),
  from: maybe(frames()),
  to: maybe(frames()),
  speed: otherwise(number(), 1),
  repeats: otherwise(number({ minimum: 0 }), 1),
  repeat: otherwise(oneOf('loop', 'carry'), 'loop'),
  mode: otherwise(oneOf('replace', 'add'), 'replace'),
  weight: otherwise(WEIGHT, 1),
  fadeIn: otherwise(frames({ minimum: 0 }), 0),
  fadeOut: otherwise(frames({ minimum: 0 }), 0),
  after: otherwise(oneOf('none', 'hold'), 'none'),
  time: otherwise(orNull(keyed({ times: 'frames', values: 'frames' }, LEG)), null),
  partMap: otherwise(record(partId(), 'part'), {}),
  muted: otherwise(flag(), false),
};

/** What of a placement's fields can't stand together, or null. */
export function placementRefusal(
  placement: Placement,
): { readonly at: readonly string[]; readonly message: string } | null {
  if (placement.time) return null;
  const { from, to, speed } = placement as Partial<Placement>;
  if (from === undefined || to === undefined)
    return { at: [], message: `"${from === undefined ? 'from' : 'to'}" is missing; it must be given` };
  if (!(to > from)) return { at: ['to'], message: `to is ${to} and from ${from}; from must be less than to` };
  return speed === 0 ? { at: ['speed'], message: 'speed is 0; it must be more or less than 0' } : null;
}

/** A channel of a clip as a placement renames its part. */
export function mappedChannel(partMap: Readonly<Record<string, string>>, channel: string): string {
  const slash = channel.indexOf('/');
  const part = channel.slice(0, slash);
  return Object.hasOwn(partMap, part) ? `${partMap[part]!}${channel.slice(slash)}` : channel;
}

/** Where a placement is at a frame of the shot: the clip's frame and how much it counts; weight 0 where it is not. */
export interface Placed {
  /** The frame of the clip, and whether it is read just before it: a held end that runs forward. */
  frame: number;
  before: boolean;
  /** Passes behind it, of which `carry` adds up what each goes. */
  passes: number;
  weight: number;
  covered: boolean;
}

/** A placement ready to be asked at any frame. */
export class CompiledPlacement {
  private readonly weight: ReturnType<typeof weightFunction>;
  private readonly time: ReturnType<typeof compileKeys> | null;
  readonly end: number;

  constructor(
    readonly placement: Placement,
    context: CurveContext,
  ) {
    this.weight = weightFunction(placement.weight, context);
    this.time = placement.time ? compileKeys(placement.time, context) : null;
    const { start, from, to, speed, repeats } = placement;
    this.end = this.time ? Infinity : start + (repeats * (to - from)) / Math.abs(speed);
  }

  get carries(): boolean {
    return this.placement.repeat === 'carry' && !this.time;
  }

  locate(frame: number, out: Placed): void {
    const { start, after, fadeIn, fadeOut } = this.placement;
    const held = frame >= this.end;
    out.covered = frame >= start && (!held || after === 'hold');
    if (!out.covered) return;
    const at = held ? this.end : frame;
    this.clipTime(at, held, out);
    const end = this.end;
    out.weight =
      (held ? this.weightBefore(end) : this.weight.value(at)) * eased((at - start) / fadeIn, fadeIn);
    if (!held && end !== Infinity) out.weight *= eased((end - at) / fadeOut, fadeOut);
  }

  /** The weight's limit at the end of what is covered. */
  private weightBefore(end: number): number {
    return valueBefore((frame) => this.weight.value(frame), end);
  }

  private clipTime(frame: number, held: boolean, out: Placed): void {
    if (this.time) {
      out.frame = keyedValue(this.time, frame, 0);
      out.passes = 0;
      out.before = false;
      return;
    }
    const { start, from, to, speed, repeats } = this.placement;
    const q = held ? repeats : ((frame - start) * Math.abs(speed)) / (to - from);
    const n = held ? Math.max(0, Math.ceil(q) - 1) : Math.floor(q);
    const into = (q - n) * (to - from);
    out.passes = n;
    out.frame = speed < 0 ? to - into : from + into;
    out.before = held && speed > 0;
  }

  /** The clip's frame as a jet of the shot's, just after it. */
  timeJet(frame: number, placed: Placed): Jet {
    if (this.time) return keyedJet(this.time, frame, 0);
    return frame >= this.end ? constantJet(placed.frame) : [placed.frame, this.placement.speed, 0, 0];
  }

  /** The weight with its fades as a jet. */
  weightJet(frame: number, placed: Placed): Jet {
    if (frame >= this.end) return constantJet(placed.weight);
    const { start, fadeIn, fadeOut } = this.placement;
    let jet = this.weight.jet(frame);
    if (fadeIn > 0) jet = multiplyJets(jet, easedJet([(frame - start) / fadeIn, 1 / fadeIn, 0, 0]));
    if (fadeOut > 0 && this.end !== Infinity)
      jet = multiplyJets(jet, easedJet([(this.end - frame) / fadeOut, -1 / fadeOut, 0, 0]));
    return jet;
  }
}

/** 3u² − 2u³, 0 before 0 and 1 from 1 on; without a length the fade is not there. */
function eased(u: number, length: number): number {
  if (length === 0 || u >= 1) return 1;
  return u <= 0 ? 0 : u * u * (3 - 2 * u);
}

function easedJet(u: Jet): Jet {
  if (signAfter(u) < 0) return constantJet(0);
  if (signAfter([u[0] - 1, u[1], u[2], u[3]]) >= 0) return constantJet(1);
  const [x] = u;
  return composeJet([x * x * (3 - 2 * x), 6 * x * (1 - x), 6 - 12 * x, -12], u);
}

/** How far before a frame a jump is looked for, in shares of it. */
const JUST = 1e-9;

/** The limit of a function from below: its value, or, where it jumps there, what its last straight way leads to. */
export function valueBefore(value: (frame: number) => number, frame: number): number {
  const step = JUST * Math.max(1, Math.abs(frame));
  const at = value(frame);
  const near = value(frame - step);
  if (Math.abs(at - near) <= 1e-6 * Math.max(1, Math.abs(at), Math.abs(near))) return at;
  return 2 * near - value(frame - 2 * step);
}

/** A placed value over what lies below it. */
export function laidOver(below: number, value: number, rest: number, weight: number, add: boolean): number {
  return below + weight * (value - (add ? rest : below));
}

/** The same with rates. */
export function jetLaidOver(below: Jet, value: Jet, rest: number, weight: Jet, add: boolean): Jet {
  const [v, d1, d2, d3] = value;
  const change: Jet = add
    ? [v - rest, d1, d2, d3]
    : [v - below[0], d1 - below[1], d2 - below[2], d3 - below[3]];
  return addJets(below, multiplyJets(weight, change));
}
