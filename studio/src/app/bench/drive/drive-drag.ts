import { Injectable, inject, signal } from '@angular/core';
import { addDriver } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { followDrag } from '../../ui/follow-drag';
import { swallowClick } from '../../ui/swallow-click';
import { channelLabel } from '../stage/channel-label';

/** A channel's row on its way to another: what letting go would do, beside the pointer. */
export interface DriveShown {
  readonly title: string;
  readonly words: string;
  readonly refused: boolean;
  readonly x: number;
  readonly y: number;
  /** The channel it would be let go on. */
  readonly over: string | null;
}

/** What the menu of driving is asked for: the channel that is to be driven, and by what; null: that is picked later. */
export interface DriveAsked {
  readonly target: string;
  readonly input: string | null;
  readonly x: number;
  readonly y: number;
}

/** A press that moved less than this, in pixels, picks the row. */
const SLOP = 5;

/** Rows of channels dragged onto others: the dragged one will follow the one it is let go on, in a way that a menu asks for. */
@Injectable({ providedIn: 'root' })
export class DriveDrag {
  private readonly studio = inject(Studio);
  readonly shown = signal<DriveShown | null>(null);
  readonly asked = signal<DriveAsked | null>(null);
  private lastRing: { readonly key: string; readonly ring: boolean } | null = null;

  press(down: PointerEvent, channel: string): void {
    if (down.button !== 0 || this.studio.readOnly()) return;
    let dragging = false;
    this.lastRing = null;
    followDrag({
      move: (event) => {
        dragging ||= Math.hypot(event.clientX - down.clientX, event.clientY - down.clientY) > SLOP;
        if (dragging) this.shown.set(this.told(channel, event));
      },
      end: () => {
        const shown = this.shown();
        this.shown.set(null);
        if (!dragging) return;
        swallowClick();
        if (shown?.over && !shown.refused)
          this.asked.set({ target: channel, input: shown.over, x: shown.x, y: shown.y });
      },
      cancel: () => this.shown.set(null),
    });
  }

  private told(channel: string, { clientX: x, clientY: y }: PointerEvent): DriveShown {
    const project = this.studio.project();
    const row = document.elementFromPoint(x, y)?.closest<HTMLElement>('[data-kind="channel"]');
    const over = row?.dataset['row'] ?? null;
    const name = project ? channelLabel(project, channel).full : channel;
    if (!project || over === null || over === channel)
      return {
        title: name,
        words: 'let go on the row of another channel: this one follows it',
        refused: true,
        x,
        y,
        over,
      };
    if (this.isRing(channel, over))
      return {
        title: `${channelLabel(project, over).full} reads ${name} itself`,
        words: 'a ring: neither could begin',
        refused: true,
        x,
        y,
        over,
      };
    return {
      title: `${name} will follow ${channelLabel(project, over).full}`,
      words: 'how is asked when it is let go',
      refused: false,
      x,
      y,
      over,
    };
  }

  /** Whether the one could not be driven by the other; asked once a row that the pointer comes to. */
  private isRing(target: string, input: string): boolean {
    const project = this.studio.project();
    const key = `${target} ${input}`;
    if (project && this.lastRing?.key !== key)
      this.lastRing = { key, ring: !addDriver(project, 'echo', target, { input }).ok };
    return this.lastRing?.ring ?? false;
  }

  /** The menu of a channel's row: what drives it is picked after the way is chosen. */
  ask(target: string, { clientX, clientY }: MouseEvent): void {
    const row = document.querySelector(`[data-row="${CSS.escape(target)}"]`)?.getBoundingClientRect();
    const byKey = clientX === 0 && clientY === 0 && row;
    this.asked.set({
      target,
      input: null,
      x: byKey ? row.left + 40 : clientX,
      y: byKey ? row.bottom : clientY,
    });
  }
}
