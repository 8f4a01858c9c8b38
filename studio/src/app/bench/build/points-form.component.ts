import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { offerCommands } from '../../commands/offer-commands';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { followDrag } from '../../ui/follow-drag';
import { NumberFieldComponent } from '../../ui/number-field.component';

export type Points = readonly (readonly [number, number])[];

/** The drawing's size and margin in pixels. */
const [WIDTH, HEIGHT, MARGIN] = [288, 150, 16] as const;

/** Points of a profile or an outline: dragged in a small drawing, and as a table of numbers. */
@Component({
  selector: 'kz-points-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberFieldComponent, RunDirective],
  templateUrl: './points-form.component.html',
  styleUrl: './points-form.scss',
})
export class PointsFormComponent {
  readonly label = input.required<string>();
  readonly tip = input('');
  readonly points = input.required<Points>();
  /** An outline closes; a profile turns about an axis. */
  readonly closed = input(false);
  /** So many points there must be. */
  readonly least = input(2);
  readonly changed = output<Points>();
  readonly studio = inject(Studio);
  readonly width = WIDTH;
  readonly height = HEIGHT;
  readonly chosen = signal(0);
  /** The points while one of them is dragged. */
  private readonly dragged = signal<Points | null>(null);
  readonly shown = computed(() => this.dragged() ?? this.points());

  constructor() {
    offerCommands([
      {
        id: 'points.add',
        label: 'Add a point to the profile or outline, after the chosen one',
        group: 'Pose',
        when: () => !this.studio.readOnly(),
        run: () => this.add(),
      },
      {
        id: 'points.remove',
        label: 'Remove the chosen point of the profile or outline',
        group: 'Pose',
        when: () => !this.studio.readOnly() && this.points().length > this.least(),
        run: () => this.remove(),
      },
    ]);
  }

  /** Metres to pixels: all points in sight, one scale for both ways; it stays while a point is dragged. */
  private readonly scale = computed(() => {
    const points = this.points();
    const across = points.map(([x]) => x);
    const up = points.map(([, y]) => y);
    const left = Math.min(this.closed() ? Infinity : 0, ...across);
    const right = Math.max(...across);
    const [low, high] = [Math.min(...up), Math.max(...up)];
    const size = Math.max(1e-6, (right - left) / (WIDTH - 2 * MARGIN), (high - low) / (HEIGHT - 2 * MARGIN));
    return { size, x: (left + right) / 2, y: (low + high) / 2 };
  });

  private toScreen([x, y]: readonly [number, number]): { readonly x: number; readonly y: number } {
    const scale = this.scale();
    return { x: WIDTH / 2 + (x - scale.x) / scale.size, y: HEIGHT / 2 - (y - scale.y) / scale.size };
  }
  readonly dots = computed(() => this.shown().map((point) => this.toScreen(point)));
  readonly path = computed(
    () =>
      `M ${this.dots()
        .map(({ x, y }) => `${x} ${y}`)
        .join(' L ')}${this.closed() ? ' Z' : ''}`,
  );
  readonly axisX = computed(() => this.toScreen([0, 0]).x);

  grab(down: PointerEvent, index: number): void {
    this.chosen.set(index);
    if (this.studio.readOnly() || down.button !== 0) return;
    down.preventDefault();
    const { size } = this.scale();
    const [x, y] = this.points()[index]!;
    followDrag({
      move: (event) => {
        const across = x + (event.clientX - down.clientX) * size;
        const next: readonly [number, number] = [
          this.closed() ? tidy(across) : Math.max(0, tidy(across)),
          tidy(y - (event.clientY - down.clientY) * size),
        ];
        this.dragged.set(this.points().map((point, i) => (i === index ? next : point)));
      },
      end: () => {
        const made = this.dragged();
        this.dragged.set(null);
        if (made) this.changed.emit(made);
      },
      cancel: () => this.dragged.set(null),
    });
  }

  setNumber(index: number, n: number, change: (value: number) => number): void {
    this.chosen.set(index);
    const made = this.points().map((point, i): readonly [number, number] => {
      if (i !== index) return point;
      const value = change(point[n]!);
      return n === 0 ? [this.closed() ? value : Math.max(0, value), point[1]] : [point[0], value];
    });
    this.changed.emit(made);
  }

  /** A point in the middle between the chosen one and the next. */
  private add(): void {
    const points = this.points();
    const at = Math.min(this.chosen(), points.length - 1);
    const [a, b] = [points[at]!, points[(at + 1) % points.length]!];
    const last = at === points.length - 1 && !this.closed();
    const fresh: readonly [number, number] = last
      ? [a[0], a[1] + 0.1]
      : [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    this.chosen.set(at + 1);
    this.changed.emit(points.toSpliced(at + 1, 0, fresh));
  }

  private remove(): void {
    this.changed.emit(this.points().toSpliced(this.chosen(), 1));
    this.chosen.update((at) => Math.max(0, at - 1));
  }
}

/** Dragged by hand: to a tenth of a millimetre. */
function tidy(metres: number): number {
  return Math.round(metres * 1e4) / 1e4;
}
