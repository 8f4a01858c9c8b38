import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Mechanism } from '@kaizen/core';
import { drawMechanism, type Drawing } from './mechanism-drawing';

/** Places at which the way of a joint is read. */
const PLACES = 180;

/** A mechanism drawn to scale as it stands; the drawing has room for all places it comes to. */
@Component({
  selector: 'kz-mechanism-figure',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (figure(); as figure) {
      <svg
        class="figure"
        [attr.viewBox]="figure.box"
        role="img"
        aria-label="The mechanism as it stands, to scale"
      >
        @for (line of figure.lines; track $index) {
          <polyline [attr.points]="line" />
        }
        <path class="way" [attr.d]="way()" />
        @for (circle of figure.circles; track $index) {
          <circle class="wheel" [attr.cx]="circle.x" [attr.cy]="circle.y" [attr.r]="circle.r" />
        }
        @for (bar of figure.bars; track $index) {
          <path class="bar" [attr.d]="bar" [attr.stroke-width]="figure.unit * 3.2" />
        }
        @for (joint of figure.joints; track $index) {
          <circle class="joint" [attr.cx]="joint.x" [attr.cy]="joint.y" [attr.r]="figure.unit * 1.6" />
        }
        @for (ground of figure.grounds; track $index) {
          <circle class="ground" [attr.cx]="ground.x" [attr.cy]="ground.y" [attr.r]="figure.unit * 2.2" />
        }
      </svg>
    } @else {
      <p class="note">It has no outputs here: its lengths don’t reach.</p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      display: block;
      width: 100%;
      border: 1px solid var(--rule);
      border-radius: var(--radius);
    }
    .figure {
      height: 190px;
      background: var(--sheet);
    }
    .figure polyline {
      fill: none;
      stroke: var(--ink-soft);
      stroke-width: 1.2;
      vector-effect: non-scaling-stroke;
    }
    .way {
      fill: none;
      stroke: var(--select);
      stroke-width: 1.2;
      stroke-dasharray: 4 3;
      vector-effect: non-scaling-stroke;
    }
    .wheel {
      fill: color-mix(in srgb, var(--rule) 30%, transparent);
      stroke: var(--ink);
      stroke-width: 1.2;
      vector-effect: non-scaling-stroke;
    }
    .bar {
      stroke: var(--axis-x);
      stroke-linecap: round;
      stroke-opacity: 0.75;
    }
    .joint {
      fill: var(--sheet);
      stroke: var(--ink);
      stroke-width: 1.5;
      vector-effect: non-scaling-stroke;
    }
    .ground {
      fill: var(--ink);
    }
  `,
})
export class MechanismFigureComponent {
  readonly linkage = input.required<string>();
  readonly params = input.required<Readonly<Record<string, unknown>>>();
  readonly mechanism = input.required<Mechanism>();
  /** From where to where its first input goes. */
  readonly span = input.required<readonly [number, number]>();
  /** Its inputs as they are. */
  readonly at = input.required<readonly number[]>();

  private drawnAt(inputs: readonly number[]): Drawing | null {
    return drawMechanism(this.linkage(), this.params(), this.mechanism(), inputs);
  }

  /** What has to have room in the drawing: all places it comes to. */
  private readonly room = computed(() => {
    const [from, to] = this.span();
    const drawings = Array.from({ length: 25 }, (_, i) =>
      this.drawnAt([from + ((to - from) * i) / 24, ...this.at().slice(1)]),
    );
    const xs: number[] = [];
    const ys: number[] = [];
    for (const drawing of drawings) {
      if (!drawing) continue;
      for (const [x, y] of [...drawing.bars.flat(), ...drawing.joints, ...drawing.lines.flat()]) {
        xs.push(x);
        ys.push(y);
      }
      for (const [[x, y], r] of drawing.circles) {
        xs.push(x - r, x + r);
        ys.push(y - r, y + r);
      }
    }
    if (xs.length === 0) return null;
    const [left, right, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const margin = Math.max(right - left, (high - low) * 2) * 0.05 || 0.1;
    return {
      left: left - margin,
      top: -high - margin,
      width: right - left + 2 * margin,
      height: high - low + 2 * margin,
    };
  });

  /** The way of its last joint over the whole span: of four bars that of the coupler's point. */
  readonly way = computed(() => {
    const [from, to] = this.span();
    let pen = 'M';
    let path = '';
    for (let i = 0; i <= PLACES; i++) {
      const drawing = this.drawnAt([from + ((to - from) * i) / PLACES, ...this.at().slice(1)]);
      const joint = drawing?.joints.at(-1);
      if (!joint) pen = 'M';
      else {
        path += `${pen}${joint[0]} ${-joint[1]}`;
        pen = 'L';
      }
    }
    return path;
  });

  /** The mechanism as it stands, upwards up. */
  readonly figure = computed(() => {
    const drawing = this.drawnAt(this.at());
    const room = this.room();
    if (!drawing || !room) return null;
    const place = ([x, y]: readonly [number, number]) => ({ x, y: -y });
    return {
      box: `${room.left} ${room.top} ${room.width} ${room.height}`,
      unit: Math.max(room.width / 440, room.height / 190),
      bars: drawing.bars.map(([[x1, y1], [x2, y2]]) => `M${x1} ${-y1}L${x2} ${-y2}`),
      circles: drawing.circles.map(([centre, r]) => ({ ...place(centre), r })),
      joints: drawing.joints.map(place),
      grounds: drawing.grounds.map(place),
      lines: drawing.lines.map((line) => line.map(([x, y]) => `${x},${-y}`).join(' ')),
    };
  });
}
