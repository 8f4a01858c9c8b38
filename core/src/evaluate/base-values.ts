import { changedPlaces, type Curve, type Project } from '../project';
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
import { CurveStore, type CurveList } from './curve-store';
import { growsOutOf, type Structure } from './structure';

/** The values of channels before any driver: of one clip's curves, or of clips laid over time. */
export interface BaseValues {
  /** Channels that have a value of their own, each once. */
  readonly channels: readonly string[];
  /** Writes all of them, and to all other slots what they rest at. */
  run(frame: number, channels: Float64Array): void;
  value(slot: number, frame: number): number;
  jet(slot: number, frame: number): Jet;
  /** Compiles so many of their curves more at most. */
  compileSome(most: number): void;
}

/**
 * The values of one clip's curves. `before` are those of an earlier state of the clip, from which all that did not change is taken over;
 * what a list of curves was compiled to is remembered, so that to switch between clips compiles each of them once.
 */
export function clipValues(
  curves: readonly Curve[],
  structure: Structure,
  context: CurveContext,
  before?: ClipValues,
): ClipValues {
  if (before?.isFor(curves, structure, context)) return before;
  const known = valuesBefore.get(curves);
  if (known?.isFor(curves, structure, context)) return known;
  const grows = before && isSameContext(before.context, context) && growsOutOf(structure, before.structure);
  const values = (grows && before.next(curves, structure)) || ClipValues.of(curves, structure, context);
  valuesBefore.set(curves, values);
  return values;
}

const valuesBefore = new WeakMap<readonly Curve[], ClipValues>();

function isSameContext(a: CurveContext, b: CurveContext): boolean {
  return a.secondsPerFrame === b.secondsPerFrame && a.gravity === b.gravity;
}

/** The curves of one clip, in a store that all states of the clip share which grow out of each other. */
export class ClipValues implements BaseValues, CurveList {
  private constructor(
    readonly source: readonly Curve[],
    readonly structure: Structure,
    readonly context: CurveContext,
    private readonly store: CurveStore,
  ) {}

  static of(source: readonly Curve[], structure: Structure, context: CurveContext): ClipValues {
    return new ClipValues(source, structure, context, new CurveStore());
  }

  isFor(source: readonly Curve[], structure: Structure, context: CurveContext): boolean {
    const { firstSlot, rest } = this.structure;
    return (
      source === this.source &&
      structure.firstSlot === firstSlot &&
      structure.rest === rest &&
      isSameContext(context, this.context)
    );
  }

  /** These values for a later state, whose slots are where they were; null where curves were taken out or are of other channels. */
  next(source: readonly Curve[], structure: Structure): ClipValues | null {
    if (source.length < this.source.length) return null;
    const changed = changedPlaces(this.source, source);
    if (changed.some((i) => source[i]!.channel !== this.source[i]!.channel)) return null;
    return new ClipValues(source, structure, this.context, this.store);
  }

  get channels(): readonly string[] {
    return this.source.map((curve) => curve.channel);
  }

  run(frame: number, channels: Float64Array): void {
    this.store.run(this, frame, channels);
  }

  curveAt(slot: number): CompiledCurve | undefined {
    return this.store.curveAt(this, slot);
  }

  compileSome(most: number): void {
    this.store.compileSome(this, most);
  }

  value(slot: number, frame: number): number {
    const curve = this.curveAt(slot);
    return curve ? curveValue(curve, frame) : this.structure.rest.at(slot);
  }

  jet(slot: number, frame: number): Jet {
    const curve = this.curveAt(slot);
    return curve ? curveJet(curve, frame) : constantJet(this.structure.rest.at(slot));
  }
}

/** A placed clip: the curves that arrive somewhere, by the slot they arrive at. */
interface PlacedClip {
  readonly placement: CompiledPlacement;
  readonly add: boolean;
  readonly curves: readonly { readonly slot: number; readonly curve: AwaitedCurve }[];
}

/** A curve that is compiled when it is first asked for. */
class AwaitedCurve {
  private made: CompiledCurve | null = null;

  constructor(
    private readonly source: Curve,
    private readonly rest: number,
    private readonly context: CurveContext,
  ) {}

  get compiled(): CompiledCurve {
    return (this.made ??= compileCurve(this.source, this.rest, this.context));
  }
}

/** Clips laid over time, in list order, from the rest values (contract §6). */
export class PlacedValues implements BaseValues {
  private readonly placed: readonly PlacedClip[];
  /** Of each slot: which placed clips have a curve for it, and which curve. */
  private readonly bySlot = new Map<number, { readonly clip: PlacedClip; readonly curve: AwaitedCurve }[]>();
  private readonly toCompile: AwaitedCurve[];
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
        return [{ slot, curve: new AwaitedCurve(curve, structure.rest.at(slot), context) }];
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
    this.toCompile = this.placed.flatMap(({ curves }) => curves.map(({ curve }) => curve));
  }

  compileSome(most: number): void {
    for (const curve of this.toCompile.splice(-most)) void curve.compiled;
  }

  get channels(): readonly string[] {
    return [...this.bySlot.keys()].map((slot) => this.structure.channelAt(slot));
  }

  run(frame: number, channels: Float64Array): void {
    const { at } = this;
    channels.set(this.structure.rest.flat);
    for (let i = 0; i < this.placed.length; i++) {
      const clip = this.placed[i]!;
      clip.placement.locate(frame, at);
      if (!at.covered) continue;
      for (let j = 0; j < clip.curves.length; j++) {
        const { slot, curve } = clip.curves[j]!;
        const value = placedValue(clip, curve, at);
        channels[slot] = laidOver(channels[slot]!, value, this.structure.rest.at(slot), at.weight, clip.add);
      }
    }
  }

  value(slot: number, frame: number): number {
    const rest = this.structure.rest.at(slot);
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
    const rest = this.structure.rest.at(slot);
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
function placedValue({ placement }: PlacedClip, { compiled }: AwaitedCurve, at: Placed): number {
  const value = at.before
    ? valueBefore((frame) => curveValue(compiled, frame), at.frame)
    : curveValue(compiled, at.frame);
  return at.passes !== 0 && placement.carries ? value + at.passes * gainOfPass(placement, compiled) : value;
}

function gainOfPass({ placement }: CompiledPlacement, curve: CompiledCurve): number {
  const gain = curveValue(curve, placement.to) - curveValue(curve, placement.from);
  return placement.speed < 0 ? -gain : gain;
}

function placedJet(clip: PlacedClip, curve: AwaitedCurve, frame: number, at: Placed): Jet {
  const time = clip.placement.timeJet(frame, at);
  const backward = signAfter([0, time[1], time[2], time[3]]) < 0;
  const value = placedValue(clip, curve, at);
  const [, d1, d2, d3] = composeJet(curveJet(curve.compiled, at.frame, backward), time);
  return [value, d1, d2, d3];
}
