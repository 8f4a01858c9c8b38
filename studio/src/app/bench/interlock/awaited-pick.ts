import { Injectable, inject } from '@angular/core';
import { curveOf, splitChannel, type KeyRef } from '@kaizen/core';
import { channelLabel } from '../stage/channel-label';
import { PartPicker } from '../stage/picker';
import { Stage } from '../stage/stage';
import { InterlockHands } from './interlock-hands';

/** Asks for what a key is to wait for: it is picked in the view or in the rows. */
@Injectable({ providedIn: 'root' })
export class AwaitedPick {
  private readonly stage = inject(Stage);
  private readonly picker = inject(PartPicker);
  private readonly hands = inject(InterlockHands);

  askKey(key: KeyRef): void {
    this.ask(key, (channel) => {
      const project = this.stage.shown();
      const keys = (project && curveOf(project, channel)?.keys) ?? [];
      const awaited = keys.filter(({ frame }) => frame <= key.frame).at(-1) ?? keys[0];
      if (awaited) this.hands.tie(key, { kind: 'key', channel, frame: awaited.frame }, 0);
    });
  }

  askValue(key: KeyRef): void {
    this.ask(key, (channel) => {
      const value = Number((this.stage.valueOf(channel) ?? 0).toFixed(3));
      this.hands.tie(key, { kind: 'passes', channel, value, way: 'either', nth: 1 }, 0);
    });
  }

  private ask(key: KeyRef, take: (channel: string) => void): void {
    const project = this.stage.shown();
    if (!project) return;
    const own = channelLabel(project, key.channel).full;
    this.picker.ask({
      words: `Pick what the key of ${own} waits for`,
      refuse: (part) =>
        part === splitChannel(key.channel).part || this.keyed(part)
          ? null
          : 'nothing of it has keys: pick a part that moves by keys, or a channel in the rows',
      take: (part, _, channel) => {
        const named = channel ?? this.keyed(part);
        if (named) take(named);
      },
    });
  }

  /** The first channel of a part that has keys. */
  private keyed(part: string): string | null {
    const project = this.stage.shown();
    const clip = project?.clips.find(({ id }) => id === project.activeClip);
    return clip?.curves.find(({ channel }) => splitChannel(channel).part === part)?.channel ?? null;
  }
}
