import { Injectable, inject } from '@angular/core';
import {
  channelKind,
  curveOf,
  keyValues,
  keyAtFrame,
  splitChannel,
  type KeyedValue,
  type KeyRef,
  type Project,
} from '@kaizen/core';
import type { Capture } from '../../state/bench';
import { channelLabel } from '../stage/channel-label';
import { valueOfChannel } from '../plot/chart-lines';
import { KeyInserter } from './key-inserter';
import { channelsToKey, takesStyle, type KeyWhich } from './key-here';
import type { LooseEdit } from '../../state/document';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { shownFrame } from '../../ui/amount';
import { channelsTold, ofSeveralParts } from '../stage/channels-told';
import { Stage } from '../stage/stage';

export interface ChannelValue {
  readonly channel: string;
  readonly value: number;
}

/** Why a changed value waits in the tray, in the order in which they are told. */
const WHY = ['off', 'part', 'kind', 'new'] as const;
type Why = (typeof WHY)[number];
const REASONS: Readonly<Record<Why, (many: boolean) => string>> = {
  off: () => 'Capture is off',
  part: (many) => (many ? 'their part is outside the Scope' : 'its part is outside the Scope'),
  kind: () => 'outside the Scope',
  new: (many) => (many ? 'they have no keys yet' : 'it has no keys yet'),
};

/** What becomes of changed values: keys by themselves while Capture takes them, else loose edits. */
@Injectable({ providedIn: 'root' })
export class Poser {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly notices = inject(Notices);
  private readonly inserter = inject(KeyInserter);

  /** Values while they are dragged: shown, not kept. */
  show(values: readonly ChannelValue[]): void {
    this.stage.posing.set(values.map((entry) => ({ ...entry, frame: this.stage.frame(), was: entry.value })));
  }

  /** Drops what is being dragged. */
  cancel(): void {
    this.stage.posing.set([]);
  }

  /** Keeps changed values at the playhead, and tells which were keyed, which wait, and why. */
  take(label: string, values: readonly ChannelValue[]): void {
    const project = this.studio.project();
    this.stage.posing.set([]);
    if (!project) return;
    const frame = this.stage.frame();
    const sorted = this.sort(project, values);
    const keyed = sorted.keyed.map((entry): KeyedValue => ({ ...entry, frame }));
    const waiting = sorted.waiting.map(({ channel, value }): LooseEdit => ({
      channel,
      value,
      frame,
      was: this.curveValue(channel, frame),
    }));
    const touched = new Set(values.map(({ channel }) => channel));
    const marked = this.markedKeys(project, keyed);
    this.studio.edit(
      label,
      (now) => keyValues(now, [...marked, ...keyed], this.studio.bench().newKeys),
      (loose) => [
        ...loose.filter((edit) => edit.frame !== frame || !touched.has(edit.channel)),
        ...waiting.filter((edit) => edit.value !== edit.was),
      ],
    );
    this.tell(project, sorted, new Set(marked.map((key) => key.frame)));
  }

  /** Where start or end are marked: the old values there of channels that get their first key elsewhere. */
  private markedKeys(project: Project, keyed: readonly KeyedValue[]): readonly KeyedValue[] {
    const fresh = keyed.filter(({ channel }) => !curveOf(project, channel)?.keys.length);
    return this.markedFrames(project).flatMap((frame) =>
      fresh.map(({ channel }) => ({ channel, frame, value: this.curveValue(channel, frame) })),
    );
  }

  /** The ends of the range that are marked, but for the playhead's own frame. */
  private markedFrames({ range }: Project): readonly number[] {
    const { markStart, markEnd } = this.studio.bench().capture;
    const marked = [...(markStart ? [range.start] : []), ...(markEnd ? [range.end] : [])];
    return marked.filter((frame) => frame !== this.stage.frame());
  }

  private sort(project: Project, values: readonly ChannelValue[]) {
    const { on, startNew, scope, parts } = this.studio.bench().capture;
    const keyed: ChannelValue[] = [];
    const waiting: (ChannelValue & { readonly why: Why })[] = [];
    const driven: ChannelValue[] = [];
    const locked: ChannelValue[] = [];
    for (const entry of values) {
      const curve = curveOf(project, entry.channel);
      const { part, property } = splitChannel(entry.channel);
      const slot = this.stage.program()?.structure.slots.get(entry.channel) ?? -1;
      const wait = (why: Why) => waiting.push({ ...entry, why });
      if (this.stage.program()?.isDriven(slot)) driven.push(entry);
      else if (curve?.locked) locked.push(entry);
      else if (!on) wait('off');
      else if (parts && !parts.includes(part)) wait('part');
      else if (!scope.includes(channelKind(property))) wait('kind');
      else if (!curve && !startNew) wait('new');
      else keyed.push(entry);
    }
    return { keyed, waiting, driven, locked };
  }

  private tell(
    project: Project,
    { keyed, waiting, driven, locked }: ReturnType<Poser['sort']>,
    marked: ReadonlySet<number>,
  ): void {
    const channelsOf = (list: readonly ChannelValue[]) => list.map(({ channel }) => channel);
    const several = ofSeveralParts(channelsOf([...keyed, ...waiting, ...driven, ...locked]));
    const names = (list: readonly ChannelValue[]) => channelsTold(project, channelsOf(list), several);
    const waits = WHY.flatMap((why) => {
      const list = waiting.filter((entry) => entry.why === why);
      if (list.length === 0) return [];
      return `${names(list)} ${list.length === 1 ? 'waits' : 'wait'}: ${REASONS[why](list.length > 1)}`;
    });
    const said = [
      keyed.length > 0
        ? `${names(keyed)} keyed at f ${shownFrame(this.stage.frame())}${this.markedWords(project, marked)}`
        : '',
      ...waits,
      driven.length > 0
        ? `${names(driven)} ${driven.length === 1 ? 'stays as its driver has it' : 'stay as their drivers have them'}`
        : '',
      locked.length > 0 ? `${names(locked)} ${locked.length === 1 ? 'is' : 'are'} locked` : '',
    ].filter(Boolean);
    if (said.length > 0) this.notices.tell(said.join('; '), this.remedy(waiting));
  }

  private markedWords({ range }: Project, marked: ReadonlySet<number>): string {
    const ends = [marked.has(range.start) ? 'starts' : '', marked.has(range.end) ? 'ends' : ''].filter(
      Boolean,
    );
    return ends.length === 0 ? '' : `, and where the range ${ends.join(' and ')}`;
  }

  /** The one press that changes why values wait, for this time and the next ones. */
  private remedy(waiting: readonly (ChannelValue & { readonly why: Why })[]) {
    const [first] = waiting;
    if (!first) return undefined;
    const { capture } = this.studio.bench();
    const channels = new Set(waiting.map(({ channel }) => channel));
    const frame = this.stage.frame();
    const key = (change: Partial<Capture>) => () => {
      this.studio.set({ capture: { ...capture, ...change } });
      this.keyLoose(this.studio.loose().filter((edit) => edit.frame === frame && channels.has(edit.channel)));
    };
    const of = splitChannel(first.channel);
    switch (first.why) {
      case 'off':
        return { label: 'Key them', run: key({}) };
      case 'new':
        return { label: 'Start new channels', run: key({ startNew: true }) };
      case 'kind':
        return {
          label: 'Take into the Scope',
          run: key({ scope: [...capture.scope, channelKind(of.property)] }),
        };
      case 'part':
        return {
          label: 'Take into the Scope',
          run: key({ parts: [...(capture.parts ?? []), of.part] }),
        };
    }
  }

  private curveValue(channel: string, frame: number): number {
    const [program, project] = [this.stage.program(), this.stage.shown()];
    return program && project ? valueOfChannel(program, project, channel, frame) : 0;
  }

  /** Keys all loose edits (or some), at their own frames or all at one. Keys that get another value by it are told. */
  keyLoose(list: readonly LooseEdit[] = this.studio.loose(), at?: number): void {
    const project = this.studio.project();
    // at one frame a channel has one key: of several loose values the one made last is keyed, the others go on waiting
    const which =
      at === undefined
        ? list
        : list.filter((edit, i) => list.findLastIndex(({ channel }) => channel === edit.channel) === i);
    if (which.length === 0 || !project) return;
    const values = which.map((edit): KeyedValue => ({ ...edit, frame: at ?? edit.frame }));
    const locked = values.find(({ channel }) => curveOf(project, channel)?.locked);
    if (locked) {
      this.notices.tell(
        `${channelLabel(project, locked.channel).full} is locked; unlock it in its row first`,
      );
      return;
    }
    const replaced = values.filter(({ channel, frame, value }) => {
      const curve = curveOf(project, channel);
      const key = curve && keyAtFrame(curve, frame);
      return key !== undefined && key.value !== value;
    });
    this.studio.edit(
      which.length === 1 ? 'Key a loose edit' : `Key ${which.length} loose edits`,
      (now) => keyValues(now, values, this.studio.bench().newKeys),
      (loose) => loose.filter((edit) => !which.includes(edit)),
    );
    this.notices.clear();
    const [first] = replaced.filter(({ frame }) => frame !== this.stage.frame());
    if (first)
      this.notices.tell(
        `${channelLabel(project, first.channel).full} had a key at f ${shownFrame(first.frame)}; it has the loose value now${replaced.length > 1 ? `, as ${replaced.length - 1} more` : ''}`,
        { label: 'Undo', run: () => this.studio.undo() },
      );
  }

  discardLoose(which: readonly LooseEdit[] = this.studio.loose()): void {
    this.notices.clear();
    this.studio.edit(
      'Discard loose edits',
      (project) => project,
      (loose) => loose.filter((edit) => !which.includes(edit)),
    );
  }

  /** Key here: what is chosen, or what is asked for. Where nothing was changed the curve keeps its shape. */
  keyHere(which: KeyWhich = 'chosen'): void {
    const project = this.studio.project();
    const program = this.stage.program();
    if (!project || !program) return;
    const frame = this.stage.frame();
    const channels = channelsToKey(project, this.studio.bench(), this.studio.loose(), frame, which).filter(
      (channel) => !program.isDriven(program.structure.slots.get(channel) ?? -1),
    );
    if (channels.length === 0) {
      this.notices.tell(
        which === 'existing'
          ? 'There is no key at the playhead to update; Key here sets one'
          : 'Nothing to key: pick a part or a channel first',
      );
      return;
    }
    const loose = new Map(
      this.studio
        .loose()
        .filter((edit) => edit.frame === frame || !curveOf(project, edit.channel))
        .map((edit) => [edit.channel, edit]),
    );
    const values: KeyedValue[] = [];
    const inserts: KeyRef[] = [];
    for (const channel of channels) {
      const edit = loose.get(channel);
      if (edit || takesStyle(curveOf(project, channel), frame, this.studio.bench().newKeys)) {
        values.push({ channel, frame, value: edit?.value ?? this.curveValue(channel, frame) });
      } else inserts.push({ channel, frame });
    }
    this.inserter.insert(inserts, values, (edits) =>
      edits.filter((edit) => loose.get(edit.channel) !== edit || !channels.includes(edit.channel)),
    );
  }
}
