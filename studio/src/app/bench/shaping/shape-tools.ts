import { computed, Injectable, inject } from '@angular/core';
import {
  closeSeamSpeed,
  closeSeamValue,
  convertLegs,
  curveOf,
  keepBetweenKeys,
  lengthenHandles,
  makeEven,
  secondsPerFrame,
  seamGaps,
  setJoined,
  setOutside,
  setSideMode,
  straying,
  toPoint,
  turningKeys,
  type End,
  type HandleRef,
  type KeyRef,
  type Project,
  type SeamGap,
  type SeamMove,
  type SideMode,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownFrame, shownNumber } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { channelLabel } from '../stage/channel-label';
import { ChartModel } from '../plot/chart-model';
import { namedChannels } from '../stage/picking';
import { Stage } from '../stage/stage';

/** Of several chosen keys: each, or on each channel only where the motion leaves first, or arrives last. */
export type SideScope = 'all' | 'first' | 'last';

/** Shapes by one press: sides of many keys, points, handles, legs into curves, what is outside the keys and its seams. */
@Injectable({ providedIn: 'root' })
export class ShapeTools {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly chart = inject(ChartModel);
  private readonly notices = inject(Notices);

  /** The channels meant: those of the chosen keys, else the chosen ones, as far as they have curves. */
  readonly channels = computed((): readonly string[] => {
    const project = this.studio.project();
    return project ? namedChannels(this.studio.bench()).filter((channel) => curveOf(project, channel)) : [];
  });

  /** The same, and where none is chosen those that the plot shows. */
  private drawn(): readonly string[] {
    const channels = this.channels();
    return channels.length > 0 ? channels : this.chart.plotted();
  }

  /** Chooses contacts or tops on the chosen channels, or all that are drawn. */
  choose(which: 'contacts' | 'tops'): void {
    const project = this.studio.project();
    if (!project) return;
    const keys = turningKeys(project, this.drawn(), which);
    this.studio.pick({ keys, handles: [] });
    this.studio.set({ sheet: 'key' });
    if (keys.length === 0) this.notices.tell('No key turns round like that on these channels');
  }

  /** Chooses handles of the chosen keys without their keys being dragged along. */
  chooseHandles(which: 'in' | 'out' | 'both'): void {
    const sides = which === 'both' ? (['in', 'out'] as const) : [which];
    const handles = this.studio
      .bench()
      .keys.flatMap((key) => sides.map((side): HandleRef => ({ ...key, side })));
    this.studio.pick({ handles });
    if (handles.length > 0)
      this.notices.tell(`${handles.length} handles chosen; dragging one moves all by the same difference`);
  }

  private edit(label: string, change: (project: Project) => Project): void {
    this.studio.edit(label, change);
  }

  toPoint(): void {
    const { keys } = this.studio.bench();
    this.edit(keys.length === 1 ? 'To a point' : `${keys.length} keys to points`, (now) =>
      toPoint(now, keys),
    );
  }

  lengthen(factor: number): void {
    const { keys } = this.studio.bench();
    this.edit(factor > 1 ? 'Longer handles' : 'Shorter handles', (now) => lengthenHandles(now, keys, factor));
  }

  /** Sets sides of the chosen keys, of all or only where each channel's motion leaves first or arrives last. */
  setSides(scope: SideScope, side: 'in' | 'out' | 'both', mode: SideMode): void {
    const refs = this.scoped(scope);
    const sides = scope === 'first' ? (['out'] as const) : scope === 'last' ? (['in'] as const) : null;
    const named = sides ?? (side === 'both' ? (['in', 'out'] as const) : [side]);
    this.edit('Set sides', (project) => {
      const split = sides ? setJoined(project, refs, false) : project;
      return named.reduce((at, name) => setSideMode(at, refs, name, mode), split);
    });
  }

  /** The chosen keys that a scope means. */
  scoped(scope: SideScope): readonly KeyRef[] {
    const { keys } = this.studio.bench();
    if (scope === 'all') return keys;
    const ends = new Map<string, KeyRef>();
    for (const key of keys) {
      const known = ends.get(key.channel);
      const outer = !known || (scope === 'first' ? key.frame < known.frame : key.frame > known.frame);
      if (outer) ends.set(key.channel, key);
    }
    return [...ends.values()];
  }

  /** Legs that leave the range of their keys, on the chosen channels or all that are drawn. */
  readonly strays = computed((): readonly KeyRef[] => {
    const project = this.studio.project();
    return project ? straying(project, this.drawn()) : [];
  });

  keepBetween(): void {
    const strays = this.strays();
    if (strays.length === 0) {
      this.notices.tell('No curve here leaves the range of its keys');
      return;
    }
    this.edit('Keep between the keys', (project) => keepBetweenKeys(project, strays));
    this.notices.tell(
      `${strays.length === 1 ? 'One leg' : `${strays.length} legs`} kept between their keys: Bounded`,
      { label: 'Undo', run: () => this.studio.undo() },
    );
  }

  /** Legs after the chosen keys as curves with the fewest keys, and what that costs. */
  convert(tolerance?: number): void {
    const project = this.studio.project();
    const { keys } = this.studio.bench();
    if (!project) return;
    const made = convertLegs(project, keys, tolerance);
    if (made.project === project) {
      this.notices.tell('These legs are curves or holds already');
      return;
    }
    this.edit('Convert to Curve', () => made.project);
    const unit = made.at ? channelLabel(project, made.at.channel).unit : '';
    const where = made.at ? ` at f ${shownFrame(made.at.frame)}` : '';
    this.notices.tell(
      `${made.keysBefore} keys became ${made.keysAfter}; at most ${shownNumber(made.error, 5)} ${unit} off${where}`,
      { label: 'Undo', run: () => this.studio.undo() },
    );
  }

  /** Whether a pin can stand on a key: between the first and the last one of a curve that is not locked. */
  canPin(ref: KeyRef): boolean {
    const project = this.studio.project();
    const curve = project && curveOf(project, ref.channel);
    return !!curve && !curve.locked && curve.keys.slice(1, -1).some(({ frame }) => frame === ref.frame);
  }

  /** Pins a loop at a key: after the keys it repeats from there, before the keys up to there. */
  pin(ref: KeyRef, end: End): void {
    const project = this.studio.project();
    const curve = project && curveOf(project, ref.channel);
    if (!curve) return;
    const on = curve[end].pin !== ref.frame;
    const mode = ['loop', 'loop-carry', 'swing'].includes(curve[end].mode) ? curve[end].mode : 'loop-carry';
    this.edit(on ? 'Pin the loop' : 'Unpin the loop', (now) =>
      setOutside(now, [ref.channel], end, { mode, pin: on ? ref.frame : null }),
    );
    this.notices.tell(
      on
        ? `Repeats ${end === 'after' ? 'from' : 'up to'} f ${shownFrame(ref.frame)}; what lies ${end === 'after' ? 'before' : 'after'} it plays once`
        : 'Repeats all its keys',
    );
  }

  /** The seams of the channels meant. */
  readonly gaps = computed((): readonly (SeamGap & { readonly channel: string })[] => {
    const project = this.stage.shown();
    const program = this.stage.program();
    if (!project || !program) return [];
    return namedChannels(this.studio.bench()).flatMap((channel) => {
      const curve = curveOf(project, channel);
      const compiled = program.curveAt(program.structure.slots.get(channel) ?? -1);
      const gaps = curve && compiled ? seamGaps(curve, compiled, secondsPerFrame(project.rate)) : [];
      return gaps.map((gap) => ({ ...gap, channel }));
    });
  });

  closeSeam(channel: string, end: End, what: 'value' | 'speed', how: SeamMove) {
    return {
      label: what === 'value' ? 'Close the seam in value' : 'Close the seam in speed',
      edit: (project: Project) =>
        what === 'value'
          ? closeSeamValue(project, [channel], end, how)
          : closeSeamSpeed(project, [channel], end, how === 'carry' ? 'both' : how),
    };
  }

  makeEven(): void {
    const channels = this.channels();
    const before = this.studio.project();
    this.edit('Make it even', (project) => makeEven(project, channels));
    if (this.studio.project() === before)
      this.notices.tell('This loop ends where it begins: it goes nowhere, so it has no even speed');
  }
}
