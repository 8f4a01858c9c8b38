import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  type ElementRef,
  inject,
  signal,
  viewChild,
  type AfterViewInit,
} from '@angular/core';
import { curveOf } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { followDrag, leaving } from '../../../ui/follow-drag';
import { drawing } from '../../../ui/drawing';
import { Theme } from '../../../ui/theme';
import { channelLabel } from '../../stage/channel-label';
import { Stage } from '../../stage/stage';
import { ChartModel } from '../../plot/chart-model';
import { MONO, readInk, WORDS } from '../../plot/ink';
import { PathKey } from './path-key';
import { fitPlane, pathChannels, type PathPlane } from './path-plane';
import { pathPoints, placeAt, type PathScene } from './path-scene';

/** The path that two place channels draw, metres against metres at one scale; its keys can be chosen and dragged here. */
@Component({
  selector: 'kz-path-plot',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas
      #canvas
      tabindex="0"
      role="img"
      [attr.aria-label]="name()"
      [attr.data-plane]="planeText()"
      [style.cursor]="cursor()"
      (pointerdown)="press($event)"
      (pointermove)="hover($event)"
    ></canvas>
    @if (channels() === null) {
      <p class="soft">Choose place channels of a part to see its path.</p>
    }
  `,
  styles: `
    :host {
      position: relative;
      flex: none;
      width: 42%;
      border-left: 1px solid var(--rule);
      background: var(--sheet);
    }
    canvas {
      width: 100%;
      height: 100%;
      touch-action: none;
    }
    p {
      position: absolute;
      inset: 40% 10% auto;
      text-align: center;
    }
  `,
})
export class PathPlotComponent implements AfterViewInit {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly theme = inject(Theme);
  private readonly key = inject(PathKey);
  readonly model = inject(ChartModel);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly destroyed = inject(DestroyRef);
  private readonly size = signal({ width: 0, height: 0 });
  readonly cursor = signal('default');

  readonly channels = computed(() => {
    const project = this.stage.shown();
    return project
      ? pathChannels(this.model.plotted(), (channel) => curveOf(project, channel) !== undefined)
      : null;
  });
  readonly name = computed(() => {
    const project = this.stage.shown();
    const channels = this.channels();
    if (!project || !channels) return 'Path, nothing drawn';
    const [a, b] = channels.map((channel) => channelLabel(project, channel).short);
    return `Path: ${a} against ${b}, metres against metres at one scale; the keys are those of the table in the tab Curve`;
  });
  /** The points that the scale goes by. */
  private readonly points = computed(() => {
    const project = this.studio.project();
    const program = this.stage.program();
    const channels = this.channels();
    return project && program && channels ? pathPoints(project, program, channels) : [];
  });
  /** The plane while a key is dragged: its scale stays. */
  private readonly held = signal<PathPlane | null>(null);
  private readonly plane = computed(() => {
    const { width, height } = this.size();
    const held = this.held();
    if (held) return held;
    return this.points().length > 0 && width > 0 ? fitPlane(this.points(), width, height) : null;
  });
  /** The scale in words, for whoever reads the page by program: pixels a metre, and where 0, 0 lies. */
  readonly planeText = computed(() => {
    const plane = this.plane();
    return plane ? `${plane.scale} ${plane.x(0)} ${plane.y(0)}` : null;
  });

  constructor() {
    drawing(() => this.draw());
  }

  ngAfterViewInit(): void {
    const element = this.canvas().nativeElement;
    const measure = () => {
      const { clientWidth: width, clientHeight: height } = element;
      element.width = width * devicePixelRatio;
      element.height = height * devicePixelRatio;
      this.size.set({ width, height });
    };
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    this.destroyed.onDestroy(() => observer.disconnect());
    measure();
  }

  /** The path as it is on show, or as it is kept. */
  private scene(shown: boolean): PathScene | null {
    const plane = this.plane();
    const project = shown ? this.stage.shown() : this.studio.project();
    const program = this.stage.program();
    const channels = this.channels();
    return plane && project && program && channels ? { plane, project, program, channels } : null;
  }

  private draw(): void {
    this.theme.name();
    const scene = this.scene(true);
    const { width, height } = this.size();
    const pen = this.canvas().nativeElement.getContext('2d');
    if (!pen) return;
    pen.setTransform(devicePixelRatio, 0, 0, devicePixelRatio, 0, 0);
    pen.clearRect(0, 0, width, height);
    if (!scene) return;
    const { plane, project, program, channels } = scene;
    const ink = readInk();
    pen.font = MONO;
    pen.fillStyle = ink.soft;
    const marks = { x: plane.x.ticks(width / 70), y: plane.y.ticks(height / 60) };
    pen.fillStyle = ink.ruleSoft;
    for (const x of marks.x) pen.fillRect(Math.round(plane.x(x)), 0, 1, height);
    for (const y of marks.y) pen.fillRect(0, Math.round(plane.y(y)), width, 1);
    pen.fillStyle = ink.soft;
    for (const x of marks.x) pen.fillText(String(x), plane.x(x) + 3, height - 5);
    for (const y of marks.y) pen.fillText(String(y), 4, plane.y(y) - 3);
    const points = pathPoints(project, program, channels);
    pen.strokeStyle = ink.tones.x;
    pen.lineWidth = 2;
    pen.beginPath();
    points.forEach(([x, y], i) =>
      i === 0 ? pen.moveTo(plane.x(x), plane.y(y)) : pen.lineTo(plane.x(x), plane.y(y)),
    );
    pen.stroke();
    this.key.draw(pen, ink, scene);
    const [nx, ny] = placeAt(program, channels, this.stage.frame());
    pen.fillStyle = ink.now;
    pen.beginPath();
    pen.arc(plane.x(nx), plane.y(ny), 3, 0, Math.PI * 2);
    pen.fill();
    pen.font = `600 ${WORDS}`;
    pen.fillStyle = ink.ink;
    const [a, b] = channels.map((channel) => channelLabel(project, channel).short);
    pen.fillText(`${a} against ${b}, m, 1 : 1`, 8, 16);
  }

  hover(event: PointerEvent): void {
    if (event.buttons !== 0) return;
    const scene = this.scene(false);
    const over = scene && this.key.hit(scene, event.offsetX, event.offsetY);
    this.cursor.set(over ? this.key.cursor : 'default');
  }

  press(down: PointerEvent): void {
    const scene = this.scene(false);
    if (!scene || down.button !== 0) return;
    this.canvas().nativeElement.focus();
    const hit = this.key.hit(scene, down.offsetX, down.offsetY);
    this.key.pick(hit);
    if (!hit || this.studio.readOnly()) return;
    this.held.set(scene.plane);
    followDrag(leaving(this.key.begin(scene, down, hit), () => this.held.set(null)));
  }
}
