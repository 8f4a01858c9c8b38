import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { Follower, secondsPerFrame, type Spring } from '@kaizen/core';
import { shownNumber } from '../../ui/amount';
import { Stage } from '../stage/stage';

const [WIDTH, HEIGHT] = [260, 74] as const;
/** Frames that are drawn of it, and parts of a frame. */
const FRAMES = 72;
const PARTS = 4;

/** How a spring answers a step: the input jumps from 0 to 1, and what follows comes after. */
@Component({
  selector: 'kz-response',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="'0 0 ' + width + ' ' + height" role="img" [attr.aria-label]="words()">
      <path class="step" [attr.d]="drawn().step" />
      <path class="answer" [attr.d]="drawn().answer" />
    </svg>
    <span class="soft">{{ words() }}</span>
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
      background: var(--field);
    }
    path {
      fill: none;
      stroke: var(--ink-soft);
      stroke-dasharray: 3 3;
    }
    .answer {
      stroke: var(--select);
      stroke-width: 1.75;
      stroke-dasharray: none;
    }
    span {
      font-size: 12px;
    }
  `,
})
export class ResponseComponent {
  readonly spring = input.required<Spring>();
  private readonly stage = inject(Stage);
  readonly width = WIDTH;
  readonly height = HEIGHT;

  /** Values at parts of frames after the step. */
  private readonly values = computed((): readonly number[] => {
    const project = this.stage.shown();
    if (!project) return [];
    const { frequency, damping } = this.spring();
    const follower = new Follower(
      { frequency, damping, start: -1, loop: null },
      1,
      secondsPerFrame(project.rate),
      (frame, out) => (out[0] = frame < 0 ? 0 : 1),
    );
    const [place, speed] = [new Float64Array(1), new Float64Array(1)];
    return Array.from({ length: FRAMES * PARTS + 1 }, (_, i) => {
      follower.at(i / PARTS, place, speed);
      return place[0]!;
    });
  });

  readonly drawn = computed(() => {
    const values = this.values();
    const x = scaleLinear([0, FRAMES * PARTS], [6, WIDTH - 6]);
    const y = scaleLinear([0, Math.max(1.2, ...values)], [HEIGHT - 8, 6]);
    const answer = line<number>()
      .x((_, i) => x(i))
      .y((value) => y(value));
    return {
      answer: answer(values) ?? '',
      step: `M6 ${y(0)}H${x(0)}V${y(1)}H${WIDTH - 6}`,
    };
  });

  readonly words = computed(() => {
    const values = this.values();
    const past = Math.max(0, ...values) - 1;
    const settled = values.findLastIndex((value) => Math.abs(value - 1) > 0.05) + 1;
    const over = past > 0.005 ? `${shownNumber(past * 100, 0)} % past` : 'never past';
    const rests =
      settled <= FRAMES * PARTS
        ? `within 5 % after ${shownNumber(settled / PARTS, 0)} f`
        : 'still swinging after 72 f';
    return `A step of the input: ${over}, ${rests}`;
  });
}
