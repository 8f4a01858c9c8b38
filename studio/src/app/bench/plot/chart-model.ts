import { computed, Injectable, inject, signal, type WritableSignal } from '@angular/core';
import {
  curveOf,
  curvesOf,
  keyedSpan,
  lastShownFrame,
  spanOf,
  type KeyRef,
  type Program,
  type Project,
  type Polyline,
  type RateLine,
} from '@kaizen/core';
import { CHART_HALF } from './chart-half';
import { chosenByChannel } from './chosen';
import type { DragShown } from './drag';
import type { BenchState } from '../../state/bench';
import { Studio } from '../../state/studio';
import { decimalsOf, shownNumber } from '../../ui/amount';
import { channelLabel } from '../stage/channel-label';
import { Proposals, type Proposal } from '../stage/proposals';
import { Stage } from '../stage/stage';
import { channelLine, channelRateLine, linesBeside, linesOfLane, type TimeView } from './chart-lines';
import {
  frameAt,
  headHeight,
  layPlot,
  layStrips,
  type Order,
  type Plot,
  type Strip,
  type ValueRange,
} from './plot';
import { sameList, sameLook } from './look';
import { sameRanges } from './value-range';
import { partStrip, type Parted } from './crowd/crowds';
import { plottedChannels } from './plotted-channels';
import { fittedRanges, showsKeys, showsLines } from './fit';
import { chartRows, type RowsQuery } from './rows';
import { fitAxis, panAxis, zoomAxis, type TimeAxis } from './time-axis';

/** With more channels the tags at the playhead would hide the curves. */
const MOST_TAGGED = 2;

/** What the Chart shows and where: rows, time axis, strips with their scales. Not history. */
@Injectable({ providedIn: 'root' })
export class ChartModel {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly proposals = inject(Proposals);
  readonly half = inject(CHART_HALF);
  /** The upper half’s model, for the lower one: both show the same time. */
  private readonly upper: ChartModel | null =
    this.half === 'lower' ? inject(ChartModel, { skipSelf: true }) : null;
  readonly size = signal(
    { width: 600, height: 300 },
    { equal: (a, b) => a.width === b.width && a.height === b.height },
  );
  readonly axis: WritableSignal<TimeAxis> = this.upper?.axis ?? signal({ first: 0, last: 120 });
  readonly ranges = signal<ReadonlyMap<string, ValueRange>>(new Map(), { equal: sameRanges });
  readonly scrollTop = signal(0);
  readonly search: WritableSignal<string> = this.upper?.search ?? signal('');
  readonly drag = signal<DragShown | null>(null);

  private readonly drivers = computed(() => this.stage.program()?.drivers);
  private readonly structure = computed(() => this.stage.program()?.structure);
  readonly driven = computed((): ReadonlySet<string> => {
    const structure = this.structure();
    return new Set(this.drivers()?.map(({ target }) => structure?.channelAt(target) ?? ''));
  });

  /** What is asked of the rows: the same object as long as nothing of it is another. */
  private readonly rowsQuery = computed(
    (): RowsQuery => {
      const bench = this.studio.bench();
      const { filter, everyChannel, collapsed, parts, channels, kinds, summary, rowSets, rowSet } = bench;
      const set = rowSets.find(({ name }) => name === rowSet)?.channels ?? null;
      return { filter, everyChannel, collapsed, parts, channels, kinds, summary, search: this.search(), set };
    },
    { equal: (a, b) => (Object.keys(a) as (keyof RowsQuery)[]).every((name) => a[name] === b[name]) },
  );

  readonly rows = computed(() => {
    const project = this.stage.shown();
    return project ? chartRows(project, this.driven(), this.studio.loose(), this.rowsQuery()) : [];
  });

  /** How high the ruler is, with the markers and sounds that stand on it. */
  readonly head = computed(() => headHeight(this.stage.shown()));

  /** The Bench’s state with the density of this half. */
  readonly bench = computed(() => this.withDensity(this.studio.bench()));

  /** The Bench as far as the plot shows it: the playhead, the tool, the sheet and the like leave it the same object. */
  readonly look = computed(() => this.withDensity(this.proposals.bench()), { equal: sameLook });

  private withDensity(bench: BenchState): BenchState {
    return this.half === 'upper' ? bench : { ...bench, density: bench.split.density };
  }

  readonly plotted = computed(
    () => {
      const project = this.stage.shown();
      return project ? plottedChannels(project, this.driven(), this.look()) : [];
    },
    { equal: sameList },
  );

  private readonly parts = computed(() => this.stage.shown()?.parts ?? []);

  private readonly labelled = computed(() => {
    const parts = this.parts();
    return this.plotted().map((channel) => ({ channel, label: channelLabel({ parts }, channel) }));
  });

  /** The strips by themselves: panning leaves them the same objects. */
  private readonly strips = computed(() =>
    layStrips(this.labelled(), this.ranges(), this.size().height, this.head(), this.orders()),
  );

  /** Which channels of a strip are drawn one by one: all where they are few, else those that are meant. */
  parted(strip: Strip): Parted {
    return this.partings()(strip.channels);
  }

  private readonly partings = computed(() => {
    const { channels, keys, handles, pinned, only } = this.look();
    const meant = new Set([...channels, ...pinned]);
    if (only !== null) meant.add(only);
    for (const list of [keys, handles])
      for (const channel of chosenByChannel(list).keys()) meant.add(channel);
    const known = new Map<readonly string[], Parted>();
    return (of: readonly string[]) => {
      let parted = known.get(of);
      if (!parted) known.set(of, (parted = partStrip(of, (channel) => meant.has(channel))));
      return parted;
    };
  });

  readonly plot = computed((): Plot => {
    const { width, height } = this.size();
    return layPlot(this.axis(), width, height, this.strips(), this.head());
  });

  /** What is drawn of each channel: its value, and in Rates its rates. */
  private readonly orders = computed((): readonly Order[] => {
    const { density, shaping } = this.look();
    if (density !== 'rates') return RATES_OFF;
    return shaping.jerk ? [0, 1, 2, 3] : [0, 1, 2];
  });

  private readonly view = computed((): TimeView => ({ axis: this.axis(), width: this.size().width }));

  /** A channel, or a treatment's weight, drawn out over the frames that show. */
  polyline(program: Program, channel: string, project = this.stage.shown()): Polyline | null {
    return channelLine(this.view(), program, project, channel);
  }

  /** What is drawn beside a channel's curve: its second take, itself before its treatments. */
  beside(project: Project, channel: string): readonly Polyline[] {
    return linesBeside(this.view(), project, channel, this.look().shaping);
  }

  /** What enters and leaves the chosen lane, drawn out over the frames that show. */
  lane(project: Project): ReturnType<typeof linesOfLane> {
    const { lane, shaping } = this.look();
    return lane !== null && shaping.lanes ? linesOfLane(this.view(), project, lane) : null;
  }

  /** The rates of a channel, or of a weight, drawn out over the frames that show. */
  rates(program: Program, project: Project, channel: string): RateLine | null {
    return channelRateLine(this.view(), program, project, channel);
  }

  /** In Rates the numbers at the playhead, where no more than two channels are drawn. */
  readonly tags = computed(() => {
    const program = this.stage.program();
    const { density } = this.bench();
    if (!program || density !== 'rates' || this.plotted().length > MOST_TAGGED) return [];
    const frame = this.stage.frame();
    return this.plot().strips.flatMap((strip) =>
      strip.channels.flatMap((channel) => {
        const slot = program.structure.slots.get(channel);
        if (slot === undefined) return [];
        const value = program.channelRates(slot, frame)[strip.order];
        return [{ strip, value, text: shownNumber(value, decimalsOf(strip.unit)) }];
      }),
    );
  });

  /** Shows what a drag would do, and beside it what tells of the drag. */
  showDrag(proposal: Proposal, shown: DragShown): void {
    this.proposals.show(proposal);
    this.drag.set(shown);
  }

  /** Keeps what a drag showed; nothing where it showed nothing. */
  keepDrag(): void {
    this.drag.set(null);
    this.proposals.take();
  }

  /** Nothing is dragged any more: what was shown of it goes. */
  stopShowing(): void {
    this.proposals.drop();
    this.drag.set(null);
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
    const { first, last } = spanOf(keys.map((key) => key.frame));
    this.axis.set(last > first ? fitAxis(first, last) : fitAxis(project.range.start, project.range.end));
  }

  /** Fits time to all keys and the range, and values to what shows. */
  fitAll(): void {
    const project = this.studio.project();
    if (!project) return;
    const frames = curvesOf(project, this.plotted()).flatMap((curve) => {
      const span = keyedSpan(curve);
      return span ? [span.first, span.last] : [];
    });
    const { first, last } = spanOf([project.range.start, lastShownFrame(project.range), ...frames]);
    this.axis.set(fitAxis(first, last));
    this.fitValue();
  }

  fitSelection(): void {
    this.fitTime();
    this.fitValue();
  }

  /** Fits values where nothing but the drawing asks for it: not while their scales are locked. */
  fitValueFreely(): void {
    if (!this.studio.bench().shaping.valueLock) this.fitValue();
  }

  /** Fits each strip's values to its curves over the frames that show, handles of chosen keys included. */
  fitValue(): void {
    const program = this.stage.program();
    const project = this.stage.shown();
    if (!program || !project) return;
    const parted = (strip: Strip) => this.parted(strip);
    const shown = { project, program, plot: this.plot(), view: this.view(), parted };
    this.ranges.set(new Map([...this.ranges(), ...fittedRanges(shown, this.studio.bench().keys)]));
  }

  /** Whether an edit put keys or what runs between them out of sight, where all was in sight before it. */
  hidCurves(before: Project, after: Project): boolean {
    const isChanged = (channel: string) => curveOf(after, channel) !== curveOf(before, channel);
    const changed = (channel: string) => (isChanged(channel) ? curveOf(after, channel) : undefined);
    const [plot, view] = [this.plot(), this.view()];
    const parted = (strip: Strip) => this.parted(strip);
    const lines = (project: Project) => showsLines({ project, plot, view, parted }, isChanged);
    if (showsKeys(plot, changed) && lines(after)) return false;
    return showsKeys(plot, (channel) => curveOf(before, channel)) && lines(before);
  }
}

const RATES_OFF: readonly Order[] = [0];
