import { type Program, type Project, type Polyline, type RateLine } from '@kaizen/core';
import type { BenchState } from '../../state/bench';
import type { LooseEdit } from '../../state/document';
import type { Ink } from '../plot/ink';
import type { linesOfLane } from '../plot/chart-lines';
import type { CrowdImage } from '../plot/crowd/crowd-picture';
import type { Parted } from '../plot/crowd/crowds';
import type { Plot, Strip } from '../plot/plot';

/** What the plot needs to draw itself. */
export interface CurvesScene {
  readonly plot: Plot;
  readonly ink: Ink;
  readonly project: Project;
  readonly program: Program;
  readonly bench: BenchState;
  readonly loose: readonly LooseEdit[];
  /** Gives a channel drawn out; `old` the curve as it was before a drag. */
  polyline(channel: string): Polyline | null;
  old(channel: string): Polyline | null;
  /** Which channels of a strip are drawn one by one, and the picture of all others as far as it is there. */
  parted(strip: Strip): Parted;
  crowd(strip: Strip): CrowdImage | null;
  /** The rates of a channel, where they are drawn. */
  rates(channel: string): RateLine | null;
  /** What enters and what leaves the chosen treatment of a channel. */
  readonly lane: ReturnType<typeof linesOfLane>;
  /** What is drawn pale beside a channel: its second take, itself without its treatments. */
  beside(channel: string): readonly Polyline[];
}
