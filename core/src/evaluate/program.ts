import type { Curve, Problem, Project, Result } from '../project';
import { activeClip, secondsPerFrame } from '../project';
import { addJets, constantJet, type Jet } from '../law';
import { compileCurve, curveJet, curveValue, type CompiledCurve, type CurveContext } from '../curve';
import type { ChannelReader, CompiledDriver } from '../drive';
import { localMatrix, multiplyAffine } from '../rig';
import { FlatCurves } from './flat-curves';
import { linkDrivers, type Links } from './link-drivers';
import { structureOf, type Structure } from './structure';
import { unsupportedProblems } from './unsupported';

/** What a run fills: one number a channel slot, sixteen a part, and which drivers failed. */
export interface FrameOutput {
  readonly channels: Float64Array;
  /** World matrices, column-major, one view a part, in file order. */
  readonly world: readonly Float64Array[];
  /** 1 where the driver of that place in `program.drivers` failed at the frame. */
  readonly failed: Uint8Array;
}

/** A project flattened for evaluation. Reading it changes nothing that a reader can see. */
export interface Program {
  readonly structure: Structure;
  readonly context: CurveContext;
  /** Compiled curves and the slots they write, in clip order. */
  readonly curves: readonly CompiledCurve[];
  readonly curveSlots: Int32Array;
  readonly drivers: readonly CompiledDriver[];
  /** Channels that are animated or driven, animated ones first, each once. */
  readonly moving: readonly string[];
  createOutput(): FrameOutput;
  /**
   * Fills `out` with all channels and world matrices at a frame. Allocates nothing. `instead` gives channels another
   * value than their curve's, before the drivers run.
   */
  run(frame: number, out: FrameOutput, instead?: ReadonlyMap<number, number>): void;
  /** One channel at a frame, after its drivers. */
  channelValue(slot: number, frame: number): number;
  /** One channel's value and its first three derivatives per second, just after the frame. */
  channelRates(slot: number, frame: number): Jet;
  /** The channel's value by its curve alone, without drivers. */
  baseValue(slot: number, frame: number): number;
  isDriven(slot: number): boolean;
  /** The compiled curve of a channel, or undefined where it has none. */
  curveAt(slot: number): CompiledCurve | undefined;
  /** One part's world matrix at any frame, by the part's place in the file; column-major into `out`. Runs only its parents. */
  worldMatrix(part: number, frame: number, out: Float64Array): void;
}

export interface CompileOptions {
  /** Evaluate this clip alone, drivers on; default: the active clip. */
  readonly clip?: string;
  /** A program of an earlier state of the project: what did not change is taken over from it. */
  readonly previous?: Program;
}

/** Compiles a project, or gives the problems that keep it from being evaluated. */
export function compile(project: Project, options: CompileOptions = {}): Result<Program> {
  const clip =
    options.clip === undefined ? activeClip(project) : project.clips.find(({ id }) => id === options.clip);
  const previous = options.previous as FlatProgram | undefined;
  const takenOver = previous?.takeOver(project, clip?.curves ?? []);
  if (takenOver) return { ok: true, value: takenOver };

  const problems: Problem[] = unsupportedProblems(
    options.clip === undefined ? project : { ...project, arrangement: [] },
  );
  const structure = structureOf(project.parts);
  const links = linkDrivers(project, structure);
  if (!links.ok) problems.push(...links.problems);
  if (problems.length > 0 || !links.ok) return { ok: false, problems };
  return { ok: true, value: new FlatProgram(project, structure, clip?.curves ?? [], links.value) };
}

class FlatProgram implements Program, ChannelReader {
  readonly context: CurveContext;
  readonly curves: readonly CompiledCurve[];
  readonly curveSlots: Int32Array;
  readonly secondsPerFrame: number;
  private readonly curveOfSlot: Int32Array;
  private readonly flat: FlatCurves;
  private movingChannels: readonly string[] | undefined;

  constructor(
    private readonly project: Project,
    readonly structure: Structure,
    private readonly source: readonly Curve[],
    private readonly links: Links,
    shared?: { readonly program: FlatProgram; readonly changed: readonly number[] },
  ) {
    this.secondsPerFrame = secondsPerFrame(project.rate);
    this.context = shared?.program.context ?? {
      secondsPerFrame: this.secondsPerFrame,
      gravity: project.gravity,
    };
    this.flat = shared?.program.flat ?? new FlatCurves();
    if (shared) {
      this.curveSlots = shared.program.curveSlots;
      this.curveOfSlot = shared.program.curveOfSlot;
      const curves = shared.program.curves.slice();
      for (const i of shared.changed) curves[i] = this.compileAt(i);
      this.curves = curves;
      return;
    }
    this.curveSlots = Int32Array.from(source, (curve) => structure.slots.get(curve.channel) ?? -1);
    this.curveOfSlot = new Int32Array(structure.channels.length).fill(-1);
    this.curveSlots.forEach((slot, i) => (this.curveOfSlot[slot] = i));
    this.curves = source.map((_, i) => this.compileAt(i));
  }

  private compileAt(i: number): CompiledCurve {
    return compileCurve(this.source[i]!, this.structure.rest[this.curveSlots[i]!] ?? 0, this.context);
  }

  get drivers(): readonly CompiledDriver[] {
    return this.links.drivers;
  }

  get moving(): readonly string[] {
    this.movingChannels ??= [
      ...new Set([
        ...this.source.map((curve) => curve.channel),
        ...this.links.drivers.map((driver) => this.structure.channels[driver.target]!),
      ]),
    ];
    return this.movingChannels;
  }

  /** The program of a project where only curves changed since this one was made and none came or went; else null. */
  takeOver(project: Project, curves: readonly Curve[]): FlatProgram | null {
    if (
      project.parts !== this.project.parts ||
      project.drivers !== this.project.drivers ||
      project.constraints !== this.project.constraints ||
      project.arrangement !== this.project.arrangement ||
      project.rate !== this.project.rate ||
      project.gravity !== this.project.gravity ||
      curves.length !== this.source.length
    ) {
      return null;
    }
    if (curves === this.source) return this;
    const { source } = this;
    const changed: number[] = [];
    for (let i = 0; i < curves.length; i++) {
      if (curves[i] === source[i]) continue;
      if (curves[i]!.channel !== source[i]!.channel) return null;
      changed.push(i);
    }
    return new FlatProgram(project, this.structure, curves, this.links, { program: this, changed });
  }

  createOutput(): FrameOutput {
    const all = new Float64Array(this.structure.parts.length * 16);
    return {
      channels: new Float64Array(this.structure.channels.length),
      world: this.structure.parts.map((_, i) => all.subarray(i * 16, i * 16 + 16)),
      failed: new Uint8Array(this.links.drivers.length),
    };
  }

  run(frame: number, out: FrameOutput, instead?: ReadonlyMap<number, number>): void {
    const { channels } = out;
    channels.set(this.structure.rest);
    const { curves, curveSlots } = this;
    this.flat.run(curves, curveSlots, frame, channels);
    if (instead) for (const [slot, value] of instead) channels[slot] = value;
    if (this.links.drivers.length > 0) this.runDrivers(frame, out);
    this.runMatrices(out);
  }

  private runDrivers(frame: number, out: FrameOutput): void {
    const { order, bySlot, drivers } = this.links;
    out.failed.fill(0);
    running.channels = out.channels;
    running.frame = frame;
    running.later = this;
    running.secondsPerFrame = this.secondsPerFrame;
    for (let i = 0; i < order.length; i++) {
      const slot = order[i]!;
      const list = bySlot.get(slot)!;
      for (let j = 0; j < list.length; j++) {
        const driver = drivers[list[j]!]!;
        const result = driver.value(frame, running);
        const next = driver.add ? out.channels[slot]! + result : result;
        if (Number.isFinite(next)) out.channels[slot] = next;
        else out.failed[list[j]!] = 1;
      }
    }
  }

  private runMatrices(out: FrameOutput): void {
    const { frames, firstSlot, hierarchy } = this.structure;
    const { order, parents } = hierarchy;
    for (let i = 0; i < order.length; i++) {
      const part = order[i]!;
      const parent = parents[part]!;
      const world = out.world[part]!;
      if (parent < 0) {
        localMatrix(world, frames[part]!, out.channels, firstSlot[part]!);
      } else {
        localMatrix(local, frames[part]!, out.channels, firstSlot[part]!);
        multiplyAffine(world, out.world[parent]!, local);
      }
    }
  }

  baseValue(slot: number, frame: number): number {
    const curve = this.curveOfSlot[slot]!;
    return curve >= 0 ? curveValue(this.curves[curve]!, frame) : this.structure.rest[slot]!;
  }

  curveAt(slot: number): CompiledCurve | undefined {
    const curve = this.curveOfSlot[slot];
    return curve === undefined || curve < 0 ? undefined : this.curves[curve];
  }

  worldMatrix(part: number, frame: number, out: Float64Array): void {
    const { hierarchy } = this.structure;
    this.ownMatrix(part, frame, out);
    for (let above = hierarchy.parents[part]!; above >= 0; above = hierarchy.parents[above]!) {
      this.ownMatrix(above, frame, parentLocal);
      multiplyAffine(out, parentLocal, out);
    }
  }

  /** The local matrix of one part at any frame. */
  private ownMatrix(part: number, frame: number, out: Float64Array): void {
    const slot = this.structure.firstSlot[part]!;
    for (let i = 0; i < TRANSFORM_VALUES; i++) transform[i] = this.channelValue(slot + i, frame);
    localMatrix(out, this.structure.frames[part]!, transform, 0);
  }

  isDriven(slot: number): boolean {
    return this.links.bySlot.has(slot);
  }

  /** ChannelReader: what drivers read at any frame. */
  value(slot: number, frame: number): number {
    return this.channelValue(slot, frame);
  }

  jet(slot: number, frame: number): Jet {
    const curve = this.curveOfSlot[slot]!;
    let jet = curve >= 0 ? curveJet(this.curves[curve]!, frame) : constantJet(this.structure.rest[slot]!);
    for (const index of this.links.bySlot.get(slot) ?? []) {
      const driver = this.links.drivers[index]!;
      const result = driver.jet(frame, this);
      const value = driver.value(frame, this);
      const next = driver.add ? addJets(jet, result) : result;
      const nextValue = driver.add ? jet[0] + value : value;
      if (Number.isFinite(nextValue)) jet = [nextValue, next[1], next[2], next[3]];
    }
    return jet;
  }

  channelValue(slot: number, frame: number): number {
    let value = this.baseValue(slot, frame);
    const list = this.links.bySlot.get(slot);
    if (!list) return value;
    for (let i = 0; i < list.length; i++) {
      const driver = this.links.drivers[list[i]!]!;
      const result = driver.value(frame, this);
      const next = driver.add ? value + result : result;
      if (Number.isFinite(next)) value = next;
    }
    return value;
  }

  channelRates(slot: number, frame: number): Jet {
    const perSecond = 1 / this.secondsPerFrame;
    const [v, d1, d2, d3] = this.jet(slot, frame);
    return [v, d1 * perSecond, d2 * perSecond ** 2, d3 * perSecond ** 3];
  }
}

/** Translate, rotate, scale and squash: what a local matrix is made of. */
const TRANSFORM_VALUES = 10;

const local = new Float64Array(16);
const parentLocal = new Float64Array(16);
const transform = new Float64Array(TRANSFORM_VALUES);

/** While a frame runs, inputs at that very frame are read from what is already filled; other frames are asked for. */
const running = {
  channels: new Float64Array(0) as Float64Array,
  frame: 0,
  later: undefined as unknown as FlatProgram,
  secondsPerFrame: 1,
  value(slot: number, frame: number): number {
    return frame === running.frame ? running.channels[slot]! : running.later.channelValue(slot, frame);
  },
  jet(slot: number, frame: number): Jet {
    return running.later.jet(slot, frame);
  },
};
