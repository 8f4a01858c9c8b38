import { Injectable, inject } from '@angular/core';
import type { Interlock } from '@kaizen/core';
import { onItem, type Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { InterlockHands } from './interlock-hands';

/** Keys that wait for each other: tied, muted, untied. */
@Injectable({ providedIn: 'root' })
export class InterlockCommands {
  private readonly studio = inject(Studio);
  private readonly hands = inject(InterlockHands);

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
    return [
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
      about('interlock.remove', 'Untie the chosen key', (lock) => this.hands.remove(lock)),
    ];
  }

  private meant(): Interlock | null {
    return this.studio.project()?.interlocks.find((lock) => this.hands.isPicked(lock)) ?? null;
  }
}
