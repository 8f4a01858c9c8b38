import { inject, Injectable } from '@angular/core';
import { Vector3 } from 'three';
import { Studio } from '../../../state/studio';
import { shownNumber } from '../../../ui/amount';
import { HandledParts } from '../handled-parts';
import { onPlane, rayThrough, toScreen, type Eye } from '../grip-math';
import { ViewDraggable, type At, type Drawn, type ViewDrag } from './draggable';
import { circleAt, crossAt } from './paths';

/** The point about which parts turn and size, where one is set: it is dragged across the view. */
@Injectable({ providedIn: 'root' })
export class TurnPoint extends ViewDraggable<Vector3> {
  readonly cursor = 'grab';
  private readonly studio = inject(Studio);
  private readonly handled = inject(HandledParts);

  draw(eye: Eye): readonly Drawn<Vector3>[] {
    const point = this.handled.gripped().length > 0 ? this.handled.point() : null;
    const at = point && toScreen(eye, point);
    if (!at) return [];
    const hint = 'Drag the point about which parts turn and size';
    return [
      {
        tone: 'ink',
        marks: [
          { path: circleAt(at, 9), look: 'glass' },
          { path: crossAt(at, 13), look: 'thin' },
        ],
        found: { target: point, name: 'point', hint, line: [at], within: 11 },
      },
    ];
  }

  begin(eye: Eye, _: At, origin: Vector3): ViewDrag {
    const facing = new Vector3().setFromMatrixPosition(eye.camera.matrixWorld).sub(origin).normalize();
    let at = origin;
    const put = (point: Vector3) => {
      at = point;
      const [x = 0, y = 0, z = 0] = point.toArray().map((n) => Math.round(n * 1e4) / 1e4);
      this.studio.set({ turnPoint: [x, y, z] });
    };
    return {
      move: ({ x, y }) => {
        put(onPlane(rayThrough(eye, x, y), origin, facing) ?? at);
        return `point ${at
          .toArray()
          .map((n) => shownNumber(n, 3))
          .join(' ')} m`;
      },
      end: () => undefined,
      cancel: () => put(origin),
    };
  }
}
