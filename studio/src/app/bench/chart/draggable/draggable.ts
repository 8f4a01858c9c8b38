import type { Type } from '@angular/core';
import type { Program, Project } from '@kaizen/core';
import type { BenchState } from '../../../state/bench';
import type { Drag } from '../../../ui/follow-drag';
import type { Plot, Strip } from '../../plot/plot';
import type { Row } from '../../plot/rows';

/** What is looked through when something is searched under the pointer. */
export interface HitScene {
  readonly plot: Plot;
  readonly project: Project;
  readonly program: Program;
  readonly bench: BenchState;
  readonly rows: readonly Row[];
  readonly scrollTop: number;
}

/** A part of the canvas: the ruler, what stands on it, the rows of Ticks, the summary pegs over the plot, strips of values and of rates. */
export type Area = 'ruler' | 'marks' | 'ticks' | 'pegs' | 'values' | 'rates';

/** A place of the canvas in pixels, the area it lies in, and the strip or row there. */
export interface Place {
  readonly x: number;
  readonly y: number;
  readonly area: Area;
  readonly strip: Strip | null;
  readonly row: Row | undefined;
}

/** Takes hold of a thing at a press; null where it can't be held. A hand is injected, and lives as long as the Chart. */
export interface Hand<T> {
  begin(scene: HitScene, down: PointerEvent, target: T): Drag | null;
}

/**
 * A thing on the Chart that can be pressed or dragged: where it lies, how it is found, how the pointer looks over it, and the hand that takes it.
 * One file holds all of it, and one line in the index enters it.
 */
export interface Draggable<T extends { readonly kind: string }> {
  readonly kind: T['kind'];
  readonly areas: readonly Area[];
  readonly cursor: string;
  /** It can be held while Stakes show what they would do. */
  readonly duringStakes?: true;
  hit(scene: HitScene, place: Place): T | null;
  readonly hand: Type<Hand<T>>;
}

/** Whether two places of the canvas are so near that a press on one means the other. */
export function near(dx: number, dy: number): boolean {
  return Math.hypot(dx, dy) <= 8;
}

/** The channels of some keys, each once. */
export function channelsOf(refs: readonly { readonly channel: string }[]): readonly string[] {
  return [...new Set(refs.map(({ channel }) => channel))];
}
