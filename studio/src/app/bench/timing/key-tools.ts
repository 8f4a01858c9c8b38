import { Injectable, inject } from '@angular/core';
import {
  closeLoop,
  curveOf,
  fallingTogether,
  holdStill,
  keysAfter,
  keysBefore,
  keysButFirst,
  keysOfPose,
  insertKeys,
  keyAtFrame,
  keysOffTheFrame,
  setRange,
  shiftFrame,
  spanOf,
  toWholeFrames,
  waitAfter,
  type KeyRef,
  type Project,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { channelLabel } from '../stage/channel-label';
import { Stage } from '../stage/stage';
import { TimeTools } from './time-tools';

/** More keys are not made by one press. */
const MOST_AT_ONCE = 20_000;

/** Selections and edits of timing by one press: all but the first, waits, holds, whole frames, loops. */
@Injectable({ providedIn: 'root' })
export class KeyTools {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly notices = inject(Notices);
  private readonly time = inject(TimeTools);

  private channels(): readonly string[] {
    return this.time.scope()?.channels ?? [];
  }

  choose(which: 'but-first' | 'after' | 'before' | 'pose'): void {
    const project = this.studio.project();
    if (!project) return;
    const channels = this.channels();
    const frame = this.stage.frame();
    const pose = () =>
      new Map(channels.map((channel) => [channel, this.stage.valueOf(channel) ?? Number.NaN]));
    const keys = {
      'but-first': () => keysButFirst(project, channels),
      after: () => keysAfter(project, channels, frame),
      before: () => keysBefore(project, channels, frame),
      pose: () => keysOfPose(project, channels, pose()),
    }[which]();
    this.studio.pick({ keys, handles: [] });
    if (keys.length === 0) this.notices.tell('No key is like that on these channels');
  }

  /** The chosen keys, else the last key of each chosen channel at or before the playhead. */
  private keysHere(): readonly KeyRef[] {
    const { keys } = this.studio.bench();
    const project = this.studio.project();
    if (keys.length > 0 || !project) return keys;
    const frame = this.stage.frame();
    return this.channels().flatMap((channel) => {
      const key = curveOf(project, channel)?.keys.findLast((each) => each.frame <= frame);
      return key ? [{ channel, frame: key.frame }] : [];
    });
  }

  holdStill(): void {
    const refs = this.keysHere();
    if (refs.length === 0) this.notices.tell('Choose the keys to hold, or put the playhead after them');
    else this.studio.edit('Hold still', (project) => holdStill(project, refs));
  }

  /** Leaves copies of keys behind as a wait. */
  wait(): void {
    const { amount } = this.time.settings();
    const refs = this.keysHere();
    if (refs.length === 0) {
      this.notices.tell('Choose the keys to wait at, or put the playhead on them');
      return;
    }
    this.studio.edit(`Wait ${shownFrame(amount)} frames`, (project) => waitAfter(project, refs, amount));
    this.notices.tell(`A wait of ${shownFrame(amount)} frames; what comes after moved later`);
  }

  /** A key every so many frames between the keys of the channels meant, or between the chosen ones; the shape stays. */
  keyEvery(): void {
    const project = this.studio.project();
    if (!project) return;
    const { frameStep, keys } = this.studio.bench();
    const chosen = spanOf(keys.map(({ frame }) => frame));
    const within = chosen.last > chosen.first ? chosen : null;
    const refs = framesBetweenKeys(project, this.channels(), frameStep, within);
    if (refs.length === 0) {
      this.notices.tell('There are no channels with keys on two frames, between which keys could stand');
      return;
    }
    if (refs.length > MOST_AT_ONCE) {
      this.notices.warn(
        `That would be ${refs.length} keys, more than ${MOST_AT_ONCE} at once; take a longer step or fewer channels`,
      );
      return;
    }
    const channels = new Set(refs.map(({ channel }) => channel)).size;
    this.studio.edit(`Key every ${shownFrame(frameStep)} f`, (now) => insertKeys(now, refs));
    this.studio.pick({ keys: refs, handles: [] });
    this.notices.tell(
      `A key every ${shownFrame(frameStep)} f on ${channels === 1 ? 'one channel' : `${channels} channels`}, ${refs.length} in all; the shape is the same`,
      { label: 'Undo', run: () => this.studio.undo() },
    );
  }

  /** Keys off the whole frame: those chosen, or all. */
  offTheFrame(): readonly KeyRef[] {
    const project = this.studio.project();
    return project ? keysOffTheFrame(project) : [];
  }

  /** Puts chosen keys on whole frames, or, where none of them is off it, all; says which would fall together and stay. */
  wholeFrames(): void {
    const project = this.studio.project();
    if (!project) return;
    const all = this.offTheFrame();
    const chosen = new Set(this.studio.bench().keys.map(({ channel, frame }) => `${channel}@${frame}`));
    const picked = all.filter(({ channel, frame }) => chosen.has(`${channel}@${frame}`));
    const refs = picked.length > 0 ? picked : all;
    if (refs.length === 0) {
      this.notices.tell('All keys stand on whole frames');
      return;
    }
    const together = fallingTogether(project, refs);
    this.snap(refs, false);
    const moved = refs.length - together.length;
    if (together.length === 0) {
      this.notices.tell(`${moved === 1 ? 'One key' : `${moved} keys`} put on whole frames`);
      return;
    }
    const [first] = together;
    this.notices.tell(
      `${moved} put on whole frames; ${together.length} would fall together with another key and stay: ${channelLabel(project, first!.channel).full} at f ${shownFrame(first!.frame)}${together.length > 1 ? ' …' : ''}`,
      { label: 'Merge them', run: () => this.snap(together, true) },
    );
  }

  private snap(refs: readonly KeyRef[], merge: boolean): void {
    this.studio.edit('Keys to whole frames', (project) => toWholeFrames(project, refs, { merge }));
  }

  /** Copies the first key of each channel to the range's end and lets it loop. */
  closeLoop(): void {
    const project = this.studio.project();
    if (!project) return;
    const channels = this.channels();
    const { end } = project.range;
    const gone = channels
      .flatMap((channel) => curveOf(project, channel)?.keys ?? [])
      .filter(({ frame }) => frame > end).length;
    const left = gone > 0 ? `; ${gone} ${gone === 1 ? 'key' : 'keys'} after it went` : '';
    this.studio.edit('Close the loop', (now) => closeLoop(now, channels, end));
    this.notices.tell(
      `${channels.length} ${channels.length === 1 ? 'channel ends' : 'channels end'} at f ${shownFrame(end)} as they begin; playing leaves f ${shownFrame(end)} out${left}`,
      { label: 'Undo', run: () => this.studio.undo() },
    );
  }

  /** Lets the range run from the first key to the last. */
  trimRange(): void {
    const span = this.time.scope()?.span;
    if (span && span.end > span.start)
      this.studio.edit('Trim the range', (project) => setRange(project, span));
    else this.notices.tell('There are no keys on two frames to trim the range to');
  }
}

/** A place every so many frames from the first to the last key of each channel, or within a span of frames. */
function framesBetweenKeys(
  project: Project,
  channels: readonly string[],
  step: number,
  within: { readonly first: number; readonly last: number } | null,
): readonly KeyRef[] {
  return channels.flatMap((channel) => {
    const curve = curveOf(project, channel);
    const keys = curve?.keys ?? [];
    const first = Math.max(keys[0]?.frame ?? Infinity, within?.first ?? -Infinity);
    const last = Math.min(keys.at(-1)?.frame ?? -Infinity, within?.last ?? Infinity);
    const count = last > first ? Math.floor((last - first) / step + 1e-9) + 1 : 0;
    return Array.from({ length: Math.min(count, MOST_AT_ONCE + 1) }, (_, i) => {
      const frame = shiftFrame(first, i * step);
      return { channel, frame: (curve && keyAtFrame(curve, frame))?.frame ?? frame };
    });
  });
}
