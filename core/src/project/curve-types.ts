/**
 * Curves as values: keys with their sides and legs, what is outside them, treatments laid over them (contract §3 to §5). Times are
 * frames, slopes value per frame, reaches shares of a leg.
 */
export const SIDE_MODES = ['smooth', 'bounded', 'flat', 'linear', 'set'] as const;
export type SideMode = (typeof SIDE_MODES)[number];

/** How a curve meets a key on one side: `slope` in value per frame (used by `set`), `reach` as a share of the leg. */
export interface Side {
  readonly mode: SideMode;
  readonly slope: number;
  readonly reach: number;
}

export const EASE_FAMILIES = [
  'sine',
  'quad',
  'cubic',
  'quart',
  'quint',
  'exp',
  'circle',
  'back',
  'elastic',
  'bounce',
] as const;
export type EaseFamily = (typeof EASE_FAMILIES)[number];
export type EaseSlow = 'start' | 'end' | 'both';

export const CAM_LAWS = [
  'harmonic',
  'cycloidal',
  'poly-345',
  'poly-4567',
  'modified-sine',
  'modified-trapezoid',
  'trapezoid',
  's-curve',
] as const;
export type CamLaw = (typeof CAM_LAWS)[number];

export interface CurveLeg {
  readonly kind: 'curve';
}
export interface HoldLeg {
  readonly kind: 'hold';
}
export interface EaseLeg {
  readonly kind: 'ease';
  readonly family: EaseFamily;
  readonly slow: EaseSlow;
  readonly overshoot?: number;
  readonly amplitude?: number;
  readonly period?: number;
}
export interface LawLeg {
  readonly kind: 'law';
  readonly law: CamLaw;
  readonly accelerate?: number;
  readonly decelerate?: number;
  readonly smoothing?: number;
}
export interface BallisticLeg {
  readonly kind: 'ballistic';
  readonly gravity?: number | null;
}
export type Leg = CurveLeg | HoldLeg | EaseLeg | LawLeg | BallisticLeg;
export type LegKind = Leg['kind'];

export interface Key {
  readonly frame: number;
  readonly value: number;
  readonly in: Side;
  readonly out: Side;
  readonly joined: boolean;
  readonly leg: Leg;
}

export const OUTSIDE_MODES = ['hold', 'run-on', 'loop', 'loop-carry', 'swing'] as const;
export type OutsideMode = (typeof OUTSIDE_MODES)[number];

/** What a curve does before its first or after its last key. */
export interface Outside {
  readonly mode: OutsideMode;
  readonly count: number | null;
  readonly pin: number | null;
}

/** Keys over some time axis: the whole of a weight's or a map's curve, the keyed part of a channel's. */
export interface KeyedCurve {
  readonly keys: readonly Key[];
  readonly before: Outside;
  readonly after: Outside;
}

export type Weight = number | KeyedCurve;

interface TreatmentBase {
  readonly weight: Weight;
  readonly muted: boolean;
}
export type Treatment = TreatmentBase &
  (
    | {
        readonly kind: 'noise';
        readonly amplitude: number;
        readonly period: number;
        readonly seed: number;
        readonly octaves?: number;
        readonly loop?: number | null;
      }
    | { readonly kind: 'clamp'; readonly min?: number | null; readonly max?: number | null }
    | { readonly kind: 'gain'; readonly factor: number; readonly about?: number }
    | { readonly kind: 'delay'; readonly frames: number }
    | { readonly kind: 'every'; readonly frames: number; readonly offset?: number }
  );

/** A second version of a channel's curve, kept beside the one that plays. */
export interface Take extends KeyedCurve {
  readonly treatments: readonly Treatment[];
}

export interface Curve extends Take {
  readonly channel: string;
  readonly otherTake?: Take;
  readonly muted: boolean;
  readonly locked: boolean;
}

export interface Clip {
  readonly id: string;
  readonly name: string;
  readonly curves: readonly Curve[];
}
