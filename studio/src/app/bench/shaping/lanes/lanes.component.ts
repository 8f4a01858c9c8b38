import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { MatMenu, MatMenuContent, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import { MatTooltip } from '@angular/material/tooltip';
import { MenuRunDirective } from '../../../commands/menu-run.directive';
import { RunDirective } from '../../../commands/run.directive';
import { Studio } from '../../../state/studio';
import { OneStopDirective } from '../../../ui/one-stop.directive';
import { optionsOf } from '../../../ui/option';
import { drawing } from '../../../ui/drawing';
import { Theme } from '../../../ui/theme';
import { Panels } from '../../stage/panels';
import { ChartModel } from '../../plot/chart-model';
import { chosenFrames } from '../../plot/chosen';
import { readInk } from '../../plot/ink';
import { Stage } from '../../stage/stage';
import { TREATMENT_LABELS } from '../treatment-fields';
import { TreatmentTools } from '../treatment-tools';
import { drawLanes } from './draw-lanes';
import { LaneHands } from './lane-hands';
import { Lanes, type LaneShown } from './lanes';

/** The middle of the beads, from the left edge of the lanes. */
const BEAD = 20;

/** The treatments of the chosen curve as lanes under the plot: their order, weight over time, effect, and whether they act. */
@Component({
  selector: 'kz-lanes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    MatIcon,
    MatMenu,
    MatMenuContent,
    MatMenuItem,
    MatMenuTrigger,
    MatTooltip,
    MenuRunDirective,
    OneStopDirective,
    RunDirective,
  ],
  templateUrl: './lanes.component.html',
  styleUrl: './lanes.component.scss',
})
export class LanesComponent {
  readonly studio = inject(Studio);
  readonly lanes = inject(Lanes);
  readonly hands = inject(LaneHands);
  readonly tools = inject(TreatmentTools);
  readonly panels = inject(Panels);
  readonly model = inject(ChartModel);
  private readonly stage = inject(Stage);
  private readonly theme = inject(Theme);
  private readonly canvas = viewChild<ElementRef<HTMLCanvasElement>>('canvas');
  readonly kinds = optionsOf(TREATMENT_LABELS);
  readonly cursor = signal('default');

  readonly name = computed(
    () =>
      `Lanes of ${this.lanes.label()?.full ?? ''}: ${this.lanes
        .lanes()
        .map((lane) => `${lane.name} ${lane.amount}${lane.treatment.muted ? ', muted' : ''}`)
        .join('; ')}`,
  );

  /** The line on which the beads hang, from the channel down through the lanes that act; it goes round those that do not. */
  readonly drop = computed(() => {
    const pieces = this.lanes.lanes().map(({ top, height, treatment }) => {
      const middle = top + height / 2;
      const round = `L${BEAD} ${middle - 12} C${BEAD - 14} ${middle - 8} ${BEAD - 14} ${middle + 8} ${BEAD} ${middle + 12}`;
      return treatment.muted ? round : `L${BEAD} ${middle}`;
    });
    return `M${BEAD} 0 ${pieces.join(' ')} L${BEAD} ${this.lanes.height()}`;
  });

  private readonly ink = computed(() => {
    this.theme.name();
    return readInk();
  });

  constructor() {
    drawing(() => this.draw());
  }

  private draw(): void {
    const canvas = this.canvas()?.nativeElement;
    const lanes = this.lanes.lanes();
    const { width } = this.model.size();
    const axis = this.model.axis();
    const frame = this.stage.frame();
    const { keys } = this.studio.bench();
    const ink = this.ink();
    const pen = canvas?.getContext('2d');
    if (!canvas || !pen || width === 0 || lanes.length === 0) return;
    sizeCanvas(canvas, width * devicePixelRatio, this.lanes.height() * devicePixelRatio);
    pen.setTransform(devicePixelRatio, 0, 0, devicePixelRatio, 0, 0);
    pen.textRendering = 'geometricPrecision';
    drawLanes(pen, {
      width,
      axis,
      ink,
      lanes,
      frame,
      chosenOf: (weight) => chosenFrames(keys, weight),
      change: (lane, at) => this.lanes.change(lane, at),
    });
  }

  onHover(event: PointerEvent): void {
    if (event.buttons === 0) this.cursor.set(this.hands.cursorAt(event.offsetX, event.offsetY));
  }

  /** Ctrl with an arrow lays a treatment one place earlier or later; Delete takes it away. */
  onBeadKey(event: KeyboardEvent, lane: LaneShown): void {
    const channel = this.lanes.curve()?.channel;
    if (channel === undefined || this.lanes.locked()) return;
    const step = event.ctrlKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined;
    if (step !== undefined) this.tools.move(channel, lane.index, lane.index + step);
    else if (event.key === 'Delete') this.tools.remove(channel, lane.index);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
}

/** Gives a canvas a size in device pixels; one that has it is not made anew. */
function sizeCanvas(canvas: HTMLCanvasElement, width: number, height: number): void {
  if (canvas.width !== Math.floor(width)) canvas.width = width;
  if (canvas.height !== Math.floor(height)) canvas.height = height;
}
