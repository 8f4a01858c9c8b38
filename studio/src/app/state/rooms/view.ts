import type { Vec3 } from '@kaizen/core';
import { atLeast, field, flag, listOf, number, oneOf, orNull, shaped, text, vector } from './field';

export type Tool = 'select' | 'move' | 'turn' | 'size';
export type Axes = 'own' | 'parent' | 'world' | 'view';

/** Parts that show alone, parts that are hidden while one works, and parts that can't be picked; each with all that rides on it. */
export interface Seeing {
  readonly alone: readonly string[];
  readonly hidden: readonly string[];
  readonly locked: readonly string[];
}

/** How the view is looked at, and with what parts are taken hold of in it. */
export const viewFields = {
  tool: field<Tool>('select', oneOf('select', 'move', 'turn', 'size')),
  axes: field<Axes>('own', oneOf('own', 'parent', 'world', 'view')),
  steps: field<{ readonly on: boolean; readonly length: number; readonly angle: number }>(
    { on: false, length: 0.1, angle: 15 },
    shaped({ on: flag, length: number, angle: number }),
  ),
  /** A point of the world about which parts turn and size instead of their pivots. */
  turnPoint: field<Vec3 | null>(null, orNull(vector)),
  trail: field<boolean>(true, flag),
  ghosts: field<boolean>(false, flag),
  /** While it plays the view goes along with what is chosen. */
  keepInSight: field<boolean>(false, flag),
  /** Grips on the sizes of the chosen shape; the pivot as a grip. */
  shapeGrips: field<boolean>(false, flag),
  pivotGrip: field<boolean>(false, flag),
  /** What the shot shows stands beside the working view. */
  beside: field<boolean>(false, flag),
  /** The camera that is looked through blurs what lies outside its focus. */
  depthOfField: field<boolean>(false, flag),
  /** Drags and the wheel move the camera that is looked through. */
  fly: field<boolean>(false, flag),
  seeing: field<Seeing>(
    { alone: [], hidden: [], locked: [] },
    shaped({ alone: listOf(text), hidden: listOf(text), locked: listOf(text) }),
  ),
  /** Width to height of the frame that is drawn when a camera is looked through. */
  shotFrame: field(16 / 9, atLeast(0.1)),
};
