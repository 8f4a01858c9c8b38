import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { channelName } from '@kaizen/core';
import { Vector3 } from 'three';
import { Studio } from '../../state/studio';
import { shownNumber, signedNumber } from '../../ui/amount';
import { followDrag } from '../../ui/follow-drag';
import { Poser } from '../posing/poser';
import { Stage } from '../stage/stage';
import { GripChip } from './grip-chip';
import { alongAxis, rayThrough, toScreen, type Eye } from './grip-math';
import { amountFor, onEqualVolume, squashLine, type SquashLine } from './squash-line';

/** Shares of the height between which the line of equal volume is drawn, and its ticks. */
const SHARES = Array.from({ length: 33 }, (_, i) => 0.4 + i * 0.05);
const TICKS = [0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.1, 1.2, 1.3, 1.4, 1.5];
const TICK_PIXELS = 5;

/** With the tool Size: a disc on the line of equal volume, which a part that squashes can't leave while it is dragged. */
@Component({
  selector: 'kz-squash-grip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (drawn(); as at) {
      <svg aria-hidden="true">
        <polygon class="unsquashed" [attr.points]="at.unsquashed" />
        <polyline class="line" [attr.points]="at.line" />
        @for (tick of at.ticks; track $index) {
          <path class="tick" [attr.d]="tick" />
        }
        <circle
          data-grip="squash"
          [attr.cx]="at.grip.x"
          [attr.cy]="at.grip.y"
          r="8"
          (pointerdown)="grab($event, at.squash)"
        />
      </svg>
    }
  `,
  styles: `
    svg {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
      pointer-events: none;
    }
    .line,
    .tick {
      fill: none;
      stroke: var(--select);
      stroke-width: 1.4;
    }
    .unsquashed {
      fill: color-mix(in srgb, var(--select) 7%, transparent);
      stroke: var(--select);
      stroke-dasharray: 4 3;
    }
    circle {
      fill: var(--sheet);
      stroke: var(--select);
      stroke-width: 2;
      pointer-events: auto;
      cursor: ns-resize;

      &:hover {
        stroke-width: 3;
      }
      &:active {
        fill: var(--select);
      }
    }
  `,
})
export class SquashGripComponent {
  readonly eye = input.required<Eye>();
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly chip = inject(GripChip);

  private readonly squash = computed((): SquashLine | null => {
    const { parts, tool } = this.studio.bench();
    const now = this.stage.now();
    const part = parts.at(-1);
    if (!now || part === undefined || tool !== 'size' || this.stage.playing() || this.studio.readOnly())
      return null;
    const project = this.stage.shown();
    return project && squashLine(project, now, part);
  });

  /** Across the squash axis, to the right of the picture. */
  private aside({ axis }: SquashLine): Vector3 {
    const right = new Vector3().setFromMatrixColumn(this.eye().camera.matrixWorld, 0);
    const across = right.addScaledVector(axis, -right.dot(axis));
    return across.lengthSq() > 1e-6 ? across.normalize() : new Vector3(1, 0, 0);
  }

  readonly drawn = computed(() => {
    const squash = this.squash();
    if (!squash) return null;
    const eye = this.eye();
    const aside = this.aside(squash);
    const grip = toScreen(eye, onEqualVolume(squash, 1 + amountFor(1 + squash.amount), aside));
    if (!grip) return null;
    const listed = (places: readonly Vector3[]) =>
      places
        .flatMap((place) => toScreen(eye, place) ?? [])
        .map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`)
        .join(' ');
    const { contact, axis, height, radius } = squash;
    const corner = (way: number, up: number) =>
      contact
        .clone()
        .addScaledVector(aside, way * radius)
        .addScaledVector(axis, up * height);
    return {
      squash,
      grip,
      line: listed(SHARES.map((share) => onEqualVolume(squash, share, aside))),
      unsquashed: listed([corner(-1, 0), corner(1, 0), corner(1, 1), corner(-1, 1)]),
      ticks: TICKS.flatMap((share) => {
        const at = toScreen(eye, onEqualVolume(squash, share, aside));
        return at ? [`M ${at.x - TICK_PIXELS} ${at.y} h ${2 * TICK_PIXELS}`] : [];
      }),
    };
  });

  grab(down: PointerEvent, squash: SquashLine): void {
    if (down.button !== 0) return;
    down.preventDefault();
    down.stopPropagation();
    const box = (down.target as Element).closest('svg')!.getBoundingClientRect();
    const eye = this.eye();
    const shareAt = (event: PointerEvent) =>
      alongAxis(
        rayThrough(eye, event.clientX - box.left, event.clientY - box.top),
        squash.contact.clone().addScaledVector(this.aside(squash), squash.radius),
        squash.axis,
      ) / squash.height;
    const grabbed = 1 + squash.amount - shareAt(down);
    const channel = channelName(squash.part, 'squash');
    const valueAt = (event: PointerEvent) => Math.round(amountFor(shareAt(event) + grabbed) * 1000) / 1000;
    const finish = () => {
      this.chip.hide();
      this.poser.cancel();
    };
    followDrag({
      move: (event) => {
        const value = valueAt(event);
        this.poser.show([{ channel, value }]);
        const percent = `${signedNumber(value * 100, 0)} %`;
        this.chip.show(
          event.clientX - box.left,
          event.clientY - box.top,
          `height ${percent} · squash ${shownNumber(squash.amount, 3)} → ${shownNumber(value, 3)}`,
        );
      },
      end: (event) => {
        finish();
        this.poser.take('Squash', [{ channel, value: valueAt(event) }]);
      },
      cancel: finish,
    });
  }
}
