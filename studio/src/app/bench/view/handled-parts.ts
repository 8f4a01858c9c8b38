import { computed, Injectable, inject } from '@angular/core';
import { Matrix4, Vector3 } from 'three';
import type { Axes } from '../../state/bench';
import { Studio } from '../../state/studio';
import { Poser, type ChannelValue } from '../posing/poser';
import { Stage } from '../stage/stage';
import { axesOf, moved, readPoses, sized, turned, type Handling, type PartPose } from './part-pose';
import { ViewControl } from '../stage/view-control';

/** The chosen parts under the tool in hand: what they become when moved, turned or sized along the chosen axes. */
@Injectable({ providedIn: 'root' })
export class HandledParts {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly view = inject(ViewControl);

  /** The chosen parts as they stand now; those below another chosen one left out. */
  poses(): readonly PartPose[] {
    const now = this.stage.now();
    return now ? readPoses(now, this.studio.bench().parts) : [];
  }

  /** The parts that grips pose: those handled, while a tool is in hand and nothing else moves them. */
  readonly gripped = computed((): readonly PartPose[] => {
    const idle = this.studio.bench().tool !== 'select' && !this.stage.playing() && !this.studio.readOnly();
    return idle ? this.poses() : [];
  });

  /** The point of the world about which parts turn and size, where one is set. */
  readonly point = computed((): Vector3 | null => {
    const { turnPoint, tool } = this.studio.bench();
    return turnPoint && tool !== 'move' ? new Vector3(...turnPoint) : null;
  });

  /** Size always goes along the part's own axes. */
  space(): Axes {
    return this.studio.bench().tool === 'size' ? 'own' : this.studio.bench().axes;
  }

  /** Values after an amount along each of the three axes; null: nothing along it. Sizes are factors. */
  by(poses: readonly PartPose[], amounts: readonly (number | null)[]): readonly ChannelValue[] {
    const last = poses.at(-1);
    if (!last) return [];
    const { tool } = this.studio.bench();
    const view = this.view.looks() ?? new Matrix4();
    const space = this.space();
    if (tool === 'move' || tool === 'select') {
      const shift = new Vector3();
      axesOf(last, space, view).forEach((axis, i) => shift.addScaledVector(axis, amounts[i] ?? 0));
      return poses.flatMap((pose) => moved(pose, shift));
    }
    const point = this.point();
    const change = tool === 'turn' ? turned : sized;
    return amounts.flatMap((amount, axis) => {
      const handling: Handling = { space, axis, amount: amount ?? 0, point, view };
      return amount === null ? [] : poses.flatMap((pose) => change(pose, handling));
    });
  }

  /** Moves, turns or sizes the chosen parts by one step: what an arrow key does. Without a tool they are moved. */
  nudge(axis: number, way: 1 | -1): void {
    const { tool, steps } = this.studio.bench();
    const amount = {
      turn: way * steps.angle,
      size: way > 0 ? 1.05 : 1 / 1.05,
      move: way * steps.length,
      select: way * steps.length,
    }[tool];
    const values = this.by(
      this.poses(),
      [0, 1, 2].map((each) => (each === axis ? amount : null)),
    );
    if (values.length > 0) this.poser.take('Nudge', values);
  }
}
