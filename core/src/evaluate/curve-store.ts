import { changedPlaces, type Curve } from '../project';
import { compileCurve, type CompiledCurve, type CurveContext } from '../curve';
import { FlatCurves } from './flat-curves';
import { longer } from './lists';
import type { Structure } from './structure';

/** One state of the curves of a clip. */
export interface CurveList {
  readonly source: readonly Curve[];
  readonly structure: Structure;
  readonly context: CurveContext;
}

const NO_CURVE = -1;

/**
 * The compiled curves of a clip, by place and by slot. One store serves all states of the clip that grow out of each other: it is turned
 * to one of them at a time, and only what differs from the one before is compiled and looked up anew. So an edit copies nothing here.
 * A curve is compiled when it is first asked for, all of them at the first frame.
 */
export class CurveStore {
  private list: CurveList | null = null;
  /** Those that are not compiled yet are null. */
  private readonly curves: (CompiledCurve | null)[] = [];
  /** The places of these. */
  private readonly toCompile = new Set<number>();
  private slots = new Int32Array(0);
  private curveOfSlot = new Int32Array(0);
  private readonly flat = new FlatCurves();

  /** The compiled curve of a slot, or undefined where it has none. */
  curveAt(list: CurveList, slot: number): CompiledCurve | undefined {
    if (list !== this.list) this.turnTo(list);
    const place = this.curveOfSlot[slot];
    return place === undefined || place === NO_CURVE ? undefined : this.compiled(list, place);
  }

  /** Compiles so many curves more at most. */
  compileSome(list: CurveList, most: number): void {
    if (list !== this.list) this.turnTo(list);
    let room = most;
    for (const place of this.toCompile) {
      if (room-- <= 0) return;
      this.compiled(list, place);
    }
  }

  /** Writes the values of all curves to their slots, and to all other slots what they rest at. */
  run(list: CurveList, frame: number, channels: Float64Array): void {
    this.compileSome(list, Infinity);
    // All of them are compiled now.
    const curves = this.curves as readonly CompiledCurve[];
    this.flat.run(curves, this.slots, list.structure.rest.flat, frame, channels);
  }

  private compiled({ source, structure, context }: CurveList, place: number): CompiledCurve {
    let compiled = this.curves[place];
    if (!compiled) {
      compiled = compileCurve(source[place]!, structure.rest.at(this.slots[place]!), context);
      this.curves[place] = compiled;
      this.toCompile.delete(place);
    }
    return compiled;
  }

  private turnTo(list: CurveList): void {
    const { list: before, curves } = this;
    const { source, structure } = list;
    this.makeRoom(source.length, structure.slotCount);
    const common = Math.min(curves.length, source.length);
    for (let i = common; i < curves.length; i++) this.takeOut(i);
    curves.length = common;
    if (before) {
      for (const i of changedPlaces(before.source, source)) this.lay(i, list);
      const { rest } = structure;
      if (!rest.growsOutOf(before.structure.rest) && !before.structure.rest.growsOutOf(rest))
        for (let i = 0; i < common; i++) {
          const known = curves[i];
          if (known && rest.at(this.slots[i]!) !== known.rest) this.lay(i, list);
        }
    }
    for (let i = common; i < source.length; i++) this.lay(i, list);
    this.list = list;
  }

  private lay(place: number, { source, structure }: CurveList): void {
    const curve = source[place]!;
    const slot = structure.slots.get(curve.channel) ?? NO_CURVE;
    if (place < this.curves.length && this.slots[place] !== slot) this.takeOut(place);
    this.slots[place] = slot;
    this.curveOfSlot[slot] = place;
    this.curves[place] = null;
    this.toCompile.add(place);
    this.flat.change(place);
  }

  private takeOut(place: number): void {
    const slot = this.slots[place]!;
    if (this.curveOfSlot[slot] === place) this.curveOfSlot[slot] = NO_CURVE;
    this.slots[place] = NO_CURVE;
    this.toCompile.delete(place);
    this.flat.change(place);
  }

  private makeRoom(curves: number, slots: number): void {
    this.slots = longer(this.slots, curves, NO_CURVE);
    this.curveOfSlot = longer(this.curveOfSlot, slots, NO_CURVE);
  }
}
