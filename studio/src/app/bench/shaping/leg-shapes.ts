import { line } from 'd3-shape';
import {
  CAM_LAWS,
  EASE_FAMILIES,
  camLaw,
  easeLaw,
  lawPeaks,
  type EaseSlow,
  type Law,
  type Leg,
} from '@kaizen/core';
import { EASE_GROUPS, EASE_LABELS, LAW_GROUPS, LAW_LABELS } from '../stage/words';

/** The picture of a leg: the true curve of its rise, and its greatest speed and acceleration against even motion. */
export interface LegShape {
  readonly leg: Leg;
  readonly name: string;
  /** What it does: gentle, strong, even cruise … */
  readonly does: string;
  readonly path: string;
  readonly speed: number;
  readonly acceleration: number;
}

/** The size of a picture; rises that overshoot use the room above and below. */
export const PICTURE = { width: 40, height: 34, room: 8 } as const;
const SAMPLES = 60;

const SHORT: Readonly<Record<string, string>> = {
  exponential: 'exp',
  'polynomial 3-4-5': '3-4-5',
  'polynomial 4-5-6-7': '4-5-6-7',
  'modified sine': 'mod. sine',
  'modified trapezoid': 'mod. trap.',
};

export function easeShapes(slow: EaseSlow): readonly LegShape[] {
  return EASE_FAMILIES.map((family) => {
    const leg = { kind: 'ease', family, slow } as const;
    return shape(leg, EASE_LABELS[family], EASE_GROUPS[family], easeLaw(leg));
  });
}

export function lawShapes(): readonly LegShape[] {
  return CAM_LAWS.map((law) => {
    const leg = { kind: 'law', law } as const;
    return shape(leg, LAW_LABELS[law], LAW_GROUPS[law], camLaw(leg));
  });
}

function shape(leg: Leg, name: string, does: string, law: Law): LegShape {
  const places = [
    ...new Set([...Array.from({ length: SAMPLES + 1 }, (_, i) => i / SAMPLES), ...law.breaks]),
  ].sort((a, b) => a - b);
  const { width, height, room } = PICTURE;
  const draw = line<number>(
    (tau) => 2 + tau * (width - 4),
    (tau) => height - room - law.value(tau) * (height - 2 * room),
  );
  return { leg, name: SHORT[name] ?? name, does, path: draw(places) ?? '', ...lawPeaks(law) };
}
