import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Vector3 } from 'three';
import type { AxisSpace } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownNumber, signedNumber } from '../../ui/amount';
import type { ChannelValue } from '../poser';
import { Poser } from '../poser';
import { Stage } from '../stage';
import {
  alongAxis,
  angleAbout,
  circleAbout,
  metresPerPixel,
  onPlane,
  rayThrough,
  toScreen,
  type Eye,
} from './grip-math';
import { axesOf, moved, readPose, sized, turned, type PartPose } from './part-pose';
import { AXIS_LETTERS, TOOL_LABELS } from '../words';
import { GripChip } from './grip-chip';

const ARM_PIXELS = 84;

interface Grip {
  readonly axis: number;
  readonly letter: 'X' | 'Y' | 'Z';
  readonly tone: 'x' | 'y' | 'z';
  readonly line: string;
  readonly x: number;
  readonly y: number;
}

/** The grips of the move, turn and size tools over the chosen part: an arm or a ring an axis, its letter on a badge. */
@Component({
  selector: 'kz-grips',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg aria-hidden="true">
      @if (centre(); as at) {
        @for (grip of grips(); track grip.axis) {
          <g
            class="grip"
            [class]="grip.tone"
            [attr.data-grip]="grip.letter"
            (pointerdown)="grab($event, grip.axis)"
          >
            <polyline class="reach" [attr.points]="grip.line" />
            <polyline class="line" [attr.points]="grip.line" />
            <rect [attr.x]="grip.x - 8" [attr.y]="grip.y - 8" width="16" height="16" rx="3" />
            <text [attr.x]="grip.x" [attr.y]="grip.y + 4">{{ grip.letter }}</text>
          </g>
        }
        @if (tool() !== 'turn') {
          <rect
            class="middle"
            data-grip="all"
            [attr.x]="at.x - 6"
            [attr.y]="at.y - 6"
            width="12"
            height="12"
            (pointerdown)="grab($event, null)"
          />
        } @else {
          <circle class="dot" [attr.cx]="at.x" [attr.cy]="at.y" r="3" />
        }
      }
    </svg>
  `,
  styleUrl: './grips.component.scss',
})
export class GripsComponent {
  readonly eye = input.required<Eye>();
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly chip = inject(GripChip);
  readonly tool = computed(() => this.studio.bench().tool);

  private readonly pose = computed(() => {
    const part = this.studio.bench().parts.at(-1);
    const now = this.stage.now();
    if (
      part === undefined ||
      !now ||
      this.tool() === 'select' ||
      this.stage.playing() ||
      this.studio.readOnly()
    )
      return null;
    return readPose(now, part);
  });
  readonly centre = computed(() => {
    const pose = this.pose();
    return pose ? toScreen(this.eye(), pose.pivot) : null;
  });

  /** Size always goes along the part's own axes. */
  private space(): AxisSpace {
    return this.tool() === 'size' ? 'own' : this.studio.bench().axes;
  }

  readonly grips = computed((): Grip[] => {
    const pose = this.pose();
    if (!pose) return [];
    const eye = this.eye();
    const arm = metresPerPixel(eye, pose.pivot) * ARM_PIXELS;
    return axesOf(pose, this.space()).flatMap((axis, i): Grip[] => {
      const places =
        this.tool() === 'turn'
          ? circleAbout(pose.pivot, axis, arm)
          : [pose.pivot, pose.pivot.clone().addScaledVector(axis, arm)];
      const points = places.flatMap((place) => toScreen(eye, place) ?? []);
      const badge = this.tool() === 'turn' ? points[Math.floor(points.length / 8)] : points.at(-1);
      if (!badge || points.length < 2) return [];
      const letter = AXIS_LETTERS[i]!;
      return [
        {
          axis: i,
          letter,
          tone: letter.toLowerCase() as 'x',
          line: points.map((point) => `${point.x.toFixed(1)},${point.y.toFixed(1)}`).join(' '),
          x: badge.x,
          y: badge.y,
        },
      ];
    });
  });

  grab(down: PointerEvent, axis: number | null): void {
    const pose = this.pose();
    if (!pose || down.button !== 0) return;
    down.preventDefault();
    down.stopPropagation();
    const svg = (down.currentTarget as Element).closest('svg')!;
    const corner = svg.getBoundingClientRect();
    const start = { x: down.clientX - corner.left, y: down.clientY - corner.top };
    const measure = this.measure(pose, axis, start);
    let values: readonly ChannelValue[] = [];
    const move = (event: PointerEvent) => {
      const shown = measure(event.clientX - corner.left, event.clientY - corner.top);
      values = shown.values;
      this.poser.show(values);
      this.chip.show(event.clientX - corner.left, event.clientY - corner.top, shown.text);
    };
    const finish = (keep: boolean) => {
      removeEventListener('pointermove', move);
      removeEventListener('pointerup', up);
      removeEventListener('keydown', escape, true);
      this.chip.hide();
      if (keep && values.length > 0) this.poser.take(this.label(pose, axis), values);
      else this.poser.cancel();
    };
    const up = () => finish(true);
    const escape = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return;
      event.stopPropagation();
      finish(false);
    };
    addEventListener('pointermove', move);
    addEventListener('pointerup', up);
    addEventListener('keydown', escape, true);
  }

  private label(pose: PartPose, axis: number | null): string {
    const word = TOOL_LABELS[this.tool()];
    return `${word} ${pose.part.name}${axis === null ? '' : ` ${AXIS_LETTERS[axis]}`}`;
  }

  /** From the pointer's place to channel values, and the words beside it. */
  private measure(pose: PartPose, axis: number | null, start: { x: number; y: number }) {
    const eye = this.eye();
    const space = this.space();
    const direction = axis === null ? null : axesOf(pose, space)[axis]!;
    const letter = axis === null ? '' : ` ${AXIS_LETTERS[axis]}`;
    const first = rayThrough(eye, start.x, start.y);
    const facing = new Vector3().setFromMatrixPosition(eye.camera.matrixWorld).sub(pose.pivot).normalize();
    switch (this.tool()) {
      case 'turn': {
        let total = 0;
        let last = this.spoke(eye, pose, direction!, start.x, start.y);
        return (x: number, y: number) => {
          const next = this.spoke(eye, pose, direction!, x, y);
          total += angleAbout(direction!, last, next);
          last = next;
          const degrees = this.stepped(total, 'angle');
          return {
            values: turned(pose, space, axis!, degrees),
            text: `turn${letter} ${signedNumber(degrees, 1)}°`,
          };
        };
      }
      case 'size':
        return (x: number, y: number) => {
          const along = direction
            ? (alongAxis(rayThrough(eye, x, y), pose.pivot, direction) -
                alongAxis(first, pose.pivot, direction)) /
              (metresPerPixel(eye, pose.pivot) * ARM_PIXELS)
            : (x - start.x + start.y - y) / ARM_PIXELS;
          const factor = Math.max(0.01, 1 + along);
          return { values: sized(pose, axis, factor), text: `size${letter} times ${shownNumber(factor, 2)}` };
        };
      case 'select':
      case 'move':
        return (x: number, y: number) => {
          const ray = rayThrough(eye, x, y);
          if (direction) {
            const by = this.stepped(
              alongAxis(ray, pose.pivot, direction) - alongAxis(first, pose.pivot, direction),
              'length',
            );
            return {
              values: moved(pose, direction.clone().multiplyScalar(by)),
              text: `move${letter} ${signedNumber(by, 3)} m`,
            };
          }
          const from = onPlane(first, pose.pivot, facing);
          const to = onPlane(ray, pose.pivot, facing);
          const shift = from && to ? to.sub(from) : new Vector3();
          return { values: moved(pose, shift), text: `move ${shownNumber(shift.length(), 3)} m` };
        };
    }
  }

  /** The direction from the pivot to the pointer, across the axis; seen edge-on the pointer's place in the view serves. */
  private spoke(eye: Eye, pose: PartPose, axis: Vector3, x: number, y: number): Vector3 {
    const ray = rayThrough(eye, x, y);
    const hit = onPlane(ray, pose.pivot, axis);
    if (hit) return hit.sub(pose.pivot);
    const nearest = ray.closestPointToPoint(pose.pivot, new Vector3()).sub(pose.pivot);
    return nearest.addScaledVector(ray.direction, -metresPerPixel(eye, pose.pivot) * ARM_PIXELS);
  }

  private stepped(amount: number, kind: 'length' | 'angle'): number {
    const { on, [kind]: step } = this.studio.bench().steps;
    return on && step > 0 ? Math.round(amount / step) * step : amount;
  }
}
