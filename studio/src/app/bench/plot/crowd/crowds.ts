import { Injectable, signal } from '@angular/core';
import { curveValue, type CompiledCurve, type Program, sampleStep } from '@kaizen/core';
import type { Ink } from '../ink';
import type { Plot, Strip } from '../plot';
import { CrowdPicture, type Crowd, type CrowdImage, type CrowdMember } from './crowd-picture';

/** A strip with more channels than this draws one by one only those that are chosen; the others are its crowd. */
export const MOST_BY_ONE = 48;
/** Pixels of the plot a column of the grid is wide. */
const COLUMN = 2;

/** The channels of a strip that are drawn one by one, and those that are its crowd. */
export interface Parted {
  readonly front: readonly string[];
  readonly crowd: readonly string[];
}

/** Parts the channels of a strip: all in front where they are few, else those that are meant. */
export function partStrip(channels: readonly string[], isMeant: (channel: string) => boolean): Parted {
  if (channels.length <= MOST_BY_ONE) return { front: channels, crowd: [] };
  const front = channels.filter(isMeant).slice(0, MOST_BY_ONE);
  if (front.length === 0) return { front, crowd: channels };
  const before = new Set(front);
  return { front, crowd: channels.filter((channel) => !before.has(channel)) };
}

/** The crowds of the Chart's strips, each with its picture. */
@Injectable({ providedIn: 'root' })
export class Crowds {
  private readonly pictures = new Map<string, CrowdPicture>();
  /** Counts what grew, for who draws it. */
  readonly grown = signal(0);
  private readonly crowds = new WeakMap<readonly string[], Crowd & { readonly program: Program }>();

  /** The picture of a strip's crowd as far as it is there. */
  image(plot: Plot, ink: Ink, strip: Strip, crowd: readonly string[], program: Program): CrowdImage | null {
    let picture = this.pictures.get(strip.unit);
    if (!picture) {
      picture = new CrowdPicture(() => this.grown.update((count) => count + 1));
      this.pictures.set(strip.unit, picture);
    }
    const { first, last } = plot.axis;
    const step = sampleStep((COLUMN * (last - first)) / plot.width);
    const reach = (last - first) / 2;
    // The window goes on by whole views, so that panning stays in it for half a view to each side.
    const from = Math.floor((first - reach) / (reach || 1)) * (reach || 1);
    picture.ask(
      {
        from: Math.round(from / step) * step,
        step,
        columns: Math.ceil((2.5 * (last - first)) / step),
        rows: Math.max(1, Math.round(strip.height)),
        low: strip.low,
        high: strip.high,
      },
      this.crowdOf(program, crowd),
      rgb(ink.soft),
    );
    return picture.shown;
  }

  private crowdOf(program: Program, channels: readonly string[]): Crowd {
    const known = this.crowds.get(channels);
    if (known?.program === program) return known;
    const member = (channel: string) => {
      const slot = program.structure.slots.get(channel);
      return slot === undefined ? undefined : memberOf(program, slot);
    };
    const crowd = { program, channels, member };
    this.crowds.set(channels, crowd);
    return crowd;
  }
}

const membersByCurve = new WeakMap<CompiledCurve, CrowdMember>();

function memberOf(program: Program, slot: number): CrowdMember {
  const curve = program.isDriven(slot) ? undefined : program.curveAt(slot);
  if (!curve) {
    const value = (frame: number) => program.channelValue(slot, frame);
    return { source: program, curve: () => ({ value, keyFrames: NO_KEYS }) };
  }
  let member = membersByCurve.get(curve);
  if (!member) {
    const drawn = { value: (frame: number) => curveValue(curve, frame), keyFrames: curve.keys.times };
    member = { source: curve, curve: () => drawn };
    membersByCurve.set(curve, member);
  }
  return member;
}

const NO_KEYS = new Float64Array(0);

/** `#rrggbb` as three numbers. */
function rgb(color: string): readonly [number, number, number] {
  const value = Number.parseInt(color.slice(1), 16);
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255];
}
