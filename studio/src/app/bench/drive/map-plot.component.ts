import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  model,
  output,
  signal,
} from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import {
  compileKeys,
  curveContext,
  greatestOf,
  keyedValue,
  leastOf,
  restValue,
  partOf,
  splitChannel,
  type KeyedCurve,
  type MapDriver,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { decimalsOf, shownNumber } from '../../ui/amount';
import { ARROWS } from '../../ui/arrow-keys';
import { followDrag } from '../../ui/follow-drag';
import { channelLabel } from '../stage/channel-label';
import { Stage } from '../stage/stage';
import { movedPoint, tidy } from './map-points';

/** Room beside and below the plot in pixels, and the places along it at which the curve is read. */
const [LEFT, FOOT, EDGE] = [44, 20, 10] as const;
const COUNT = 240;
/** An arrow key moves a point by this share of what the plot shows. */
const NUDGE = 0.01;

type Points = readonly { readonly frame: number; readonly value: number }[];

/** The curve of a map over its input: points are dragged, a double click adds one; where it is at the playhead is marked. */
@Component({
  selector: 'kz-map-plot',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
  template: `
    <svg
      [attr.viewBox]="'0 0 ' + width() + ' ' + height()"
      role="img"
      [attr.aria-label]="'Curve of the map, ' + points().length + ' points; the same as numbers below'"
      matTooltip="Drag a point; a double click adds one"
      (dblclick)="add($event)"
    >
      @for (tick of across(); track tick.at) {
        <line class="grid" [attr.x1]="tick.at" [attr.x2]="tick.at" y1="4" [attr.y2]="height() - foot" />
        <text [attr.x]="tick.at" [attr.y]="height() - 6" text-anchor="middle">{{ tick.text }}</text>
      }
      @for (tick of up(); track tick.at) {
        <line class="grid" [attr.y1]="tick.at" [attr.y2]="tick.at" [attr.x1]="left" [attr.x2]="width()" />
        <text [attr.x]="left - 5" [attr.y]="tick.at + 3.5" text-anchor="end">{{ tick.text }}</text>
      }
      <path [attr.d]="path()" />
      @if (now(); as here) {
        <line class="now" [attr.x1]="here.x" [attr.x2]="here.x" y1="4" [attr.y2]="height() - foot" />
        <circle class="here" [attr.cx]="here.x" [attr.cy]="here.y" r="3" />
      }
      @for (dot of dots(); track $index) {
        <circle
          class="point"
          tabindex="0"
          role="button"
          [attr.aria-label]="dot.says"
          [class.chosen]="chosen() === $index"
          [attr.cx]="dot.x"
          [attr.cy]="dot.y"
          r="5"
          (focus)="chosen.set($index)"
          (pointerdown)="grab($event, $index)"
          (keydown)="onKey($event, $index)"
        />
      }
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
      border: 1px solid var(--rule);
      border-radius: var(--radius);
      background: var(--field);
      touch-action: none;
    }
    text {
      fill: var(--ink-soft);
      font:
        10px 'IBM Plex Mono',
        monospace;
    }
    .grid {
      stroke: var(--rule-soft);
    }
    path {
      fill: none;
      stroke: var(--ink);
      stroke-width: 2;
    }
    .now {
      stroke: var(--now);
      stroke-width: 1.4;
    }
    .here {
      fill: var(--now);
    }
    .point {
      fill: var(--sheet);
      stroke: var(--select);
      stroke-width: 1.6;
      cursor: grab;
    }
    .point.chosen,
    .point:hover {
      fill: var(--select);
    }
  `,
})
export class MapPlotComponent {
  readonly driver = input.required<MapDriver>();
  readonly previewed = output<KeyedCurve | null>();
  readonly changed = output<KeyedCurve>();
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  readonly width = input(292);
  readonly height = input(150);
  /** The point that is meant by numbers and keys beside the plot. */
  readonly chosen = model<number | null>(null);
  readonly left = LEFT;
  readonly foot = FOOT;
  /** The scales as they were when a drag began: the plot stays still under the pointer. */
  private readonly held = signal<Points | null>(null);
  readonly points = computed((): Points => this.driver().curve.keys);

  private readonly scales = computed(() => {
    const points = this.held() ?? this.points();
    const inputs = points.map(({ frame }) => frame);
    const values = points.map(({ value }) => value);
    const wide = (numbers: readonly number[]): [number, number] => {
      const [low, high] = [leastOf(numbers), greatestOf(numbers)];
      const more = (high - low || 1) * 0.12;
      return [low - more, high + more];
    };
    return {
      x: scaleLinear(wide(inputs), [LEFT, this.width() - EDGE]),
      y: scaleLinear(wide(values), [this.height() - FOOT, EDGE]),
    };
  });
  readonly across = computed(() => this.ticks(this.scales().x, this.driver().input, this.width() / 60));
  readonly up = computed(() => this.ticks(this.scales().y, this.driver().target, this.height() / 38));

  private ticks(scale: ReturnType<typeof scaleLinear<number>>, channel: string, count: number) {
    const project = this.stage.shown();
    const unit = project ? channelLabel(project, channel).unit : '';
    const decimals = Math.min(2, decimalsOf(unit));
    return scale.ticks(count).map((value, i, all) => ({
      at: scale(value),
      text: `${shownNumber(value, decimals)}${i === all.length - 1 && unit ? ` ${unit}` : ''}`,
    }));
  }

  private readonly read = computed(() => {
    const project = this.stage.shown();
    if (!project) return null;
    const { part, property } = splitChannel(this.driver().target);
    const owner = partOf(project, part);
    const rest = (owner && restValue(owner, property)) ?? 0;
    const keys = compileKeys(this.driver().curve, curveContext(project));
    return (at: number) => keyedValue(keys, at, rest);
  });
  readonly path = computed(() => {
    const [read, { x, y }] = [this.read(), this.scales()];
    if (!read) return '';
    const [first, last] = x.domain() as [number, number];
    const places = Array.from({ length: COUNT + 1 }, (_, i) => first + ((last - first) * i) / COUNT);
    return (
      line<number>(
        (at) => x(at),
        (at) => y(read(at)),
      )(places) ?? ''
    );
  });
  readonly dots = computed(() => {
    const { x, y } = this.scales();
    return this.points().map(({ frame, value }, i) => ({
      x: x(frame),
      y: y(value),
      says: `Point ${i + 1}: ${shownNumber(frame, 3)} gives ${shownNumber(value, 3)}; arrow keys move it, Delete removes it`,
    }));
  });
  /** Where the input is at the playhead, as far as the plot reaches. */
  readonly now = computed(() => {
    const [read, { x, y }] = [this.read(), this.scales()];
    const at = this.stage.valueOf(this.driver().input);
    if (!read || at === null) return null;
    const [first, last] = x.domain() as [number, number];
    return at < first || at > last ? null : { x: x(at), y: y(read(at)) };
  });

  grab(down: PointerEvent, index: number): void {
    if (this.studio.readOnly() || down.button !== 0) return;
    down.preventDefault();
    this.chosen.set(index);
    const { curve } = this.driver();
    this.held.set(curve.keys);
    const place = this.placer(down);
    let made: KeyedCurve | null = null;
    const done = () => {
      this.held.set(null);
      this.previewed.emit(null);
    };
    followDrag({
      move: (event) => {
        made = movedPoint(curve, index, place(event));
        this.previewed.emit(made);
      },
      end: () => {
        done();
        if (made) this.changed.emit(made);
      },
      cancel: done,
    });
  }

  /** Arrow keys move a point by a hundredth of what is in sight, Delete removes it. */
  onKey(event: KeyboardEvent, index: number): void {
    const { curve } = this.driver();
    const key = curve.keys[index];
    const step = ARROWS[event.key];
    if (this.studio.readOnly() || !key || event.ctrlKey || event.metaKey || event.altKey) return;
    if (step) {
      const { x, y } = this.scales();
      const [x0, x1] = x.domain() as [number, number];
      const [y0, y1] = y.domain() as [number, number];
      const place = {
        frame: tidy(key.frame + step[0] * NUDGE * (x1 - x0)),
        value: tidy(key.value + step[1] * NUDGE * (y1 - y0)),
      };
      this.changed.emit(movedPoint(curve, index, place));
    } else if (event.key === 'Delete' && curve.keys.length > 1)
      this.changed.emit({ ...curve, keys: curve.keys.filter((_, i) => i !== index) });
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  add(event: MouseEvent): void {
    const { curve } = this.driver();
    const { frame, value } = this.placer(event)(event);
    const like = curve.keys[0];
    if (this.studio.readOnly() || !like || curve.keys.some((key) => Math.abs(key.frame - frame) < 1e-4))
      return;
    const keys = [...curve.keys, { ...like, frame, value }].sort((a, b) => a.frame - b.frame);
    this.changed.emit({ ...curve, keys });
  }

  /** From places of the pointer to input and value. */
  private placer({
    target,
  }: Event): (event: MouseEvent) => { readonly frame: number; readonly value: number } {
    const svg = (target as Element).closest('svg')!;
    const { x, y } = this.scales();
    return ({ clientX, clientY }) => {
      const box = svg.getBoundingClientRect();
      const scale = this.width() / box.width;
      return {
        frame: tidy(x.invert((clientX - box.left) * scale)),
        value: tidy(y.invert((clientY - box.top) * scale)),
      };
    };
  }
}
