import { Injectable, inject } from '@angular/core';
import { changeInterlock, interlockStanding, shiftFrame, type Interlock, type Project } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { shownFrame } from '../../../ui/amount';
import type { Drag } from '../../../ui/follow-drag';
import { InterlockHands } from '../../interlock/interlock-hands';
import { ChartModel } from '../../plot/chart-model';
import { NOTHING_SHOWN } from '../../plot/drag';
import { frameAt, xOf } from '../../plot/plot';
import type { Draggable, Hand, HitScene } from './draggable';

interface ThreadPart {
  readonly kind: 'thread';
  readonly lock: Interlock;
}

/** How near the bar's end is meant, in pixels: it is 16 wide to grip. */
const GRIP = 8;

/** The thread of an interlock: the end of its bar is dragged for another gap; a press chooses the key that waits. */
@Injectable({ providedIn: 'root' })
export class ThreadHand implements Hand<ThreadPart> {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);
  private readonly hands = inject(InterlockHands);

  begin(_scene: HitScene, down: PointerEvent, { lock }: ThreadPart): Drag {
    this.hands.pick(lock);
    const from = frameAt(this.model.plot(), down.offsetX);
    return {
      move: (event) => {
        if (this.studio.readOnly()) return;
        const by = Math.round(frameAt(this.model.plot(), event.offsetX) - from);
        const gap = shiftFrame(lock.gap, by);
        const edit = (project: Project) => {
          const made = changeInterlock(project, lock.id, { gap });
          return made.ok ? made.value : project;
        };
        const text = `${shownFrame(lock.gap)} → ${shownFrame(gap)} f`;
        const chip = { x: event.offsetX, y: event.offsetY, text };
        this.model.showDrag({ label: 'Gap of a tied key', edit }, { ...NOTHING_SHOWN, chip });
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
    };
  }
}

export const thread: Draggable<ThreadPart> = {
  kind: 'thread',
  areas: ['ticks'],
  cursor: 'ew-resize',
  hit: ({ plot, project }, { x, row }) => {
    if (row?.kind !== 'thread') return null;
    const { due } = interlockStanding(project, row.lock);
    return due !== null && Math.abs(x - xOf(plot, due)) <= GRIP ? { kind: 'thread', lock: row.lock } : null;
  },
  hand: ThreadHand,
};
