import { Injectable, inject } from '@angular/core';
import type { Interlock, KeyRef } from '@kaizen/core';
import { onItem, type Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { AwaitedPick } from './awaited-pick';
import { InterlockHands } from './interlock-hands';
import { MeasuredClearances } from './measured-clearances';

/** Keys that wait for each other: tied, muted, untied. */
@Injectable({ providedIn: 'root' })
export class InterlockCommands {
  private readonly studio = inject(Studio);
  private readonly hands = inject(InterlockHands);
  private readonly awaited = inject(AwaitedPick);
  private readonly clearances = inject(MeasuredClearances);

  list(): readonly Command[] {
    const about = (
      id: string,
      label: string,
      run: (lock: Interlock) => void,
      on?: (lock: Interlock) => boolean,
    ) =>
      onItem<Interlock>({
        id,
        label,
        group: 'Keys',
        meant: () => this.meant(),
        when: () => !this.studio.readOnly(),
        ...(on && { on }),
        run,
      });
    const asking = (id: string, label: string, ask: (key: KeyRef) => void) =>
      onItem<KeyRef>({
        id,
        label,
        group: 'Keys',
        meant: () => {
          const { keys } = this.studio.bench();
          return keys.length === 1 ? keys[0]! : null;
        },
        when: () => !this.studio.readOnly(),
        run: ask,
      });
    return [
      asking('interlock.after-key', 'The chosen key waits for a key: pick what has it', (key) =>
        this.awaited.askKey(key),
      ),
      asking('interlock.after-value', 'The chosen key waits for a value to be passed: pick of what', (key) =>
        this.awaited.askValue(key),
      ),
      {
        id: 'interlock.tie',
        label: 'Tie the two chosen keys: the later waits for the earlier',
        group: 'Keys',
        shortcuts: ['Ctrl+J'],
        when: () => !this.studio.readOnly() && this.hands.pair() !== null,
        run: () => this.hands.tiePair(),
      },
      about('interlock.mute', 'Mute what the chosen key waits for, or let it hold', (lock) =>
        this.hands.change(lock, { muted: !lock.muted }),
      ),
      about(
        'interlock.exact',
        'The chosen key comes just when it is tied to, or may come later',
        (lock) => this.hands.change(lock, { exact: !lock.exact }),
        ({ exact }) => exact,
      ),
      about('interlock.earlier', 'Move what the chosen key waits for, so that it can come earlier', (lock) =>
        this.hands.comeEarlier(lock),
      ),
      about('interlock.unlock', 'Unlock the chosen key that waits, and move it', (lock) =>
        this.hands.unlock(lock),
      ),
      onItem<Interlock>({
        id: 'interlock.measure',
        label: 'Measure how near the chosen key’s part and what it waits for come to each other',
        group: 'Keys',
        meant: () => this.meant(),
        when: (lock) => this.clearances.pairOf(lock) !== null,
        run: (lock) => this.clearances.measure(lock),
      }),
      about('interlock.remove', 'Untie the chosen key', (lock) => this.hands.remove(lock)),
    ];
  }

  private meant(): Interlock | null {
    return this.studio.project()?.interlocks.find((lock) => this.hands.isPicked(lock)) ?? null;
  }
}
