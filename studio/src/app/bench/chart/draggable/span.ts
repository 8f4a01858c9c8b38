import { Injectable, inject } from '@angular/core';
import { changeConstraint, constraintSpan, moveSpan, type Constraint, type Project } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { shownFrame } from '../../../ui/amount';
import type { Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { NOTHING_SHOWN } from '../../plot/drag';
import { frameAt, xOf } from '../../plot/plot';
import type { Draggable, Hand, HitScene } from './draggable';

interface SpanPart {
  readonly kind: 'span';
  readonly constraint: Constraint;
  readonly end: 'start' | 'end' | 'both';
}

/** How near a stop is meant, in pixels: it is 16 wide to grip. */
const GRIP = 8;

/** The bar of a constraint in its row: dragged by a stop it begins or ends on another frame, in between it moves as a whole. */
@Injectable({ providedIn: 'root' })
export class SpanHand implements Hand<SpanPart> {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);

  begin(_scene: HitScene, down: PointerEvent, { constraint, end }: SpanPart): Drag {
    this.studio.pick({ parts: [constraint.part], channels: [], keys: [], handles: [] });
    this.studio.set({ sheet: 'links' });
    const from = frameAt(this.model.plot(), down.offsetX);
    return {
      move: (event) => {
        if (this.studio.readOnly()) return;
        const by = Math.round(frameAt(this.model.plot(), event.offsetX) - from);
        const wish = moveSpan(constraint, end, by);
        const edit = (project: Project) => {
          const made = changeConstraint(project, constraint.id, wish);
          return made.ok ? made.value : project;
        };
        const words = Object.entries(wish).map(([name, value]) => `${name} f ${shownFrame(Number(value))}`);
        const chip = {
          x: event.offsetX,
          y: event.offsetY,
          text: `${words.join(', ')} (${by < 0 ? '−' : '+'}${Math.abs(by)})`,
        };
        this.model.showDrag({ label: `Span of ${constraint.kind}`, edit }, { ...NOTHING_SHOWN, chip });
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
    };
  }
}

export const span: Draggable<SpanPart> = {
  kind: 'span',
  areas: ['ticks'],
  cursor: 'ew-resize',
  hit: ({ plot }, { x, row }) => {
    if (row?.kind !== 'span') return null;
    const { constraint } = row;
    const frames = constraintSpan(constraint);
    if (!frames || !('end' in constraint)) return null;
    const start = xOf(plot, constraint.start);
    const end = constraint.end === null ? Infinity : xOf(plot, constraint.end);
    if (Math.abs(x - end) <= GRIP && (x > (start + end) / 2 || start === end))
      return { kind: 'span', constraint, end: 'end' };
    if (Math.abs(x - start) <= GRIP) return { kind: 'span', constraint, end: 'start' };
    return x > start && x < end ? { kind: 'span', constraint, end: 'both' } : null;
  },
  hand: SpanHand,
};
