import type { CamLaw, EaseFamily, EaseSlow, Leg, LegKind, OutsideMode, SideMode } from '@kaizen/core';
import type { Tool } from '../../state/bench';

/** The words of the product for what the file calls by short names. */
export const OUTSIDE_LABELS: Readonly<Record<OutsideMode, string>> = {
  hold: 'Hold',
  'run-on': 'Run on',
  loop: 'Loop',
  'loop-carry': 'Loop and carry',
  swing: 'Swing',
};

export const SIDE_LABELS: Readonly<Record<SideMode, string>> = {
  smooth: 'Smooth',
  bounded: 'Bounded',
  flat: 'Flat',
  linear: 'Linear',
  set: 'Set',
};

export const SIDE_TIPS: Readonly<Record<SideMode, string>> = {
  smooth: 'Smooth: heads from the key before to the key after',
  bounded: 'Bounded: smooth, but never past its keys',
  flat: 'Flat: comes to rest at the key',
  linear: 'Linear: straight along the leg',
  set: 'Set: the slope you give it, by handle or number',
};

export const LEG_LABELS: Readonly<Record<LegKind, string>> = {
  curve: 'Curve',
  hold: 'Hold',
  ease: 'Ease',
  law: 'Law',
  ballistic: 'Free fall',
};

export const EASE_LABELS: Readonly<Record<EaseFamily, string>> = {
  sine: 'sine',
  quad: 'quad',
  cubic: 'cubic',
  quart: 'quart',
  quint: 'quint',
  exp: 'exponential',
  circle: 'circle',
  back: 'back',
  elastic: 'elastic',
  bounce: 'bounce',
};

/** What an ease does, in a word or two. */
export const EASE_GROUPS: Readonly<Record<EaseFamily, string>> = {
  sine: 'gentle',
  quad: 'gentle',
  cubic: 'gentle',
  quart: 'strong',
  quint: 'strong',
  exp: 'strong',
  circle: 'strong',
  back: 'past the end',
  elastic: 'springing',
  bounce: 'bouncing',
};

/** What a law does: even cruise between ramps, or the whole rise in one law of cams. */
export const LAW_GROUPS: Readonly<Record<CamLaw, string>> = {
  harmonic: 'cam law',
  cycloidal: 'cam law',
  'poly-345': 'cam law',
  'poly-4567': 'cam law',
  'modified-sine': 'cam law',
  'modified-trapezoid': 'cam law',
  trapezoid: 'even cruise',
  's-curve': 'even cruise',
};

export const SLOW_LABELS: Readonly<Record<EaseSlow, string>> = {
  start: 'slow start',
  end: 'slow end',
  both: 'both',
};

export const LAW_LABELS: Readonly<Record<CamLaw, string>> = {
  harmonic: 'harmonic',
  cycloidal: 'cycloidal',
  'poly-345': 'polynomial 3-4-5',
  'poly-4567': 'polynomial 4-5-6-7',
  'modified-sine': 'modified sine',
  'modified-trapezoid': 'modified trapezoid',
  trapezoid: 'trapezoid',
  's-curve': 's-curve',
};

/** What fills a leg, in a few words: `Hold`, `Law s-curve`, `Ease sine, slow end`. */
export function legText(leg: Leg): string {
  if (leg.kind === 'law') return `${LEG_LABELS.law} ${LAW_LABELS[leg.law]}`;
  if (leg.kind !== 'ease') return LEG_LABELS[leg.kind];
  const slow = leg.slow === 'both' ? 'slow at both ends' : SLOW_LABELS[leg.slow];
  return `${LEG_LABELS.ease} ${EASE_LABELS[leg.family]}, ${slow}`;
}

export const TOOL_LABELS: Readonly<Record<Tool, string>> = {
  select: 'Select',
  move: 'Move',
  turn: 'Turn',
  size: 'Size',
};

export const AXIS_LETTERS = ['X', 'Y', 'Z'] as const;
