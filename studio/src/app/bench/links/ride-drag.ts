import { Injectable, inject, signal } from '@angular/core';
import { partOf } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownNumber } from '../../ui/amount';
import { followDrag } from '../../ui/follow-drag';
import { swallowClick } from '../../ui/swallow-click';
import { LinkHands } from './link-hands';
import { nameOf } from '../stage/said';
import { riddenWords } from './words';

/** Where a dragged row would be let go: on a part, beside one in the list, or on the scene. */
interface Landing {
  readonly on: string | null;
  readonly beside: { readonly part: string; readonly after: boolean } | null;
}

/** What a drag of a row would do, told before it is let go. */
export interface RideShown {
  readonly part: string;
  readonly landing: Landing | null;
  readonly title: string;
  readonly words: string;
  readonly jump: string;
  readonly refused: boolean;
  readonly x: number;
  readonly y: number;
}

/** A press that moved less than this, in pixels, picks the row. */
const SLOP = 5;
/** The upper and lower share of a row that stands for the place beside it. */
const BESIDE = 0.25;

/** Rows of parts dragged onto others: what is let go on a part rides on it, beside one it changes its place in the list. */
@Injectable({ providedIn: 'root' })
export class RideDrag {
  private readonly studio = inject(Studio);
  private readonly hands = inject(LinkHands);
  readonly shown = signal<RideShown | null>(null);

  press(down: PointerEvent, part: string): void {
    if (down.button !== 0 || this.studio.readOnly()) return;
    let dragging = false;
    followDrag({
      move: (event) => {
        dragging ||= Math.hypot(event.clientX - down.clientX, event.clientY - down.clientY) > SLOP;
        if (dragging) this.show(part, event);
      },
      end: () => {
        const shown = this.shown();
        this.shown.set(null);
        if (!dragging) return;
        swallowClick();
        if (shown?.landing && !shown.refused) this.land(part, shown.landing);
      },
      cancel: () => this.shown.set(null),
    });
  }

  private show(part: string, event: PointerEvent): void {
    const landing = this.landingAt(part, event);
    const [x, y] = [event.clientX, event.clientY];
    const before = this.shown();
    if (before && isSame(before.landing, landing)) {
      this.shown.set({ ...before, x, y });
      return;
    }
    this.shown.set({ part, landing, ...this.told(part, landing), x, y });
  }

  private told(
    part: string,
    landing: Landing | null,
  ): Pick<RideShown, 'title' | 'words' | 'jump' | 'refused'> {
    const project = this.studio.project();
    const nothing = { words: 'let go on a row: it rides on that part', jump: '', refused: true };
    if (!project) return { title: '', ...nothing };
    const name = nameOf(project, part);
    if (!landing) return { title: name, ...nothing };
    const { on, beside } = landing;
    const refusal = this.hands.whyNot(part, on);
    if (refusal !== null)
      return { title: refusal, words: 'a part can’t ride on what rides on it', jump: '', refused: true };
    const place = beside
      ? `${beside.after ? 'after' : 'before'} ${nameOf(project, beside.part)} in the list`
      : '';
    if (partOf(project, part)?.parent === on)
      return { title: name, words: place || 'it rides there already', jump: '', refused: place === '' };
    const title =
      on === null ? `${name} will ride on nothing` : `${name} will ride on ${nameOf(project, on)}`;
    const ridden = this.hands.wouldRide(part, on);
    if (!ridden)
      return { title: name, words: 'that does not hold together: a ring', jump: '', refused: true };
    const words = riddenWords(ridden, this.hands.keeps());
    return {
      title,
      words: place === '' ? words : `${words}; ${place}`,
      jump: `jump ${shownNumber(ridden.jump * 1000, 1)} mm`,
      refused: false,
    };
  }

  private landingAt(part: string, event: PointerEvent): Landing | null {
    const row = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-part]');
    const over = row?.dataset['part'];
    const project = this.studio.project();
    if (!row || over === undefined || !project) return null;
    if (over === '') return { on: null, beside: null };
    const { top, height } = row.getBoundingClientRect();
    const share = (event.clientY - top) / height;
    const isBeside =
      row.dataset['kind'] === 'part' && over !== part && (share < BESIDE || share > 1 - BESIDE);
    if (!isBeside) return { on: over, beside: null };
    return { on: partOf(project, over)?.parent ?? null, beside: { part: over, after: share > 0.5 } };
  }

  private land(part: string, { on, beside }: Landing): void {
    this.hands.ride(part, on);
    if (beside) this.hands.place(part, beside.part, beside.after);
  }
}

function isSame(a: Landing | null, b: Landing | null): boolean {
  return (
    a?.on === b?.on &&
    a?.beside?.part === b?.beside?.part &&
    a?.beside?.after === b?.beside?.after &&
    !a === !b
  );
}
