import { computed, Injectable, inject, signal, untracked } from '@angular/core';
import {
  mapFrame,
  moveRuler,
  scaledSpan,
  spanOf,
  type Project,
  type SlopesKeep,
  type Span,
  type TimeEdit,
  type TimeKnot,
} from '@kaizen/core';
import type { TimeSettings } from '../../state/bench';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { channelLabel } from '../stage/channel-label';
import { Proposals } from '../stage/proposals';
import { Stage } from '../stage/stage';
import { planOf, stakesPlan, stretchPlan, type TimePlan, type TimeToolId } from './time-plans';
import { timeScope } from './time-scope';

/**
 * Edits of time: each is shown before it happens, with the part of time that it affects, and kept on a press. Stakes stay set until they are
 * applied or discarded; meanwhile the motion shows what they would do.
 */
@Injectable({ providedIn: 'root' })
export class TimeTools {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly proposals = inject(Proposals);
  private readonly notices = inject(Notices);
  private readonly plan = signal<TimePlan | null>(null);
  /** The tool that waits for its second press. */
  readonly armed = signal<TimeToolId | null>(null);

  readonly settings = computed(() => this.studio.bench().time);
  readonly scope = computed(() => {
    const project = this.studio.project();
    return project ? timeScope(project, this.studio.bench()) : null;
  });
  readonly stakes = computed(() => this.studio.bench().stakes);
  private readonly staked = computed(() => {
    // what they act on is every key of a project: not to be gathered for nothing
    const scope = this.stakes().length > 0 ? this.scope() : null;
    return scope ? stakesPlan({ scope, settings: this.settings() }, this.stakes()) : null;
  });
  /** What is shown and not yet kept: an edit under the pointer, or the Stakes. */
  readonly pending = computed(() => this.plan() ?? this.staked());
  /** Whether what shows are the Stakes. */
  readonly stakesShow = computed(() => this.plan() === null && this.staked() !== null);
  readonly affected = computed(() => this.pending()?.affected ?? null);
  private readonly result = computed(() => {
    const project = this.studio.project();
    return project ? (this.pending()?.edit(project) ?? null) : null;
  });
  /** `13 keys on 3 channels, f 90, f 150 → 162, f 222`, or why it can't be done. */
  readonly told = computed(() => {
    const [project, plan, result] = [this.studio.project(), this.pending(), this.result()];
    if (!project || !plan || !result) return '';
    const [refused] = result.refused;
    if (refused !== undefined)
      return `can’t be done: keys of ${channelLabel(project, refused).full} would pass each other`;
    const locked = this.scope()?.locked ?? 0;
    const left = locked === 0 ? '' : `; ${locked} locked left alone`;
    const slopes = plan.slopes ? `, ${SLOPES[plan.slopes]}` : '';
    return `${count(result.keys, 'key')} on ${count(result.channels, 'channel')}: ${plan.does}${slopes}${left}`;
  });
  readonly possible = computed(() => (this.result()?.refused.length ?? 0) === 0);

  set(change: Partial<TimeSettings>): void {
    this.studio.set({ time: { ...this.settings(), ...change } });
  }

  private ask() {
    const scope = this.scope();
    if (!scope) return null;
    return {
      scope,
      settings: this.settings(),
      frame: this.stage.frame(),
      valueAt: (channel: string) => this.stage.valueOf(channel) ?? 0,
    };
  }

  /** Shows what is pending, and no longer what is not: for an effect of the Bench. */
  showPending(): void {
    const plan = this.pending();
    const proposal = plan && { label: plan.label, edit: this.editOf(plan) };
    untracked(() => this.proposals.standing.set(proposal));
  }

  /** What a plan does to a project: what stands on the ruler goes along where all channels do. */
  private editOf(plan: TimePlan): (project: Project) => TimeEdit {
    const all = this.scope()?.all ?? false;
    const { moves } = this.settings();
    return (project) => {
      const edit = plan.edit(project);
      const { time } = edit.mapping;
      return edit.project !== project && time && all
        ? { ...edit, project: moveRuler(edit.project, time, moves) }
        : edit;
    };
  }

  /** Shows what a tool would do. */
  show(tool: TimeToolId): void {
    const ask = this.ask();
    this.plan.set(ask && planOf(tool, ask));
  }

  hide(): void {
    this.plan.set(null);
    this.armed.set(null);
  }

  /** No longer shows an edit, where one is shown, before something else begins; Stakes stay. */
  giveWay(): void {
    if (!this.plan()) return;
    this.hide();
    this.showPending();
  }

  /** Does what a tool does. */
  run(tool: TimeToolId): void {
    const ask = this.ask();
    const plan = ask && planOf(tool, ask);
    this.hide();
    if (plan) this.keep(plan);
  }

  /** By keyboard: the first press shows, the second does it. */
  press(tool: TimeToolId): void {
    if (this.armed() === tool) {
      this.run(tool);
      return;
    }
    this.show(tool);
    this.armed.set(tool);
  }

  private keep(plan: TimePlan): boolean {
    const project = this.studio.project();
    if (!project || this.studio.readOnly()) return false;
    const edit = this.editOf(plan);
    const result = edit(project);
    const [refused] = result.refused;
    if (refused !== undefined) {
      this.notices.warn(
        `${plan.label}: keys of ${channelLabel(project, refused).full} would pass each other; take fewer frames, or let the rest follow`,
      );
      return false;
    }
    if (result.project === project) {
      this.notices.tell('Nothing to move: there are no keys there that are not locked');
      return false;
    }
    this.studio.edit(plan.label, edit);
    this.notices.tell(
      `${plan.label}: ${count(result.keys, 'key')} on ${count(result.channels, 'channel')}${plan.aside?.(project) ?? ''}`,
      { label: 'Undo', run: () => this.studio.undo() },
    );
    return true;
  }

  /** The span that a stretch begins from: of the chosen keys, else of all keys of the scope. */
  readonly span = computed(() => this.scope()?.span ?? null);

  private stretching(to: (span: Span) => Span): TimePlan | null {
    const scope = this.scope();
    if (!scope?.span) return null;
    return stretchPlan({ scope, settings: this.settings() }, to(scope.span));
  }

  showLength(length: number | null): void {
    this.plan.set(length === null ? null : this.stretching(lengthened(length)));
  }

  stretchToLength(length: number): void {
    const plan = length > 0 ? this.stretching(lengthened(length)) : null;
    this.hide();
    if (plan) this.keep(plan);
    else this.notices.warn('A span must be longer than 0 frames to be stretched; choose keys on two frames');
  }

  /** Stretches by a factor about the beginning of the span. */
  stretchBy(factor: number): void {
    const span = this.span();
    if (span) this.stretchToLength(scaledSpan(span, factor).end - span.start);
  }

  /**
   * Puts a Stake at the playhead, or takes away the one that stands there. The first ones, with keys chosen over a span, stand at
   * its ends.
   */
  toggleStake(): void {
    const frame = this.stage.frame();
    const stakes = this.stakes();
    const { first, last } = spanOf(this.studio.bench().keys.map((key) => key.frame));
    if (stakes.length === 0 && last > first) {
      this.studio.set({ stakes: [first, last].map((at) => ({ from: at, to: at })) });
      this.notices.tell(`Stakes at f ${shownFrame(first)} and f ${shownFrame(last)}: drag them on the ruler`);
      return;
    }
    const there = stakes.find(({ to }) => to === frame);
    const next = there
      ? stakes.filter((stake) => stake !== there)
      : [...stakes, { from: this.before(frame), to: frame }];
    this.studio.set({ stakes: next.sort((a, b) => a.from - b.from) });
    this.notices.tell(stakeWords(frame, !there, next.length));
  }

  /** Where a frame that shows stood before the Stakes moved it. */
  private before(frame: number): number {
    const stakes = this.stakes();
    return stakes.length < 2
      ? frame
      : mapFrame({ knots: stakes.map(({ from, to }) => ({ from: to, to: from })) }, frame);
  }

  /** Moves a Stake; it stays between its neighbours. */
  moveStake(stake: TimeKnot, to: number): void {
    const stakes = this.stakes();
    const i = stakes.findIndex(({ from }) => from === stake.from);
    if (i < 0) return;
    const [low, high] = [stakes[i - 1]?.to, stakes[i + 1]?.to];
    const kept = Math.min(
      high === undefined ? Infinity : high - 1,
      Math.max(low === undefined ? -Infinity : low + 1, to),
    );
    this.studio.set({ stakes: stakes.map((each, j) => (j === i ? { ...each, to: kept } : each)) });
  }

  removeStake(stake: TimeKnot): void {
    this.studio.set({ stakes: this.stakes().filter(({ from }) => from !== stake.from) });
  }

  applyStakes(): void {
    const plan = this.staked();
    if (plan && this.keep(plan)) this.discardStakes();
  }

  discardStakes(): void {
    this.studio.set({ stakes: [] });
  }

  /** Applies whatever is shown. */
  apply(): void {
    const tool = this.armed();
    if (tool) this.run(tool);
    else this.applyStakes();
  }

  discard(): void {
    if (this.plan()) this.hide();
    else this.discardStakes();
  }
}

/** What a button of a tool says: it shows what the tool does while the pointer or the focus rests on it, so a press does it. */
export const AT_ONCE = 'at once';

/** What is said of set slopes. */
const SLOPES: Readonly<Record<SlopesKeep, string>> = { shape: 'shape stays', speed: 'speeds stay' };

function lengthened(length: number): (span: Span) => Span {
  return ({ start }) => ({ start, end: start + length });
}

function count(many: number, word: string): string {
  return `${many} ${word}${many === 1 ? '' : 's'}`;
}

/** What is told when a Stake was set at a frame or taken away there. */
function stakeWords(frame: number, isSet: boolean, count: number): string {
  if (!isSet) return `No Stake at f ${shownFrame(frame)} any more`;
  return count === 1
    ? `A Stake at f ${shownFrame(frame)}: set at least one more, then drag them on the ruler`
    : `A Stake at f ${shownFrame(frame)}, ${count} in all: drag them on the ruler`;
}
