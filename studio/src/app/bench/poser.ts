import { Injectable, inject } from '@angular/core';
import {
  channelKind,
  CONVERSION_TOLERANCE,
  curveOf,
  insertKeys,
  keyValues,
  keysAddedByInsert,
  partProperties,
  splitChannel,
  type KeyedValue,
  type KeyRef,
  type Project,
} from '@kaizen/core';
import { channelLabel } from './channel-label';
import type { LooseEdit } from '../state/document';
import { Studio } from '../state/studio';
import { Notices } from '../ui/notices';
import { shownFrame } from '../ui/amount';
import { Stage } from './stage';

export interface ChannelValue {
  readonly channel: string;
  readonly value: number;
}

/** What becomes of changed values: keys by themselves while Capture takes them, else loose edits. */
@Injectable({ providedIn: 'root' })
export class Poser {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly notices = inject(Notices);

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
    this.studio.edit(
      label,
      (now) => keyValues(now, keyed),
      (loose) => [
        ...loose.filter((edit) => edit.frame !== frame || !touched.has(edit.channel)),
        ...waiting.filter((edit) => edit.value !== edit.was),
      ],
    );
    this.tell(project, sorted);
  }

  private sort(project: Project, values: readonly ChannelValue[]) {
    const { on, startNew, scope } = this.studio.bench().capture;
    const keyed: ChannelValue[] = [];
    const waiting: ChannelValue[] = [];
    const driven: ChannelValue[] = [];
    const locked: ChannelValue[] = [];
    let why = 'Capture is off';
    for (const entry of values) {
      const curve = curveOf(project, entry.channel);
      const slot = this.stage.program()?.structure.slots.get(entry.channel) ?? -1;
      if (this.stage.program()?.isDriven(slot)) driven.push(entry);
      else if (curve?.locked) locked.push(entry);
      else if (!on) waiting.push(entry);
      else if (!scope.includes(channelKind(splitChannel(entry.channel).property))) {
        why = 'outside the Scope';
        waiting.push(entry);
      } else if (!curve && !startNew) {
        why = waiting.length > 0 ? 'they have no keys yet' : 'it has no keys yet';
        waiting.push(entry);
      } else keyed.push(entry);
    }
    return { keyed, waiting, driven, locked, why };
  }

  private tell(project: Project, { keyed, waiting, driven, locked, why }: ReturnType<Poser['sort']>): void {
    const names = (list: readonly ChannelValue[]) =>
      list.map(({ channel }) => channelLabel(project, channel).short).join(', ');
    const said = [
      keyed.length > 0 ? `${names(keyed)} keyed at f ${shownFrame(this.stage.frame())}` : '',
      waiting.length > 0 ? `${names(waiting)} ${waiting.length === 1 ? 'waits' : 'wait'}: ${why}` : '',
      driven.length > 0 ? `${names(driven)} stays as its driver has it` : '',
      locked.length > 0 ? `${names(locked)} is locked` : '',
    ].filter(Boolean);
    if (said.length === 0) return;
    this.notices.tell(
      said.join('; '),
      waiting.length > 0 ? { label: 'Key them', run: () => this.keyLoose() } : undefined,
    );
  }

  private curveValue(channel: string, frame: number): number {
    const program = this.stage.program();
    const slot = program?.structure.slots.get(channel);
    return program && slot !== undefined ? program.channelValue(slot, frame) : 0;
  }

  /** Keys all loose edits (or some) at their own frames. */
  keyLoose(which: readonly LooseEdit[] = this.studio.loose()): void {
    if (which.length === 0) return;
    this.studio.edit(
      which.length === 1 ? 'Key a loose edit' : `Key ${which.length} loose edits`,
      (project) => keyValues(project, which),
      (loose) => loose.filter((edit) => !which.includes(edit)),
    );
    this.notices.clear();
  }

  discardLoose(which: readonly LooseEdit[] = this.studio.loose()): void {
    this.studio.edit(
      'Discard loose edits',
      (project) => project,
      (loose) => loose.filter((edit) => !which.includes(edit)),
    );
  }

  /**
   * Key here: the chosen channels, else the loose ones at the playhead, else what is animated of the chosen parts, else
   * their place and turn. Where nothing was changed the curve keeps its shape.
   */
  keyHere(): void {
    const project = this.studio.project();
    const program = this.stage.program();
    if (!project || !program) return;
    const frame = this.stage.frame();
    const channels = this.channelsToKey(project, frame).filter(
      (channel) => !program.isDriven(program.structure.slots.get(channel) ?? -1),
    );
    if (channels.length === 0) {
      this.notices.tell('Nothing to key: pick a part or a channel first');
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
      if (edit || !curveOf(project, channel)) {
        values.push({ channel, frame, value: edit?.value ?? this.curveValue(channel, frame) });
      } else inserts.push({ channel, frame });
    }
    this.insertKeys(inserts, values, (edits) =>
      edits.filter((edit) => loose.get(edit.channel) !== edit || !channels.includes(edit.channel)),
    );
  }

  /**
   * Adds keys on curves without changing their shape, and keys values. Where an Ease or a Law has to become curve keys for
   * that, it is said first and done on a press.
   */
  insertKeys(
    inserts: readonly KeyRef[],
    values: readonly KeyedValue[] = [],
    loose: (edits: readonly LooseEdit[]) => readonly LooseEdit[] = (edits) => edits,
  ): void {
    const project = this.studio.project();
    if (!project) return;
    const locked = [...inserts, ...values].find((ref) => curveOf(project, ref.channel)?.locked);
    if (locked) {
      this.notices.tell(
        `${channelLabel(project, locked.channel).full} is locked; unlock it in its row first`,
      );
      return;
    }
    const run = () => {
      const all = [...values, ...inserts].map(({ channel, frame }) => ({ channel, frame }));
      const at = shownFrame(all[0]?.frame ?? 0);
      const label =
        all.length === 1
          ? `Key ${channelLabel(project, all[0]!.channel).short} at f ${at}`
          : `Key ${all.length} channels at f ${at}`;
      this.notices.clear();
      this.studio.edit(label, (now) => insertKeys(keyValues(now, values), inserts), loose);
      this.studio.pick({ keys: all, handles: [] });
    };
    const converted = inserts.filter((ref) => keysAddedByInsert(project, ref) > 1);
    const [first] = converted;
    if (!first) {
      run();
      return;
    }
    const name = channelLabel(project, first.channel).short;
    const count = keysAddedByInsert(project, first);
    this.notices.tell(
      `${name}: a key here turns the leg into curve keys, ${count} more, within ${CONVERSION_TOLERANCE * 100} % of its rise`,
      { label: 'Add the key', run },
    );
  }

  private channelsToKey(project: Project, frame: number): readonly string[] {
    const { channels, parts } = this.studio.bench();
    if (channels.length > 0) return channels;
    const chosen = new Set(parts);
    const loose = this.studio
      .loose()
      .filter(
        (edit) => edit.frame === frame && (parts.length === 0 || chosen.has(splitChannel(edit.channel).part)),
      );
    if (loose.length > 0) return loose.map((edit) => edit.channel);
    const of = project.parts
      .filter((part) => chosen.has(part.id))
      .flatMap((part) => partProperties(part).map(({ property }) => `${part.id}/${property}`));
    const animated = of.filter((channel) => curveOf(project, channel));
    if (animated.length > 0) return animated;
    return of.filter((channel) => ['place', 'turn'].includes(channelKind(splitChannel(channel).property)));
  }
}
