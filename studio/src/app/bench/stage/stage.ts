import { computed, effect, Injectable, inject, signal, untracked } from '@angular/core';
import {
  compile,
  curveOf,
  keyedSpan,
  heldFrame,
  lastShownFrame,
  type FrameOutput,
  type Problem,
  type Program,
  type Project,
} from '@kaizen/core';
import type { LooseEdit } from '../../state/document';
import { Studio } from '../../state/studio';
import { Turns } from '../../ui/in-turn.directive';
import { Proposals } from './proposals';
import { advance, type Playing, type Span } from './playback';

/** About a millisecond's work. */
const CURVES_A_TURN = 25;

/** A frame evaluated: the program it came from, its output, and which frame. */
export interface Evaluated {
  readonly program: Program;
  readonly out: FrameOutput;
  readonly frame: number;
}

/**
 * What is on show: the project, or what a proposal would make of it, its program, the playhead and the
 * frame evaluated. The playhead moves outside the store, which learns where it stopped.
 */
@Injectable({ providedIn: 'root' })
export class Stage {
  private readonly studio = inject(Studio);
  private readonly proposals = inject(Proposals);
  private readonly turns = inject(Turns);
  readonly frame = signal(0);
  readonly playing = signal(false);
  /** Values held by a grip or field that is being dragged, at the playhead. */
  readonly posing = signal<readonly LooseEdit[]>([]);
  readonly shown = computed(() => this.proposals.result()?.project ?? this.studio.project());
  private last: Program | undefined;
  private readonly compiled = computed(() => {
    const project = this.shown();
    if (!project) return null;
    const result = compile(project, this.last ? { previous: this.last } : {});
    if (result.ok) this.last = result.value;
    return result;
  });
  readonly program = computed(() => {
    const result = this.compiled();
    return result?.ok ? result.value : null;
  });
  readonly problems = computed<readonly Problem[]>(() => {
    const result = this.compiled();
    return result && !result.ok ? result.problems : [];
  });

  /** Values that take a curve's place at a frame: loose edits, and what is being dragged. */
  private readonly instead = computed(() => {
    const program = this.program();
    const project = this.shown();
    const frame = this.frame();
    const slots = new Map<number, number>();
    if (!program || !project) return slots;
    for (const edit of [...this.studio.loose(), ...this.posing()]) {
      const slot = program.structure.slots.get(edit.channel);
      if (slot === undefined) continue;
      if (edit.frame === frame || !curveOf(project, edit.channel)) slots.set(slot, edit.value);
    }
    return slots;
  });
  /** The frame whose pose shows: the playhead's, or, while poses are held, the last one with a key. */
  private readonly posedFrame = computed(() => {
    const project = this.shown();
    const { held } = this.studio.bench();
    const frame = this.frame();
    return held.on && project ? heldFrame(project, frame, held.released) : frame;
  });
  private output: FrameOutput | undefined;
  /** Whether the curves are compiled, so that a frame is evaluated at once. */
  readonly prepared = signal(true);

  /** The frame on show, evaluated. The output is one object, filled anew each time. */
  readonly now = computed<Evaluated | null>(() => {
    const program = this.program();
    if (!program) return null;
    this.output ??= program.createOutput();
    const frame = this.posedFrame();
    program.run(frame, this.output, this.instead());
    return { program, out: this.output, frame };
  });

  constructor() {
    let opened: string | undefined;
    effect(() => {
      const { frame } = this.studio.bench();
      const id = this.studio.project()?.id;
      untracked(() => {
        if (id !== opened) this.stop();
        opened = id;
        if (!this.playing()) this.frame.set(frame);
      });
    });
  }

  /**
   * Compiles the curves and evaluates the frame once all else is shown, some curves a turn: with thousands that takes longer than
   * showing them.
   */
  prepare(): void {
    const count = this.shown()?.clips.reduce((sum, { curves }) => sum + curves.length, 0) ?? 0;
    this.prepared.set(false);
    for (let i = 0; i < count; i += CURVES_A_TURN)
      this.turns.take(() => this.program()?.compileSome(CURVES_A_TURN), true);
    this.turns.take(() => this.now(), true);
    this.turns.take(() => this.prepared.set(true), true);
  }

  /** A channel's value on show, or null where there is no such channel. */
  valueOf(channel: string): number | null {
    const program = this.program();
    const slot = program?.structure.slots.get(channel);
    if (!program || slot === undefined) return null;
    // Until the curves are compiled, of all of them only those that are asked for.
    const alone = !this.prepared() && this.instead().size === 0;
    return alone ? program.channelValue(slot, this.posedFrame()) : this.now()!.out.channels[slot]!;
  }

  /** What plays: the shot's range, or from the first key to the last. */
  span(project: Project): Span {
    if (!this.studio.bench().playAll)
      return { first: project.range.start, last: lastShownFrame(project.range) };
    let { start: first, end: last } = project.range;
    for (const { curves } of project.clips)
      for (const curve of curves) {
        const keyed = keyedSpan(curve);
        if (!keyed) continue;
        first = Math.min(first, keyed.first);
        last = Math.max(last, keyed.last);
      }
    return { first: Math.floor(first), last: Math.ceil(last) };
  }

  /** Moves the playhead without telling the store yet, as while scrubbing. */
  scrub(frame: number): void {
    this.frame.set(frame);
  }

  /** Puts the playhead somewhere and tells the store. */
  goTo(frame: number): void {
    this.stop();
    this.frame.set(frame);
    if (this.studio.bench().frame !== frame) this.studio.set({ frame });
  }

  toggle(): void {
    if (this.playing()) this.stop();
    else this.play();
  }

  stop(): void {
    if (!this.playing()) return;
    this.playing.set(false);
    this.studio.set({ frame: this.frame() });
  }

  private play(): void {
    const project = this.studio.project();
    if (!project || !this.program()) return;
    const span = this.span(project);
    const atEnd = this.studio.bench().playMode === 'once' && this.frame() >= span.last;
    this.playing.set(true);
    let playing: Playing = { place: atEnd ? span.first : this.frame(), direction: 1 };
    let before = performance.now();
    const tick = (time: number) => {
      if (!this.playing()) return;
      const { playMode, playSpeed, playEveryFrame } = this.studio.bench();
      const open = this.studio.project();
      if (!open) {
        this.stop();
        return;
      }
      const elapsed = ((time - before) / 1000) * (open.rate.frames / open.rate.per) * playSpeed;
      before = time;
      const next = advance(
        playing,
        playEveryFrame ? Math.min(1, Math.max(0, elapsed)) : Math.max(0, elapsed),
        this.span(open),
        playMode,
      );
      playing = next;
      this.frame.set(Math.floor(next.place + 1e-9));
      if (next.done) this.stop();
      else requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  }
}
