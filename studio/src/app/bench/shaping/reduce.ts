import { computed, Injectable, inject, signal } from '@angular/core';
import { changeCurves, curveOf, ownerOf, type Curve, type KeyRef, type Project } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownFrame, shownNumber } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { runBake, runSimplify } from '../../workers/shape.client';
import type { Shaped } from '../../workers/shape-api';
import type { WorkerRun } from '../../workers/run-in-worker';
import { channelLabel } from '../stage/channel-label';
import type { Proposal } from '../stage/proposals';
import { Proposals } from '../stage/proposals';
import { ShapeTools } from './shape-tools';

/** A result that is shown and not yet kept: what it would make of the keys, in words. */
interface Reduced {
  readonly title: string;
  readonly told: string;
  readonly offer: Proposal;
}

/** Simplify and bake: worked out in a worker with progress, shown with their greatest error, then applied or discarded. */
@Injectable({ providedIn: 'root' })
export class Reduce {
  private readonly studio = inject(Studio);
  private readonly tools = inject(ShapeTools);
  private readonly proposals = inject(Proposals);
  private readonly notices = inject(Notices);
  /** The share that is done of what runs; null: nothing runs. */
  readonly progress = signal<number | null>(null);
  private readonly result = signal<Reduced | null>(null);
  /** Tolerances that were typed, by their units: a tenth of a degree is not meant for metres. */
  private readonly tolerances = signal<Readonly<Record<string, number>>>({});
  /** Frames from key to key. */
  readonly every = signal(1);
  /** The unit that the meant channels share; empty where they have several. */
  readonly unit = computed(() => {
    const project = this.studio.project();
    const channels = this.tools.channels();
    const own = new Set(channels.map(ownerOf));
    const named = own.size === 1 ? [...own] : channels;
    const units = named.map((channel) => (project ? channelLabel(project, channel).unit : ''));
    return units.every((unit) => unit === units[0]) ? (units[0] ?? '') : '';
  });
  /** A thousandth of a metre, a tenth of a degree, a thousandth of anything else, until another is typed. */
  readonly within = computed(() => this.tolerances()[this.unit()] ?? (this.unit() === '°' ? 0.1 : 0.001));
  private run: WorkerRun<Shaped> | null = null;
  /** What came out, while it is still what shows. */
  readonly shown = computed(() => {
    const result = this.result();
    return result && this.proposals.shown() === result.offer ? result : null;
  });

  setTolerance(change: (value: number) => number): void {
    const within = Math.max(1e-9, change(this.within()));
    this.tolerances.update((typed) => ({ ...typed, [this.unit()]: within }));
  }

  setEvery(change: (value: number) => number): void {
    this.every.set(Math.max(0.05, change(this.every())));
  }

  /** The keys meant: the chosen ones where several are, else all of the channels meant. */
  private refs(project: Project): readonly KeyRef[] {
    const { keys } = this.studio.bench();
    if (keys.length > 2) return keys;
    return this.tools
      .channels()
      .flatMap((channel) => (curveOf(project, channel)?.keys ?? []).map(({ frame }) => ({ channel, frame })));
  }

  async simplify(tolerance: number): Promise<void> {
    const project = this.studio.project();
    if (!project || !(tolerance > 0)) return;
    const refs = this.refs(project);
    await this.work('Simplify', project, (report) => runSimplify(project, refs, tolerance, report));
  }

  async bake(every: number): Promise<void> {
    const project = this.studio.project();
    if (!project || !(every > 0)) return;
    const channels = this.tools.channels();
    await this.work(`Bake every ${shownFrame(every)} f`, project, (report) =>
      runBake(project, channels, every, project.range, report),
    );
  }

  private async work(
    title: string,
    project: Project,
    begin: (report: (share: number) => void) => WorkerRun<Shaped>,
  ): Promise<void> {
    this.cancel();
    this.proposals.drop();
    this.progress.set(0);
    // a worker that was cancelled may still have told how far it is
    const run: WorkerRun<Shaped> = begin((share) => {
      if (this.run === run) this.progress.set(share);
    });
    this.run = run;
    try {
      const made = await run.result;
      if (made && this.run === run) this.show(title, project, made);
    } catch (error) {
      this.notices.warn(
        `${title} stopped: ${error instanceof Error ? error.message : 'the worker broke'}; nothing was changed, try again`,
      );
    } finally {
      if (this.run === run) {
        this.run = null;
        this.progress.set(null);
      }
    }
  }

  private show(title: string, project: Project, made: Shaped): void {
    if (made.curves.length === 0) {
      this.notices.tell(`${title}: nothing to change within that`);
      return;
    }
    const before = made.curves.map(({ channel }) => curveOf(project, channel));
    const offer = { label: title, edit: (now: Project) => withCurves(now, before, made.curves) };
    const unit = made.at ? channelLabel(project, made.at.channel).unit : '';
    const where = made.at ? ` at f ${shownFrame(Math.round(made.at.frame * 100) / 100)}` : '';
    const told = `${made.keysBefore} keys → ${made.keysAfter}, at most ${shownNumber(made.error, 5)} ${unit} off${where}`;
    this.result.set({ title, told, offer });
    this.proposals.show(offer);
  }

  cancel(): void {
    this.run?.cancel();
    this.run = null;
    this.progress.set(null);
  }

  apply(): void {
    const shown = this.shown();
    if (!shown) return;
    this.proposals.take(shown.offer);
    this.notices.tell(`${shown.title}: ${shown.told}`, { label: 'Undo', run: () => this.studio.undo() });
    this.result.set(null);
  }

  discard(): void {
    this.proposals.drop();
    this.result.set(null);
  }
}

/** Puts curves in, where the ones they were made of are still there: an edit meanwhile is not undone by an older result. */
function withCurves(
  project: Project,
  before: readonly (Curve | undefined)[],
  after: readonly Curve[],
): Project {
  const channels = after.map(({ channel }) => channel);
  return changeCurves(project, channels, (curve) => {
    const i = channels.indexOf(curve.channel);
    return curve === before[i] ? after[i]! : curve;
  });
}
