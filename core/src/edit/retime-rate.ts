import type {
  Curve,
  Driver,
  Key,
  KeyedCurve,
  Outside,
  Project,
  Rate,
  Side,
  Take,
  Treatment,
  Weight,
} from '../project';
import { asEdited, type Edited } from './mapping';

/**
 * Changes the project's rate and keeps every second where it is: all that is counted in frames is scaled
 * (contract §9, `--fps`). `frame` in an expression can't be, and is reported by `expressionsCountingFrames`.
 */
export function changeRateKeepingSeconds(project: Project, rate: Rate): Edited {
  const factor = (rate.frames * project.rate.per) / (rate.per * project.rate.frames);
  if (factor === 1) return asEdited({ ...project, rate });
  const scale = new FrameScale(factor);
  const { range } = project;
  const scaled = (frame: number) => frame * factor;
  const next = {
    ...project,
    rate,
    range: { ...range, start: range.start * factor, end: range.end * factor },
    clips: project.clips.map((clip) => ({ ...clip, curves: clip.curves.map((curve) => scale.curve(curve)) })),
    drivers: project.drivers.map((driver) => scale.driver(driver)),
    constraints: project.constraints.map((constraint) => scale.fields(constraint, ['start', 'end', 'fade'])),
    arrangement: project.arrangement.map((placement) => scale.placement(placement)),
    markers: project.markers.map((marker) => scale.fields(marker, ['frame', 'end'])),
    sounds: project.sounds.map((sound) => scale.fields(sound, ['start'])),
  };
  return { project: next, mapping: { frame: scaled, time: scaled } };
}

/** Changes the project's rate and keeps every frame where it is: the shot gets shorter or longer in seconds. */
export function changeRateKeepingFrames(project: Project, rate: Rate): Project {
  return rate.frames * project.rate.per === rate.per * project.rate.frames ? project : { ...project, rate };
}

/** Ids of the drivers whose expression counts frames, and so means another time after a change of rate. */
export function expressionsCountingFrames(project: Project): string[] {
  return project.drivers
    .filter((driver) => driver.kind === 'expression' && /(?<![\w$])frame(?![\w$])/.test(driver.expression))
    .map((driver) => driver.id);
}

class FrameScale {
  constructor(private readonly factor: number) {}

  frame(value: number | null): number | null {
    return value === null ? null : value * this.factor;
  }

  fields<T extends object>(object: T, names: readonly string[]): T {
    const changed = { ...object } as Record<string, unknown>;
    for (const name of names) {
      if (typeof changed[name] === 'number') changed[name] = changed[name] * this.factor;
    }
    return changed as T;
  }

  side(side: Side): Side {
    return side.slope === 0 ? side : { ...side, slope: side.slope / this.factor };
  }

  key(key: Key): Key {
    return { ...key, frame: key.frame * this.factor, in: this.side(key.in), out: this.side(key.out) };
  }

  outside(outside: Outside): Outside {
    return { ...outside, pin: this.frame(outside.pin) };
  }

  /** Keys over frames; `values` too where the curve gives frames (a placement's time). */
  keyed<T extends KeyedCurve>(curve: T, values = false): T {
    const keys = curve.keys.map((key): Key => {
      const scaled = this.key(key);
      if (!values) return scaled;
      return { ...scaled, value: key.value * this.factor, in: key.in, out: key.out };
    });
    return { ...curve, keys, before: this.outside(curve.before), after: this.outside(curve.after) };
  }

  weight(weight: Weight): Weight {
    return typeof weight === 'number' ? weight : this.keyed(weight);
  }

  treatment(treatment: Treatment): Treatment {
    const names = {
      noise: ['period', 'loop'],
      delay: ['frames'],
      every: ['frames', 'offset'],
      clamp: [],
      gain: [],
    };
    return { ...this.fields(treatment, names[treatment.kind]), weight: this.weight(treatment.weight) };
  }

  take<T extends Take>(take: T): T {
    return {
      ...this.keyed(take),
      treatments: take.treatments.map((treatment) => this.treatment(treatment)),
    };
  }

  curve(curve: Curve): Curve {
    const scaled = this.take(curve);
    return scaled.otherTake ? { ...scaled, otherTake: this.take(scaled.otherTake) } : scaled;
  }

  driver(driver: Driver): Driver {
    if (driver.kind === 'echo') return this.fields(driver, ['delay']);
    if (driver.kind !== 'follow') return driver;
    const scaled = this.fields(driver, ['start', 'loop']);
    return scaled.loop === null ? scaled : { ...scaled, loop: Math.max(1, Math.round(scaled.loop)) };
  }

  placement<T extends object>(placement: T): T {
    const scaled = this.fields(placement, ['start', 'from', 'to', 'fadeIn', 'fadeOut']) as T & {
      weight?: Weight;
      time?: KeyedCurve | null;
    };
    return {
      ...scaled,
      ...(scaled.weight === undefined ? {} : { weight: this.weight(scaled.weight) }),
      ...(scaled.time ? { time: this.keyed(scaled.time, true) } : {}),
    };
  }
}
