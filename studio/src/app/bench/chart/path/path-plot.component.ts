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
import { curveOf, mapKeyPlaces, type KeyRef, type Program, type Project } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { shownFrame, shownNumber } from '../../../ui/amount';
import { followDrag } from '../../../ui/follow-drag';
import { drawing } from '../../../ui/drawing';
import { Theme } from '../../../ui/theme';
import { channelLabel } from '../../stage/channel-label';
import { Stage } from '../../stage/stage';
import { ChartModel } from '../../plot/chart-model';
import { MONO, readInk, WORDS } from '../../plot/ink';
import { fitPlane, pathChannels } from './path-plane';

const REACH = 8;

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
      (pointerdown)="press($event)"
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
  readonly model = inject(ChartModel);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly destroyed = inject(DestroyRef);
  private readonly size = signal({ width: 0, height: 0 });

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
  /** The kept project's points: while something is dragged the scale stays. */
  private readonly points = computed(() => {
    const project = this.studio.project();
    const program = this.stage.program();
    const channels = this.channels();
    return project && program && channels ? pathPoints(project, program, channels) : [];
  });
  private readonly plane = computed(() => {
    const { width, height } = this.size();
    return this.points().length > 0 && width > 0 ? fitPlane(this.fitted(), width, height) : null;
  });
  private held: readonly (readonly [number, number])[] | null = null;
  private fitted(): readonly (readonly [number, number])[] {
    return this.held ?? this.points();
  }
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

  /** The keys of the path: each frame on which one of the two channels has a key. */
  private keys(project: Project, [a, b]: readonly [string, string]) {
    const curves = [curveOf(project, a), curveOf(project, b)] as const;
    const frames = [...new Set(curves.flatMap((curve) => (curve?.keys ?? []).map(({ frame }) => frame)))];
    return frames.map((frame) => {
      const refs = curves.flatMap((curve): KeyRef[] =>
        curve?.keys.some((key) => key.frame === frame) ? [{ channel: curve.channel, frame }] : [],
      );
      return { frame, refs };
    });
  }

  private draw(): void {
    this.theme.name();
    const plane = this.plane();
    const project = this.stage.shown();
    const program = this.stage.program();
    const channels = this.channels();
    const { width, height } = this.size();
    const pen = this.canvas().nativeElement.getContext('2d');
    if (!pen) return;
    pen.setTransform(devicePixelRatio, 0, 0, devicePixelRatio, 0, 0);
    pen.clearRect(0, 0, width, height);
    if (!plane || !project || !program || !channels) return;
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
    const chosen = new Set(this.model.look().keys.map(({ channel, frame }) => `${channel}@${frame}`));
    for (const { frame, refs } of this.keys(project, channels)) {
      const [x, y] = placeAt(program, channels, frame);
      const on = refs.some(({ channel }) => chosen.has(`${channel}@${frame}`));
      pen.fillStyle = on ? ink.select : ink.sheet;
      pen.strokeStyle = on ? ink.select : ink.tones.x;
      pen.lineWidth = 1.6;
      pen.beginPath();
      pen.arc(plane.x(x), plane.y(y), on ? 5 : 3.8, 0, Math.PI * 2);
      pen.fill();
      pen.stroke();
    }
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

  press(down: PointerEvent): void {
    const plane = this.plane();
    const project = this.studio.project();
    const program = this.stage.program();
    const channels = this.channels();
    if (!plane || !project || !program || !channels || down.button !== 0) return;
    this.canvas().nativeElement.focus();
    const hit = this.keys(project, channels).find(({ frame }) => {
      const [x, y] = placeAt(program, channels, frame);
      return Math.hypot(plane.x(x) - down.offsetX, plane.y(y) - down.offsetY) <= REACH;
    });
    this.studio.pick({ keys: hit?.refs ?? [], handles: [] });
    if (!hit || this.studio.readOnly()) return;
    this.studio.set({ sheet: 'key' });
    this.held = this.points();
    const move = (event: PointerEvent) => {
      const by = [
        (event.clientX - down.clientX) / plane.scale,
        -(event.clientY - down.clientY) / plane.scale,
      ] as const;
      const edit = (now: Project) =>
        mapKeyPlaces(now, hit.refs, ({ frame, value }, channel) => ({
          frame,
          value: value + by[channels.indexOf(channel)]!,
        }));
      const text = `f ${shownFrame(hit.frame)} · ${shownNumber(by[0], 3)}, ${shownNumber(by[1], 3)} m`;
      this.model.showDrag(
        { label: 'Move a key of the path', edit },
        {
          chip: { x: this.model.plot().time(hit.frame), y: event.offsetY, text },
          box: null,
          old: program,
          channels,
        },
      );
    };
    followDrag({
      move,
      end: () => {
        this.held = null;
        this.model.keepDrag();
      },
      cancel: () => {
        this.held = null;
        this.model.stopShowing();
      },
    });
  }
}

function placeAt(
  program: Program,
  channels: readonly [string, string],
  frame: number,
): readonly [number, number] {
  const value = (channel: string) => program.channelValue(program.structure.slots.get(channel) ?? 0, frame);
  return [value(channels[0]), value(channels[1])];
}

/** The path over the range, in quarters of frames. */
function pathPoints(
  project: Project,
  program: Program,
  channels: readonly [string, string],
): readonly (readonly [number, number])[] {
  const { start, end } = project.range;
  const count = Math.min(4000, Math.max(1, Math.round((end - start) * 4)));
  return Array.from({ length: count + 1 }, (_, i) =>
    placeAt(program, channels, start + ((end - start) * i) / count),
  );
}
