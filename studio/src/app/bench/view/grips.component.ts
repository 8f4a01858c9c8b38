import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Vector3, type Matrix4 } from 'three';
import type { Axes } from '../../state/bench';
import { Studio } from '../../state/studio';
import { shownNumber, signedNumber } from '../../ui/amount';
import { followDrag } from '../../ui/follow-drag';
import type { ChannelValue } from '../posing/poser';
import { Poser } from '../posing/poser';
import { Stage } from '../stage/stage';
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
import { axesOf, moved, readPoses, sized, turned, type PartPose } from './part-pose';
import { AXIS_LETTERS, TOOL_LABELS } from '../stage/words';
import { AmountStrip } from './amount-strip';
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
        @if (pointed()) {
          <g class="point" data-grip="point" (pointerdown)="grabPoint($event)">
            <circle [attr.cx]="at.x" [attr.cy]="at.y" r="9" />
            <path [attr.d]="'M' + (at.x - 13) + ' ' + at.y + 'h26M' + at.x + ' ' + (at.y - 13) + 'v26'" />
          </g>
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
  private readonly strip = inject(AmountStrip);
  readonly tool = computed(() => this.studio.bench().tool);

  /** The parts that the grips pose. */
  private readonly poses = computed((): readonly PartPose[] => {
    const { parts, tool } = this.studio.bench();
    const now = this.stage.now();
    if (!now || tool === 'select' || this.stage.playing() || this.studio.readOnly()) return [];
    return readPoses(now, parts);
  });
  /** The part chosen last: the grips stand on it. */
  private readonly pose = computed(() => this.poses().at(-1) ?? null);
  /** The point of the world about which parts turn and size, where one is set. */
  private readonly point = computed(() => {
    const { turnPoint } = this.studio.bench();
    return turnPoint && this.tool() !== 'move' ? new Vector3(...turnPoint) : null;
  });
  private readonly origin = computed(() => this.point() ?? this.pose()?.pivot ?? null);
  readonly centre = computed(() => {
    const origin = this.origin();
    return origin ? toScreen(this.eye(), origin) : null;
  });
  readonly pointed = computed(() => this.point() !== null);

  /** Size always goes along the part's own axes. */
  private space(): Axes {
    return this.tool() === 'size' ? 'own' : this.studio.bench().axes;
  }

  private view(): Matrix4 {
    return this.eye().camera.matrixWorld;
  }

  readonly grips = computed((): Grip[] => {
    const pose = this.pose();
    const origin = this.origin();
    if (!pose || !origin) return [];
    const eye = this.eye();
    const arm = metresPerPixel(eye, origin) * ARM_PIXELS;
    return axesOf(pose, this.space(), this.view()).flatMap((axis, i): Grip[] => {
      const places =
        this.tool() === 'turn'
          ? circleAbout(origin, axis, arm)
          : [origin, origin.clone().addScaledVector(axis, arm)];
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
    followDrag({
      move,
      end: () => {
        this.chip.hide();
        if (values.length > 0) this.poser.take(this.label(pose, axis), values);
        else this.poser.cancel();
        if (values.length === 0 && axis !== null) this.strip.begin(axis);
      },
      cancel: () => {
        this.chip.hide();
        this.poser.cancel();
      },
    });
  }

  /** Drags the point about which parts turn and size, across the view. */
  grabPoint(down: PointerEvent): void {
    const origin = this.point();
    if (!origin || down.button !== 0) return;
    down.preventDefault();
    down.stopPropagation();
    const corner = (down.currentTarget as Element).closest('svg')!.getBoundingClientRect();
    const facing = new Vector3().setFromMatrixPosition(this.view()).sub(origin).normalize();
    const put = (point: Vector3) =>
      this.studio.set({
        turnPoint: [point.x, point.y, point.z].map((n) => Math.round(n * 1e4) / 1e4) as [
          number,
          number,
          number,
        ],
      });
    const move = (event: PointerEvent) => {
      const ray = rayThrough(this.eye(), event.clientX - corner.left, event.clientY - corner.top);
      const at = onPlane(ray, origin, facing);
      if (at) put(at);
    };
    followDrag({ move, end: () => undefined, cancel: () => put(origin) });
  }

  private label(pose: PartPose, axis: number | null): string {
    const word = TOOL_LABELS[this.tool()];
    const many = this.poses().length;
    const whose = many > 1 ? `${many} parts` : pose.part.name;
    return `${word} ${whose}${axis === null ? '' : ` ${AXIS_LETTERS[axis]}`}`;
  }

  /** From the pointer's place to channel values, and the words beside it. The parts are taken as they stood at the press. */
  private measure(pose: PartPose, axis: number | null, start: { x: number; y: number }) {
    const eye = this.eye();
    const origin = this.origin()!.clone();
    const poses = this.poses();
    const space = this.space();
    const direction = axis === null ? null : axesOf(pose, space, this.view())[axis]!;
    const letter = axis === null ? '' : ` ${AXIS_LETTERS[axis]}`;
    const first = rayThrough(eye, start.x, start.y);
    const facing = new Vector3().setFromMatrixPosition(eye.camera.matrixWorld).sub(origin).normalize();
    const by = { space, axis, point: this.point(), view: this.view().clone() };
    switch (this.tool()) {
      case 'turn': {
        let total = 0;
        let last = this.spoke(eye, origin, direction!, start.x, start.y);
        return (x: number, y: number) => {
          const next = this.spoke(eye, origin, direction!, x, y);
          total += angleAbout(direction!, last, next);
          last = next;
          const amount = this.stepped(total, 'angle');
          return {
            values: poses.flatMap((each) => turned(each, { ...by, amount })),
            text: `turn${letter} ${signedNumber(amount, 1)}°`,
          };
        };
      }
      case 'size':
        return (x: number, y: number) => {
          const along = direction
            ? (alongAxis(rayThrough(eye, x, y), origin, direction) - alongAxis(first, origin, direction)) /
              (metresPerPixel(eye, origin) * ARM_PIXELS)
            : (x - start.x + start.y - y) / ARM_PIXELS;
          const amount = Math.max(0.01, 1 + along);
          return {
            values: poses.flatMap((each) => sized(each, { ...by, amount })),
            text: `size${letter} times ${shownNumber(amount, 2)}`,
          };
        };
      case 'select':
      case 'move':
        return (x: number, y: number) => {
          const ray = rayThrough(eye, x, y);
          if (direction) {
            const amount = this.stepped(
              alongAxis(ray, origin, direction) - alongAxis(first, origin, direction),
              'length',
            );
            const shift = direction.clone().multiplyScalar(amount);
            return {
              values: poses.flatMap((each) => moved(each, shift)),
              text: `move${letter} ${signedNumber(amount, 3)} m`,
            };
          }
          const from = onPlane(first, origin, facing);
          const to = onPlane(ray, origin, facing);
          const shift = from && to ? to.sub(from) : new Vector3();
          return {
            values: poses.flatMap((each) => moved(each, shift)),
            text: `move ${shownNumber(shift.length(), 3)} m`,
          };
        };
    }
  }

  /** The direction from the origin to the pointer, across the axis; seen edge-on the pointer's place in the view serves. */
  private spoke(eye: Eye, origin: Vector3, axis: Vector3, x: number, y: number): Vector3 {
    const ray = rayThrough(eye, x, y);
    const hit = onPlane(ray, origin, axis);
    if (hit) return hit.sub(origin);
    const nearest = ray.closestPointToPoint(origin, new Vector3()).sub(origin);
    return nearest.addScaledVector(ray.direction, -metresPerPixel(eye, origin) * ARM_PIXELS);
  }

  private stepped(amount: number, kind: 'length' | 'angle'): number {
    const { on, [kind]: step } = this.studio.bench().steps;
    return on && step > 0 ? Math.round(amount / step) * step : amount;
  }
}
