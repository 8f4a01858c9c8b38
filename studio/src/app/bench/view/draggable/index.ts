import type { Type } from '@angular/core';
import type { ViewDraggable } from './draggable';
import { PivotGrip } from './pivot-grip';
import { ShapeGrips } from './shape-grips';
import { SquashGrip } from './squash-grip';
import { ToolGrips } from './tool-grips';
import { TrailKey } from './trail-key';
import { TurnPoint } from './turn-point';

export type { At, Drawn, Found, ViewDrag, ViewDraggable } from './draggable';

/** All that can be dragged in the view. Where several lie at a place, the first of them is meant; it is drawn over the others. */
export const VIEW_DRAGGABLES: readonly Type<ViewDraggable<unknown>>[] = [
  PivotGrip,
  ShapeGrips,
  SquashGrip,
  TurnPoint,
  ToolGrips,
  TrailKey,
];
