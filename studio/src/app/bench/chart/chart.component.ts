import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  signal,
  untracked,
  viewChild,
  type AfterViewInit,
  DestroyRef,
} from '@angular/core';
import { AngularSplitModule } from 'angular-split';
import { compile, curveOf, type Project } from '@kaizen/core';
import { CommandRegistry } from '../../commands/registry';
import { Studio } from '../../state/studio';
import { InTurnDirective, SHOWN } from '../../ui/in-turn.directive';
import { drawing } from '../../ui/drawing';
import { Theme } from '../../ui/theme';
import { Panels } from '../stage/panels';
import { drawMarkers, drawSounds } from '../ruler/draw-marks';
import { RulerTools } from '../ruler/ruler-tools';
import { SoundShelf } from '../ruler/sound-shelf';
import { Proposals } from '../stage/proposals';
import { Stage } from '../stage/stage';
import { TimeTools } from '../timing/time-tools';
import { ChartGestures } from './chart-gestures';
import { MapChartComponent } from '../drive/map-chart.component';
import { MapInChart } from '../drive/map-in-chart';
import { ChartModel } from '../plot/chart-model';
import type { DragShown } from '../plot/drag';
import { Crowds } from '../plot/crowd/crowds';
import { drawCurves } from './draw-curves';
import { namedStrips } from './curves-shown';
import { drawOverlay } from './draw-overlay';
import { drawRuler, drawTimeGrid } from './draw-ruler';
import { drawTicks } from './draw-ticks';
import { penOf, readInk, type Ink } from '../plot/ink';
import { KeyMenuComponent } from './key-menu.component';
import { PathPlotComponent } from './path/path-plot.component';
import { frameAt, type Strip } from '../plot/plot';
import { OutsideMenuComponent } from './outside-menu.component';
import { RowsPanelComponent } from './rows-panel.component';
import { shownBoxes } from './draggable/scale-box';

/** The Chart: rows at the left, time to their right. The drawing is on canvas; what moves all the time on a second one above. */
@Component({
  selector: 'kz-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    MapChartComponent,
    AngularSplitModule,
    InTurnDirective,
    KeyMenuComponent,
    OutsideMenuComponent,
    PathPlotComponent,
    RowsPanelComponent,
  ],
  templateUrl: './chart.component.html',
  styleUrl: './chart.component.scss',
})
export class ChartComponent implements AfterViewInit {
  readonly map = inject(MapInChart);
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly proposals = inject(Proposals);
  readonly model = inject(ChartModel);
  private readonly theme = inject(Theme);
  private readonly registry = inject(CommandRegistry);
  private readonly time = inject(TimeTools);
  private readonly ruler = inject(RulerTools);
  private readonly sounds = inject(SoundShelf);
  private readonly crowds = inject(Crowds);
  readonly panels = inject(Panels);
  readonly gestures = inject(ChartGestures);
  private readonly frame = viewChild.required<ElementRef<HTMLElement>>('frame');
  private readonly base = viewChild.required<ElementRef<HTMLCanvasElement>>('base');
  private readonly keyMenu = viewChild.required(KeyMenuComponent);
  private readonly outsideMenu = viewChild.required(OutsideMenuComponent);
  private readonly overlay = viewChild.required<ElementRef<HTMLCanvasElement>>('overlay');
  readonly cursor = signal('default');
  private readonly ready = signal(false);
  private readonly destroyed = inject(DestroyRef);

  readonly name = computed(() => {
    const keys = this.studio.bench().keys.length;
    return `${this.model.half === 'upper' ? 'Chart' : 'Lower half of the Chart'}, ${this.model.plotted().length} channels drawn, ${keys} keys chosen; the keys of the side sheet’s tab Key say the same`;
  });

  /** The scales in words, for whoever reads the page by program: `first last`, and `unit top height low high; …`. */
  readonly axisText = computed(() => `${this.model.axis().first} ${this.model.axis().last}`);
  readonly stripsText = computed(() =>
    this.model
      .plot()
      .strips.map(({ unit, top, height, low, high }) => [unit, top, height, low, high].join(' '))
      .join('; '),
  );

  readonly empty = computed(() => {
    if (!this.stage.shown() || this.model.bench().density === 'ticks' || this.model.plotted().length > 0)
      return null;
    return this.model.rows().length === 0
      ? 'Bring a model or add a part to begin.'
      : 'No keys yet: pick a part, put the playhead somewhere, pose it, and press D.';
  });

  readonly showsPath = computed(() => {
    const { density, shaping } = this.model.bench();
    return this.model.half === 'upper' && shaping.path && density !== 'ticks';
  });

  private readonly ink = computed((): Ink | null => {
    this.theme.name();
    const pen = this.ready() ? this.base().nativeElement.getContext('2d') : null;
    return pen ? readInk() : null;
  });

  /** The project as it is kept, while an edit of time shows another: its curves stay as pale lines. */
  private readonly kept = computed(() => {
    const project = this.time.pending() || this.proposals.shown() ? this.studio.project() : null;
    const compiled = project && compile(project);
    return compiled?.ok ? compiled.value : null;
  });

  constructor() {
    this.measureWhenShown();
    this.fitWhenShownChanges();
    this.fitWhenCurvesLeave();
    drawing(() => this.drawBase());
    drawing(() => this.drawOverlay());
  }

  ngAfterViewInit(): void {
    const element = this.frame().nativeElement;
    const observer = new ResizeObserver(() => this.resize(element));
    observer.observe(element);
    this.destroyed.onDestroy(() => observer.disconnect());
    this.resize(element);
    void document.fonts.load("12px 'IBM Plex Mono'").then(() => this.ready.set(true));
  }

  /** One that was made ahead has another size once it is shown, and is to be drawn in that from the start. */
  private measureWhenShown(): void {
    const shown = inject(SHOWN);
    effect(() => {
      if (shown() && this.ready()) untracked(() => this.resize(this.frame().nativeElement));
    });
  }

  private resize(element: HTMLElement): void {
    const { clientWidth: width, clientHeight: height } = element;
    // a canvas that is given its size is empty, also where it is the same
    for (const canvas of [this.base().nativeElement, this.overlay().nativeElement]) {
      const [across, down] = [Math.floor(width * devicePixelRatio), Math.floor(height * devicePixelRatio)];
      if (canvas.width !== across) canvas.width = across;
      if (canvas.height !== down) canvas.height = down;
    }
    this.model.size.set({ width, height });
  }

  /** Fits time once a project, and values whenever other channels show. */
  private fitWhenShownChanges(): void {
    let fittedProject: string | undefined;
    const shown = computed(
      () => [
        this.studio.project()?.id,
        this.model.plotted(),
        this.model.plot().strips.length,
        this.model.size().height > 0,
      ],
      { equal: (a, b) => a.every((part, i) => part === b[i]) },
    );
    effect(() => {
      shown();
      const ready = this.ready();
      untracked(() => {
        const id = this.studio.project()?.id;
        if (!ready || id === undefined || this.proposals.shown()) return;
        if (fittedProject !== id && this.model.half === 'upper') this.model.fitTime([]);
        fittedProject = id;
        this.model.fitValueFreely();
      });
    });
  }

  /** Fits values when an edit put a key, or the curve between keys, out of sight, where all was in sight before it. */
  private fitWhenCurvesLeave(): void {
    let before: Project | null = null;
    effect(() => {
      const project = this.studio.project();
      untracked(() => {
        const left = project && before && this.model.hidCurves(before, project);
        before = project;
        if (left) this.model.fitValueFreely();
      });
    });
  }

  private drawBase(): void {
    const ink = this.ink();
    const plot = this.model.plot();
    const project = this.stage.shown();
    const program = this.stage.program();
    const bench = this.model.look();
    const drag = this.model.drag();
    const ticks = bench.density === 'ticks';
    const rows = ticks ? this.model.rows() : [];
    const scrollTop = ticks ? this.model.scrollTop() : 0;
    const loose = this.studio.loose();
    const pen = ink && penOf(this.base().nativeElement);
    if (!pen || !ink || !project || !program) return;
    pen.fillStyle = ink.sheet;
    pen.fillRect(0, 0, plot.width, plot.height);
    drawTimeGrid(pen, plot, ink, project.rate.frames / project.rate.per);
    if (ticks) {
      const pending = this.time.pending() !== null;
      const oldProject = drag?.old || pending ? this.studio.project() : null;
      drawTicks(pen, {
        plot,
        ink,
        project,
        bench,
        rows,
        scrollTop,
        oldProject,
        program: drag ? null : program,
        oldChannels: drag?.channels ?? (pending ? (this.time.scope()?.channels ?? []) : []),
      });
    } else {
      const polyline = (channel: string) => this.model.polyline(program, channel);
      const before = drag?.old ?? this.kept();
      const old = (channel: string) =>
        before && this.isMoved(channel, drag)
          ? this.model.polyline(before, channel, this.studio.project())
          : null;
      const rates = (channel: string) => this.model.rates(program, project, channel);
      const beside = (channel: string) => this.model.beside(project, channel);
      const parted = (strip: Strip) => this.model.parted(strip);
      this.crowds.grown();
      const crowd = (strip: Strip) => this.crowds.image(plot, ink, strip, parted(strip).crowd, program);
      const lane = this.model.lane(project);
      const scene = { plot, ink, project, program, bench, loose, polyline, old, rates, beside, lane };
      drawCurves(pen, { ...scene, parted, crowd });
    }
    drawRuler(pen, plot, ink, project);
    drawMarkers(pen, plot, ink, project, this.ruler.picked());
    this.sounds.arrived();
    drawSounds(pen, plot, ink, project, (sound) => this.sounds.peaks(project, sound));
  }

  /** Whether a channel is one that a drag, an offer or an edit of time shows otherwise than it is kept. */
  private isMoved(channel: string, drag: DragShown | null): boolean {
    if (drag?.old) return drag.channels.includes(channel);
    const [kept, shown] = [this.studio.project(), this.stage.shown()];
    if (kept && shown && this.proposals.shown()) return curveOf(kept, channel) !== curveOf(shown, channel);
    return this.time.scope()?.channels.includes(channel) ?? false;
  }

  private drawOverlay(): void {
    const ink = this.ink();
    const plot = this.model.plot();
    const drag = this.model.drag();
    const frame = this.stage.frame();
    const time = {
      capture: this.studio.bench().capture.on,
      affected: this.time.affected(),
      stakes: this.time.stakes(),
      boxes: shownBoxes(plot, this.stage.shown(), this.model.look()),
      tags: this.model.tags(),
      named: namedStrips(this.stage.shown(), plot, this.model.bench().density),
    };
    const pen = ink && penOf(this.overlay().nativeElement);
    if (pen && ink) drawOverlay(pen, plot, ink, frame, drag, time);
  }

  /** The menu of the key under the pointer, or of the curve outside its keys; by keyboard of the first chosen key. */
  onMenu(event: MouseEvent): void {
    event.preventDefault();
    const target = this.gestures.hit(event.offsetX, event.offsetY);
    const under = target?.kind === 'keys' ? target.refs[0] : undefined;
    const [channel, more] = under ? [] : this.gestures.channelsUnder(event);
    if (event.button === 2 && channel !== undefined && more === undefined) {
      const frame = frameAt(this.model.plot(), event.offsetX);
      this.outsideMenu().open(channel, frame, event.offsetX, event.offsetY);
      return;
    }
    const ref = under ?? (event.button === 2 ? undefined : this.studio.bench().keys[0]);
    if (ref)
      this.keyMenu().open(ref, under ? event.offsetX : this.model.plot().time(ref.frame), event.offsetY);
  }

  onHover(event: PointerEvent): void {
    if (event.buttons !== 0) return;
    const { offsetX: x, offsetY: y } = event;
    this.cursor.set(this.registry.spaceHeld() ? 'move' : this.gestures.cursorAt(x, y));
  }
}
