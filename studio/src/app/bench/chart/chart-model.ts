import { computed, Injectable, inject, signal } from '@angular/core';
import { curveOf, handlePlace, lastShownFrame, type KeyRef, type Program, type Project } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { channelLabel } from '../channel-label';
import { Stage } from '../stage';
import {
  frameAt,
  headHeight,
  layPlot,
  layStrips,
  roomyRange,
  type Plot,
  type Strip,
  type ValueRange,
} from './plot';
import { curvePolyline, drivenPolyline, extent, sampleStep, type Polyline } from './polyline';
import { chartRows, plottedChannels } from './rows';
import { fitAxis, panAxis, zoomAxis, type TimeAxis } from './time-axis';

/** A rectangle of the canvas, in pixels. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** What is shown while something is dragged: a chip that tells the numbers, and the box of a box selection. */
export interface DragShown {
  readonly chip: { readonly x: number; readonly y: number; readonly text: string } | null;
  readonly box: Box | null;
  /** The project as it was, whose curves stay as pale lines. */
  readonly old: Program | null;
  readonly channels: readonly string[];
}

/** What the Chart shows and where: rows, time axis, strips with their scales. Not history. */
@Injectable({ providedIn: 'root' })
export class ChartModel {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  readonly size = signal({ width: 600, height: 300 });
  readonly axis = signal<TimeAxis>({ first: 0, last: 120 });
  readonly ranges = signal<ReadonlyMap<string, ValueRange>>(new Map());
  readonly scrollTop = signal(0);
  readonly search = signal('');
  readonly drag = signal<DragShown | null>(null);

  private readonly drivers = computed(() => this.stage.program()?.drivers);
  private readonly structure = computed(() => this.stage.program()?.structure);
  readonly driven = computed((): ReadonlySet<string> => {
    const structure = this.structure();
    return new Set(this.drivers()?.map(({ target }) => structure?.channels[target] ?? ''));
  });

  readonly rows = computed(() => {
    const project = this.stage.shown();
    const bench = this.studio.bench();
    if (!project) return [];
    const { filter, everyChannel, collapsed, parts, channels, kinds, summary } = bench;
    return chartRows(project, this.driven(), this.studio.loose(), {
      filter,
      everyChannel,
      collapsed,
      parts,
      channels,
      kinds,
      summary,
      search: this.search(),
    });
  });

  /** How high the ruler is, with the markers and sounds that stand on it. */
  readonly head = computed(() => headHeight(this.stage.shown()));

  readonly plotted = computed(() => {
    const project = this.stage.shown();
    return project ? plottedChannels(project, this.driven(), this.studio.bench()) : [];
  });

  readonly plot = computed((): Plot => {
    const project = this.stage.shown();
    const { width, height } = this.size();
    const channels = project
      ? this.plotted().map((channel) => ({ channel, label: channelLabel(project, channel) }))
      : [];
    const head = this.head();
    return layPlot(this.axis(), width, height, layStrips(channels, this.ranges(), height, head), head);
  });

  /** A channel drawn out over the frames that show. */
  polyline(program: Program, channel: string): Polyline | null {
    const slot = program.structure.slots.get(channel);
    if (slot === undefined) return null;
    const { first, last } = this.axis();
    const step = sampleStep((last - first) / this.size().width);
    const curve = program.curveAt(slot);
    if (program.isDriven(slot) || !curve) return drivenPolyline(program, slot, first, last, step);
    return curvePolyline(curve, first, last, step);
  }

  zoomTime(x: number, factor: number): void {
    this.axis.update((axis) => zoomAxis(axis, frameAt(this.plot(), x), factor));
  }

  panPixels(dx: number, dy: number, strip: Strip | undefined): void {
    const { axis, width } = this.plot();
    this.axis.set(panAxis(axis, (-dx / width) * (axis.last - axis.first)));
    if (!strip) return;
    const shift = (dy / strip.height) * (strip.high - strip.low);
    this.setRange(strip.unit, { low: strip.low + shift, high: strip.high + shift });
  }

  zoomValue(strip: Strip, at: number, factor: number): void {
    this.setRange(strip.unit, { low: at + (strip.low - at) / factor, high: at + (strip.high - at) / factor });
  }

  private setRange(unit: string, range: ValueRange): void {
    this.ranges.update((ranges) => new Map(ranges).set(unit, range));
  }

  /** Fits time to the chosen keys, or to the shot's range. */
  fitTime(keys: readonly KeyRef[] = this.studio.bench().keys): void {
    const project = this.studio.project();
    if (!project) return;
    const frames = keys.map((key) => key.frame);
    const first = Math.min(...frames);
    const last = Math.max(...frames);
    this.axis.set(last > first ? fitAxis(first, last) : fitAxis(project.range.start, project.range.end));
  }

  /** Fits time to all keys and the range, and values to what shows. */
  fitAll(): void {
    const project = this.studio.project();
    if (!project) return;
    const frames = this.plotted().flatMap((channel) => {
      const keys = curveOf(project, channel)?.keys ?? [];
      return keys.length > 0 ? [keys[0]!.frame, keys.at(-1)!.frame] : [];
    });
    const first = Math.min(project.range.start, ...frames);
    const last = Math.max(lastShownFrame(project.range), ...frames);
    this.axis.set(fitAxis(first, last));
    this.fitValue();
  }

  fitSelection(): void {
    this.fitTime();
    this.fitValue();
  }

  /** Fits each strip's values to its curves over the frames that show, handles of chosen keys included. */
  fitValue(): void {
    const program = this.stage.program();
    const project = this.stage.shown();
    if (!program || !project) return;
    const { first, last } = this.axis();
    const ranges = new Map(this.ranges());
    for (const strip of this.plot().strips) {
      let low = Infinity;
      let high = -Infinity;
      for (const channel of strip.channels) {
        const line = this.polyline(program, channel);
        const spread = line ? extent(line, first, last) : { low: Infinity, high: -Infinity };
        const handles = this.handleValues(project, channel);
        low = Math.min(low, spread.low, ...handles);
        high = Math.max(high, spread.high, ...handles);
      }
      ranges.set(strip.unit, roomyRange(low, high, strip.unit));
    }
    this.ranges.set(ranges);
  }

  /** Whether all keys of the drawn channels that lie in the shown time also lie in the shown values. */
  showsAllKeys(project: Project): boolean {
    const { axis, strips } = this.plot();
    return strips.every(({ channels, low, high }) =>
      channels.every((channel) =>
        (curveOf(project, channel)?.keys ?? []).every(
          ({ frame, value }) => frame < axis.first || frame > axis.last || (value >= low && value <= high),
        ),
      ),
    );
  }

  private handleValues(project: Project, channel: string): number[] {
    const curve = curveOf(project, channel);
    if (!curve) return [];
    const chosen = new Set(
      this.studio
        .bench()
        .keys.filter((key) => key.channel === channel)
        .map((key) => key.frame),
    );
    return curve.keys.flatMap((key, i) =>
      chosen.has(key.frame)
        ? (['in', 'out'] as const).flatMap((side) => handlePlace(project, curve, i, side)?.value ?? [])
        : [],
    );
  }
}
