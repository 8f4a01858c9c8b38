import { Injectable, inject } from '@angular/core';
import {
  addInterlock,
  asEdited,
  changeInterlock,
  curveOf,
  interlockStanding,
  keyAtFrame,
  mapKeyPlaces,
  removeInterlock,
  setCurveFlag,
  shiftFrame,
  splitChannel,
  type Awaited,
  type Interlock,
  type KeyRef,
  type Project,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { channelLabel } from '../stage/channel-label';
import { Refusable } from '../stage/refusable';

/** Interlocks by hand: keys tied, gaps changed, what can't hold put right. */
@Injectable({ providedIn: 'root' })
export class InterlockHands {
  private readonly studio = inject(Studio);
  private readonly refusable = inject(Refusable);

  /** The two chosen keys of which the later may wait for the earlier; null where it is not two of two channels. */
  pair(): readonly [KeyRef, KeyRef] | null {
    const { keys } = this.studio.bench();
    const [a, b, more] = keys;
    if (!a || !b || more || a.channel === b.channel) return null;
    return a.frame <= b.frame ? [a, b] : [b, a];
  }

  /** Ties the two chosen keys: the later waits for the earlier, and may not come sooner than it stands now. */
  tiePair(): void {
    const pair = this.pair();
    if (!pair) return;
    const [first, last] = pair;
    this.tie(last, { kind: 'key', ...first }, shiftFrame(last.frame, -first.frame));
  }

  tie({ channel, frame }: KeyRef, after: Awaited, gap: number): void {
    this.refusable.edit(`Tie a key of ${this.label(channel)}`, (project) => {
      const made = addInterlock(project, { channel, frame, after, gap });
      return made.ok ? { ok: true, value: made.value.project } : made;
    });
  }

  change(lock: Interlock, wish: Partial<Omit<Interlock, 'id'>>): void {
    this.refusable.edit(`What a key of ${this.label(lock.channel)} waits for`, (project) =>
      changeInterlock(project, lock.id, wish),
    );
  }

  remove({ id }: Interlock): void {
    this.studio.edit('Untie a key', (project) => removeInterlock(project, id));
  }

  isPicked({ channel, frame }: Interlock): boolean {
    return this.studio.bench().keys.some((key) => key.channel === channel && key.frame === frame);
  }

  /** Chooses the key that waits, with the sheet that tells of it. */
  pick({ channel, frame }: Interlock): void {
    this.studio.pick({
      parts: [splitChannel(channel).part],
      channels: [channel],
      keys: [{ channel, frame }],
      handles: [],
    });
    this.studio.set({ sheet: 'key' });
  }

  /** The frame that a locked key would have to move to; null where it is not held back by its lock. */
  lockedFrom(project: Project, lock: Interlock): number | null {
    const { due, holds } = interlockStanding(project, lock);
    return !holds && due !== null && curveOf(project, lock.channel)?.locked ? due : null;
  }

  /** Unlocks the channel of a key that waits, and lets the key come when it is due. */
  unlock(lock: Interlock): void {
    this.studio.edit(`Unlock ${this.label(lock.channel)}`, (project) => {
      const open = setCurveFlag(project, [lock.channel], 'locked', false);
      return this.moved(open, { channel: lock.channel, frame: lock.frame }, -this.missing(project, lock));
    });
  }

  /** The frame at which the awaited key would have to stand for all to hold; null where that can't be. */
  earlierKey(project: Project, lock: Interlock): number | null {
    const { after } = lock;
    const { holds } = interlockStanding(project, lock);
    if (holds || after.kind !== 'key') return null;
    const curve = curveOf(project, after.channel);
    if (!curve || curve.locked || !keyAtFrame(curve, after.frame)) return null;
    const goal = shiftFrame(lock.frame, -lock.gap);
    const before = curve.keys.filter(({ frame }) => frame < after.frame).at(-1);
    return before && goal <= before.frame ? null : goal;
  }

  /** Moves the awaited key so far forward that the one that waits can stay. */
  comeEarlier(lock: Interlock): void {
    const { after } = lock;
    if (after.kind !== 'key') return;
    this.studio.edit(`${this.label(after.channel)} earlier`, (project) =>
      this.moved(project, after, this.missing(project, lock)),
    );
  }

  private missing(project: Project, lock: Interlock): number {
    return interlockStanding(project, lock).spare ?? 0;
  }

  private moved(project: Project, { channel, frame }: KeyRef, by: number) {
    return asEdited(
      mapKeyPlaces(project, [{ channel, frame }], (key) => ({
        frame: shiftFrame(key.frame, by),
        value: key.value,
      })),
    );
  }

  private label(channel: string): string {
    const project = this.studio.project();
    return project ? channelLabel(project, channel).full : channel;
  }
}

/** How an interlock stands, in a word or two and as a sentence. */
export function standingWords(
  project: Project,
  lock: Interlock,
): { readonly word: string; readonly short: string; readonly whole: string; readonly bad: boolean } {
  if (lock.muted)
    return { word: 'muted', short: 'muted', whole: 'Muted: as if it were not there', bad: false };
  const { due, spare, holds } = interlockStanding(project, lock);
  if (due === null || spare === null)
    return { word: 'never', short: 'never', whole: 'What it waits for never comes in this shot', bad: true };
  const off = shownFrame(Math.abs(spare));
  const at = `due at f ${shownFrame(due)}`;
  if (!holds && spare < 0)
    return {
      word: `${off} f missing`,
      short: `−${off} f`,
      whole: `It comes ${off} frames too soon: ${at}`,
      bad: true,
    };
  if (!holds)
    return {
      word: `${off} f late`,
      short: `+${off} f`,
      whole: `It is to come just then, and comes ${off} frames late: ${at}`,
      bad: true,
    };
  if (spare <= 0.0005)
    return { word: 'met', short: 'met', whole: `It comes just when it may: ${at}`, bad: false };
  return {
    word: `${off} f to spare`,
    short: `+${off} f`,
    whole: `It comes ${off} frames later than it might: ${at}`,
    bad: false,
  };
}
