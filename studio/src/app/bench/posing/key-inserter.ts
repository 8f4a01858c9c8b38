import { Injectable, inject } from '@angular/core';
import {
  CONVERT_TOLERANCE,
  curveOf,
  insertConverts,
  insertKeys,
  keysAddedByInsert,
  keyValues,
  type KeyedValue,
  type KeyRef,
  type Project,
} from '@kaizen/core';
import type { LooseEdit } from '../../state/document';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { channelLabel } from '../stage/channel-label';

/** Puts keys on curves, and tells what that takes. */
@Injectable({ providedIn: 'root' })
export class KeyInserter {
  private readonly studio = inject(Studio);
  private readonly notices = inject(Notices);

  /**
   * Adds keys on curves without changing their shape, and keys values. Where an Ease or a Law has to become curve keys for
   * that, it is said first and done on a press; where long handles take more keys, it is said after.
   */
  insert(
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
    const run = () => this.run(project, inserts, values, loose);
    const first = inserts.find((ref) => insertConverts(project, ref));
    if (!first) {
      const more = inserts.reduce((sum, ref) => sum + Math.max(0, keysAddedByInsert(project, ref) - 1), 0);
      run();
      if (more > 0) this.notices.tell(moreKeys(more));
      return;
    }
    const name = channelLabel(project, first.channel).short;
    const count = keysAddedByInsert(project, first);
    this.notices.tell(
      `${name}: a key here turns the leg into curve keys, ${count} more, within ${CONVERT_TOLERANCE * 100} % of its rise`,
      { label: 'Add the key', run },
    );
  }

  private run(
    project: Project,
    inserts: readonly KeyRef[],
    values: readonly KeyedValue[],
    loose: (edits: readonly LooseEdit[]) => readonly LooseEdit[],
  ): void {
    const all = [...values, ...inserts].map(({ channel, frame }) => ({ channel, frame }));
    const at = shownFrame(all[0]?.frame ?? 0);
    const label =
      all.length === 1
        ? `Key ${channelLabel(project, all[0]!.channel).short} at f ${at}`
        : `Key ${all.length} channels at f ${at}`;
    this.notices.clear();
    this.studio.edit(
      label,
      (now) => insertKeys(keyValues(now, values, this.studio.bench().newKeys), inserts),
      loose,
    );
    this.studio.pick({ keys: all, handles: [] });
  }
}

function moreKeys(count: number): string {
  return count === 1
    ? 'One more key was needed: the handle there is too long for a shorter leg'
    : `${count} more keys were needed: the handles there are too long for shorter legs`;
}
