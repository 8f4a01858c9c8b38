import type { Curve, Project } from '../project';
import { constantJet, composeJet, signAfter, type Jet } from '../law';
import {
  CompiledPlacement,
  compileCurve,
  curveJet,
  curveValue,
  jetLaidOver,
  laidOver,
  mappedChannel,
  valueBefore,
  type CompiledCurve,
  type CurveContext,
  type Placed,
} from '../curve';
import { FlatCurves } from './flat-curves';
import type { Structure } from './structure';

/** The values of channels before any driver: of one clip's curves, or of clips laid over time. */
export interface BaseValues {
  /** Channels that have a value of their own, each once. */
  readonly channels: readonly string[];
  /** Writes all of them over the rest values that are there. */
  run(frame: number, channels: Float64Array): void;
  value(slot: number, frame: number): number;
  jet(slot: number, frame: number): Jet;
}

/** The curves of one clip. */
export class ClipValues implements BaseValues {
  readonly curveSlots: Int32Array;
  readonly curves: readonly CompiledCurve[];
  private readonly curveOfSlot: Int32Array;
  private readonly flat: FlatCurves;

  constructor(
    readonly source: readonly Curve[],
    private readonly structure: Structure,
    private readonly context: CurveContext,
    before?: ClipValues,
  ) {
    this.flat = before?.flat ?? new FlatCurves();
    const same = before ? sameBeginning(before.source, source) : 0;
    const known = before && same === before.source.length ? before : null;
    this.curveSlots = known?.source.length === source.length ? known.curveSlots : this.slotsFrom(known);
    this.curveOfSlot =
      known && known.curveSlots === this.curveSlots && known.structure.firstSlot === structure.firstSlot
        ? known.curveOfSlot
        : this.curvesBySlot(known);
    const curves = known ? known.curves.slice() : new Array<CompiledCurve>(source.length);
    for (let i = 0; i < source.length; i++)
      if (!known || source[i] !== known.source[i] || known.structure.rest !== structure.rest)
        curves[i] = this.compileAt(i);
    this.curves = curves;
  }

  private slotsFrom(known: ClipValues | null): Int32Array {
    const slots = new Int32Array(this.source.length);
    const from = known?.source.length ?? 0;
    if (known) slots.set(known.curveSlots);
    for (let i = from; i < slots.length; i++)
      slots[i] = this.structure.slots.get(this.source[i]!.channel) ?? -1;
    return slots;
  }

  private curvesBySlot(known: ClipValues | null): Int32Array {
    const curveOfSlot = new Int32Array(this.structure.channels.length).fill(-1);
    if (known) curveOfSlot.set(known.curveOfSlot);
    for (let i = known?.source.length ?? 0; i < this.curveSlots.length; i++)
      curveOfSlot[this.curveSlots[i]!] = i;
    return curveOfSlot;
  }

  private compileAt(i: number): CompiledCurve {
    return compileCurve(this.source[i]!, this.structure.rest[this.curveSlots[i]!] ?? 0, this.context);
  }

  get channels(): readonly string[] {
    return this.source.map((curve) => curve.channel);
  }

  /** These values for a later state: what did not change is taken over. The same rate and gravity, and slots where they were. */
  next(curves: readonly Curve[], structure: Structure): ClipValues {
    const alike = structure.firstSlot === this.structure.firstSlot && structure.rest === this.structure.rest;
    if (curves === this.source && alike) return this;
    return new ClipValues(curves, structure, this.context, this);
  }

  run(frame: number, channels: Float64Array): void {
    this.flat.run(this.curves, this.curveSlots, frame, channels);
  }

  curveAt(slot: number): CompiledCurve | undefined {
    const curve = this.curveOfSlot[slot];
    return curve === undefined || curve < 0 ? undefined : this.curves[curve];
  }

  value(slot: number, frame: number): number {
    const curve = this.curveOfSlot[slot]!;
    return curve >= 0 ? curveValue(this.curves[curve]!, frame) : this.structure.rest[slot]!;
  }

  jet(slot: number, frame: number): Jet {
    const curve = this.curveOfSlot[slot]!;
    return curve >= 0 ? curveJet(this.curves[curve]!, frame) : constantJet(this.structure.rest[slot]!);
  }
}

/** A placed clip: the curves that arrive somewhere, by the slot they arrive at. */
interface PlacedClip {
  readonly placement: CompiledPlacement;
  readonly add: boolean;
  readonly curves: readonly { readonly slot: number; readonly curve: CompiledCurve }[];
}

/** Clips laid over time, in list order, from the rest values (contract §6). */
export class PlacedValues implements BaseValues {
  private readonly placed: readonly PlacedClip[];
  /** Of each slot: which placed clips have a curve for it, and which curve. */
  private readonly bySlot = new Map<number, { readonly clip: PlacedClip; readonly curve: CompiledCurve }[]>();
  private readonly at: Placed = { frame: 0, before: false, passes: 0, weight: 0, covered: false };

  constructor(
    project: Project,
    private readonly structure: Structure,
    context: CurveContext,
  ) {
    this.placed = project.arrangement.flatMap((placement) => {
      const clip = project.clips.find(({ id }) => id === placement.clip);
      if (placement.muted || !clip) return [];
      const curves = clip.curves.flatMap((curve) => {
        const slot = structure.slots.get(mappedChannel(placement.partMap, curve.channel));
        if (curve.muted || slot === undefined) return [];
        return [{ slot, curve: compileCurve(curve, structure.rest[slot] ?? 0, context) }];
      });
      return [
        { placement: new CompiledPlacement(placement, context), add: placement.mode === 'add', curves },
      ];
    });
    for (const clip of this.placed)
      for (const { slot, curve } of clip.curves) {
        const list = this.bySlot.get(slot);
        if (list) list.push({ clip, curve });
        else this.bySlot.set(slot, [{ clip, curve }]);
      }
  }

  get channels(): readonly string[] {
    return [...this.bySlot.keys()].map((slot) => this.structure.channels[slot]!);
  }

  run(frame: number, channels: Float64Array): void {
    const { at } = this;
    for (let i = 0; i < this.placed.length; i++) {
      const clip = this.placed[i]!;
      clip.placement.locate(frame, at);
      if (!at.covered) continue;
      for (let j = 0; j < clip.curves.length; j++) {
        const { slot, curve } = clip.curves[j]!;
        const value = placedValue(clip, curve, at);
        channels[slot] = laidOver(channels[slot]!, value, this.structure.rest[slot]!, at.weight, clip.add);
      }
    }
  }

  value(slot: number, frame: number): number {
    const rest = this.structure.rest[slot]!;
    const list = this.bySlot.get(slot);
    if (!list) return rest;
    let value = rest;
    for (const { clip, curve } of list) {
      clip.placement.locate(frame, this.at);
      if (this.at.covered)
        value = laidOver(value, placedValue(clip, curve, this.at), rest, this.at.weight, clip.add);
    }
    return value;
  }

  jet(slot: number, frame: number): Jet {
    const rest = this.structure.rest[slot]!;
    let jet = constantJet(rest);
    for (const { clip, curve } of this.bySlot.get(slot) ?? []) {
      clip.placement.locate(frame, this.at);
      if (!this.at.covered) continue;
      const value = placedJet(clip, curve, frame, this.at);
      jet = jetLaidOver(jet, value, rest, clip.placement.weightJet(frame, this.at), clip.add);
    }
    return jet;
  }
}

/** What a curve of a placed clip gives there, with what carry has added up. */
function placedValue({ placement }: PlacedClip, curve: CompiledCurve, at: Placed): number {
  const value = at.before
    ? valueBefore((frame) => curveValue(curve, frame), at.frame)
    : curveValue(curve, at.frame);
  return at.passes !== 0 && placement.carries ? value + at.passes * gainOfPass(placement, curve) : value;
}

function gainOfPass({ placement }: CompiledPlacement, curve: CompiledCurve): number {
  const gain = curveValue(curve, placement.to) - curveValue(curve, placement.from);
  return placement.speed < 0 ? -gain : gain;
}

function placedJet(clip: PlacedClip, curve: CompiledCurve, frame: number, at: Placed): Jet {
  const time = clip.placement.timeJet(frame, at);
  const backward = signAfter([0, time[1], time[2], time[3]]) < 0;
  const value = placedValue(clip, curve, at);
  const [, d1, d2, d3] = composeJet(curveJet(curve, at.frame, backward), time);
  return [value, d1, d2, d3];
}

/** How many curves at the beginning of two lists are of the same channels. */
function sameBeginning(before: readonly Curve[], after: readonly Curve[]): number {
  const most = Math.min(before.length, after.length);
  for (let i = 0; i < most; i++)
    if (before[i] !== after[i] && before[i]!.channel !== after[i]!.channel) return i;
  return most;
}
