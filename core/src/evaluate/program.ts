import type { Curve, Project, Result } from '../project';
import { activeClip, secondsPerFrame } from '../project';
import type { Jet } from '../law';
import type { CompiledCurve, CurveContext } from '../curve';
import type { CompiledDriver, Reader } from '../drive';
import type { CompiledConstraint } from '../rig';
import { clipValues, PlacedValues, type BaseValues, type ClipValues } from './base-values';
import { buildGraph } from './build-graph';
import type { Graph } from './graph';
import { JetMoment, type JetFrames } from './jet-moment';
import { Moment, type FrameOutput } from './moment';
import { grownGraph, patchedGraph } from './patched-graph';
import { isAlike, isGrown, structureOf, type Structure } from './structure';

/** A project flattened for evaluation. Reading it changes nothing that a reader can see. */
export interface Program {
  readonly structure: Structure;
  readonly context: CurveContext;
  /** Muted drivers are among them where they can be; they drive nothing. */
  readonly drivers: readonly CompiledDriver[];
  readonly constraints: readonly CompiledConstraint[];
  /** The place in the project's lists of each of these drivers and constraints. */
  readonly driverPlaces: readonly number[];
  readonly constraintPlaces: readonly number[];
  /** Channels that are animated or driven, animated ones first, each once. */
  readonly moving: readonly string[];
  createOutput(): FrameOutput;
  /** Why a constraint, by its place in `constraints`, is not met at a frame, 0 where it is (see FAILURES). Runs only what it reads. */
  unmetAt(constraint: number, frame: number): number;
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
  /** The compiled curve of a channel in the clip that is worked on, or undefined where it has none. */
  curveAt(slot: number): CompiledCurve | undefined;
  /**
   * Compiles so many curves more at most. What is not compiled yet is compiled when it
   * is first asked for, all of it by `run`: a big project is shown before.
   */
  compileSome(most: number): void;
  /** One part's world matrix at any frame, by the part's place in the file; column-major into `out`. Runs only what it reads. */
  worldMatrix(part: number, frame: number, out: Float64Array): void;
}

export interface CompileOptions {
  /** Evaluate this clip alone, drivers on; default: the arrangement, or without one the active clip. */
  readonly clip?: string;
  /** A program of an earlier state of the project: what did not change is taken over from it. */
  readonly previous?: Program;
}

/**
 * Compiles a project, or gives the problems that keep it from being evaluated. What was compiled for the same project before, as
 * after an undo, is taken as it is.
 */
export function compile(project: Project, options: CompileOptions = {}): Result<Program> {
  const previous = options.previous as GraphProgram | undefined;
  const known = options.clip === undefined ? compiledBefore.get(project) : undefined;
  const made: Result<Compiled> = known
    ? { ok: true, value: known }
    : compileParts(project, options.clip, previous);
  if (!made.ok) return made;
  const compiled = made.value;
  if (options.clip === undefined) compiledBefore.set(project, compiled);
  const isSame = previous && MADE_OF.every((piece) => previous[piece] === compiled[piece]);
  return { ok: true, value: isSame ? previous : new GraphProgram(project, compiled) };
}

/** What a program is made of: all that is compiled, without what it remembers of frames. */
interface Compiled {
  readonly structure: Structure;
  readonly context: CurveContext;
  readonly clip: ClipValues;
  readonly base: BaseValues;
  readonly graph: Graph;
}
const MADE_OF = ['structure', 'context', 'clip', 'base', 'graph'] as const;

const compiledBefore = new WeakMap<Project, Compiled>();

/** Compiles what an edit made of a project: what it left as it was is taken over. */
export function compileAfter(before: Project, project: Project): Result<Program> {
  const was = compile(before);
  return compile(project, was.ok ? { previous: was.value } : {});
}

function compileParts(
  project: Project,
  clipId: string | undefined,
  previous: GraphProgram | undefined,
): Result<Compiled> {
  const clip = clipId === undefined ? activeClip(project) : project.clips.find(({ id }) => id === clipId);
  const structure = structureOf(project.parts, previous?.structure);
  const same = previous?.fits(project) ? previous : undefined;
  const context = same?.context ?? {
    secondsPerFrame: secondsPerFrame(project.rate),
    gravity: project.gravity,
  };
  const values = clipValues(clip?.curves ?? NO_CURVES, structure, context, same?.clip);
  const graph = same?.graphFor(project, structure) ?? buildGraph(project, structure);
  if (!graph.ok) return graph;
  const isPlaced = clipId === undefined && project.arrangement.length > 0;
  const base = isPlaced
    ? (same?.placedFor(project, structure) ?? new PlacedValues(project, structure, context))
    : values;
  return { ok: true, value: { structure, context, clip: values, base, graph: graph.value } };
}

const NO_CURVES: readonly Curve[] = [];

/** Values and matrices at other frames that a program remembers of one node. */
const MOST_FRAMES = 256;
/** Frames whose rates a program remembers. */
const MOST_JET_FRAMES = 1024;
/** Moments of other frames that are kept filled. */
const MOST_MOMENTS = 4;

class GraphProgram implements Program, JetFrames {
  readonly structure: Structure;
  readonly context: CurveContext;
  readonly clip: ClipValues;
  readonly base: BaseValues;
  readonly graph: Graph;
  readonly secondsPerFrame: number;
  private movingChannels: readonly string[] | undefined;
  private readonly moments: Moment[] = [];
  private readonly values = new Map<number, Map<number, number>>();
  private readonly matrices = new Map<number, Map<number, Float64Array>>();
  private readonly jets = new Map<number, JetMoment>();
  private readonly keeps = new Map<object, unknown>();
  private asking: Moment | undefined;

  constructor(
    private readonly project: Project,
    { structure, context, clip, base, graph }: Compiled,
  ) {
    this.structure = structure;
    this.context = context;
    this.clip = clip;
    this.base = base;
    this.graph = graph;
    this.secondsPerFrame = context.secondsPerFrame;
  }

  get drivers(): readonly CompiledDriver[] {
    return this.graph.drivers;
  }
  get constraints(): readonly CompiledConstraint[] {
    return this.graph.constraints;
  }
  get driverPlaces(): readonly number[] {
    return this.graph.driverPlaces;
  }
  get constraintPlaces(): readonly number[] {
    return this.graph.constraintPlaces;
  }

  get moving(): readonly string[] {
    if (!this.movingChannels) {
      const acting = new Set(this.graph.driversOf.flat());
      const driven = this.graph.drivers.filter((_, i) => acting.has(i));
      const channels = driven.map(({ target }) => this.structure.channelAt(target));
      this.movingChannels = [...new Set([...this.base.channels, ...channels])];
    }
    return this.movingChannels;
  }

  /** Whether curves compiled for this program hold for a project: its rate and gravity are the same. */
  fits(project: Project): boolean {
    const { rate, gravity } = this.project;
    return rate.frames * project.rate.per === rate.per * project.rate.frames && gravity === project.gravity;
  }

  /** The graph of a project that came out of this one: this program's, with what was changed; null where it has to be built anew. */
  graphFor(project: Project, structure: Structure): Result<Graph> | null {
    const { drivers, constraints, range } = this.project;
    const fits =
      project.drivers === drivers &&
      project.constraints === constraints &&
      (constraints.length === 0 || (range.start === project.range.start && range.end === project.range.end));
    let graph: Graph | null = null;
    if (isGrown(structure, this.structure)) {
      if (fits) graph = grownGraph(this.graph, structure.parts.length);
    } else if (isAlike(structure, this.structure))
      graph = fits ? this.graph : patchedGraph(this.graph, this.project, project, structure);
    return graph && { ok: true, value: graph };
  }

  /** The placed clips of a project that came out of this one, where nothing of them is changed. */
  placedFor(project: Project, structure: Structure): BaseValues | null {
    const { arrangement, clips } = this.project;
    const fits = this.base !== this.clip && arrangement === project.arrangement && clips === project.clips;
    return fits && isAlike(structure, this.structure) ? this.base : null;
  }

  createOutput(): FrameOutput {
    return new Moment(this);
  }

  run(frame: number, out: FrameOutput, instead?: ReadonlyMap<number, number>): void {
    const moment = out as Moment;
    moment.adopt(this);
    moment.run(frame, instead);
  }

  baseValue(slot: number, frame: number): number {
    return this.base.value(slot, frame);
  }

  curveAt(slot: number): CompiledCurve | undefined {
    return this.clip.curveAt(slot);
  }

  compileSome(most: number): void {
    this.clip.compileSome(most);
    if (this.base !== this.clip) this.base.compileSome(most);
  }

  isDriven(slot: number): boolean {
    const { nodeOfSlot, driversOf, partRoom } = this.graph;
    const node = nodeOfSlot.get(slot);
    return node !== undefined && driversOf[node - partRoom]!.length > 0;
  }

  channelValue(slot: number, frame: number): number {
    const node = this.graph.nodeOfSlot.get(slot);
    if (node === undefined) return this.base.value(slot, frame);
    let known = this.values.get(slot);
    if (!known) this.values.set(slot, (known = new Map<number, number>()));
    const kept = known.get(frame);
    if (kept !== undefined) return kept;
    const moment = this.take(frame);
    moment.ensure(node);
    const value = moment.channels[slot]!;
    moment.busy--;
    if (known.size >= MOST_FRAMES) known.clear();
    known.set(frame, value);
    return value;
  }

  worldMatrix(part: number, frame: number, out: Float64Array): void {
    let known = this.matrices.get(part);
    if (!known) this.matrices.set(part, (known = new Map<number, Float64Array>()));
    let matrix = known.get(frame);
    if (!matrix) {
      const moment = this.take(frame);
      moment.ensure(part);
      matrix = moment.world[part]!.slice();
      moment.busy--;
      if (known.size >= MOST_FRAMES) known.clear();
      known.set(frame, matrix);
    }
    out.set(matrix);
  }

  unmetAt(constraint: number, frame: number): number {
    const moment = this.take(frame);
    moment.ensure(this.graph.constraints[constraint]!.part);
    moment.busy--;
    return moment.unmet[constraint]!;
  }

  givenMatrix(constraint: number, frame: number, out: Float64Array): void {
    const moment = this.take(frame);
    moment.ensureReads(this.graph.constraints[constraint]!.part);
    moment.givenMatrix(constraint, out);
    moment.busy--;
  }

  /** A moment at a frame that nobody uses, marked as used. */
  private take(frame: number): Moment {
    const { moments } = this;
    let free = -1;
    for (let i = 0; i < moments.length; i++) {
      if (moments[i]!.busy > 0) continue;
      if (moments[i]!.frame === frame) return this.marked(i);
      if (free < 0) free = i;
    }
    if (free < 0 || moments.length < MOST_MOMENTS) {
      free = moments.length;
      moments.push(new Moment(this));
    }
    moments[free]!.turnTo(frame);
    return this.marked(free);
  }

  private marked(i: number): Moment {
    const moment = this.moments[i]!;
    moment.busy++;
    // The moment used last stands last, so that the first one that is free is the one used longest ago.
    this.moments.splice(i, 1);
    this.moments.push(moment);
    return moment;
  }

  channelRates(slot: number, frame: number): Jet {
    const perSecond = 1 / this.secondsPerFrame;
    const [v, d1, d2, d3] = this.channelJet(slot, frame);
    return [v, d1 * perSecond, d2 * perSecond ** 2, d3 * perSecond ** 3];
  }

  channelJet(slot: number, frame: number): Jet {
    if (!this.graph.nodeOfSlot.has(slot)) return this.base.jet(slot, frame);
    let moment = this.jets.get(frame);
    if (!moment) {
      if (this.jets.size >= MOST_JET_FRAMES) this.jets.clear();
      this.jets.set(frame, (moment = new JetMoment(this, frame)));
    }
    return moment.slot(slot);
  }

  readingAt(node: number, frame: number, value: (read: Reader) => number): number {
    const moment = this.take(frame);
    moment.ensureReads(node);
    const read = value(moment);
    moment.busy--;
    return read;
  }

  reader(): Reader {
    return (this.asking ??= new Moment(this));
  }

  kept<T>(owner: object, make: () => T): T {
    let known = this.keeps.get(owner) as T | undefined;
    if (known === undefined) this.keeps.set(owner, (known = make()));
    return known;
  }
}
