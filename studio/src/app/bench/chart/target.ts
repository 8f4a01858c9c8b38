import type { HandleRef, KeyRef, Marker, Program, Project, Sound, TimeKnot } from '@kaizen/core';
import type { BenchState } from '../../state/bench';
import type { Plot, Strip } from '../plot/plot';
import type { Cruise, SpeedMark } from '../plot/rates/speed-marks';
import type { Row } from '../plot/rows';
import type { BoxGrip } from './scale-box';

/** What lies under a place of the Chart's canvas. */
export type Target =
  | { readonly kind: 'ruler' }
  | { readonly kind: 'range'; readonly end: 'start' | 'end' }
  | { readonly kind: 'stake'; readonly stake: TimeKnot }
  | { readonly kind: 'marker'; readonly marker: Marker; readonly end: 'start' | 'end' | 'whole' }
  | { readonly kind: 'sound'; readonly sound: Sound }
  | { readonly kind: 'run'; readonly end: 'start' | 'end'; readonly frame: number }
  | {
      readonly kind: 'keys';
      readonly refs: readonly KeyRef[];
      readonly strip: Strip | null;
      /** Keys of other curves that lie on this one. */
      readonly under?: readonly KeyRef[];
    }
  | { readonly kind: 'speed'; readonly mark: SpeedMark; readonly strip: Strip }
  | { readonly kind: 'cruise'; readonly cruise: Cruise; readonly strip: Strip }
  | { readonly kind: 'repeated'; readonly ref: KeyRef }
  | { readonly kind: 'box'; readonly grip: BoxGrip; readonly strip: Strip }
  | { readonly kind: 'handle'; readonly handle: HandleRef; readonly strip: Strip }
  | {
      readonly kind: 'curve';
      readonly channel: string;
      readonly strip: Strip | null;
      /** All curves that lie there, this one among them. */
      readonly all?: readonly string[];
    }
  | { readonly kind: 'ground'; readonly strip: Strip | null };

export interface HitScene {
  readonly plot: Plot;
  readonly project: Project;
  readonly program: Program;
  readonly bench: BenchState;
  readonly rows: readonly Row[];
  readonly scrollTop: number;
}
