import { Injectable, inject } from '@angular/core';
import { curveOf, handlePlace, type HandleRef, type Project } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import type { Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import { firstKeyFrom } from '../../plot/pegs';
import { frameAt, valueAt, xOf, yOf, type Strip } from '../../plot/plot';
import { draggedHandles, handleChip } from './key-drag';
import { channelsOf, near, type Draggable, type Hand, type HitScene } from './draggable';

interface HandleHeld {
  readonly kind: 'handle';
  readonly handle: HandleRef;
  readonly strip: Strip;
}
/** No handle shown is longer than this, in pixels. */
const LONGEST = 4000;

/** The end of a chosen key's handle: its slope and reach, and those of all chosen handles by the same difference. */
@Injectable({ providedIn: 'root' })
export class HandleHand implements Hand<HandleHeld> {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);

  begin({ bench, project, program }: HitScene, down: PointerEvent, { handle, strip }: HandleHeld): Drag {
    const adding = down.ctrlKey || down.metaKey;
    const same = (other: HandleRef) =>
      other.channel === handle.channel && other.frame === handle.frame && other.side === handle.side;
    const chosen = bench.handles.some(same);
    const without = () => bench.handles.filter((other) => !same(other));
    const added = () => (chosen ? without() : [...bench.handles, handle]);
    const handles = adding ? added() : chosen ? bench.handles : [handle];
    this.studio.pick({ handles });
    this.studio.set({ sheet: 'key' });
    const unit = strip.labels[strip.channels.indexOf(handle.channel)]?.unit ?? '';
    const label = handles.length === 1 ? 'Move a handle' : `Move ${handles.length} handles`;
    return {
      move: (event) => {
        if (this.studio.readOnly() || (adding && chosen)) return;
        const travel = this.travel(down, event, strip);
        const leading = bench.shaping.together ? handle : null;
        const edit = (now: Project) => draggedHandles(now, handles, travel, leading);
        const text = handleChip(project, edit(project), handle, unit);
        const chip = { x: event.offsetX, y: event.offsetY, text };
        this.model.showDrag(
          { label, edit },
          { chip, box: null, old: program, channels: channelsOf(handles) },
        );
      },
      end: () => this.model.keepDrag(),
      cancel: () => {
        this.model.stopShowing();
        this.studio.pick({ handles: bench.handles });
      },
    };
  }

  /** How far the pointer went; with Shift along the axis on which it went further. */
  private travel(down: PointerEvent, event: PointerEvent, strip: Strip) {
    const plot = this.model.plot();
    const [dx, dy] = [event.clientX - down.clientX, event.clientY - down.clientY];
    const keepTime = event.shiftKey && Math.abs(dy) > Math.abs(dx);
    const keepValue = event.shiftKey && !keepTime;
    return {
      frames: keepTime ? 0 : frameAt(plot, dx) - plot.axis.first,
      value: keepValue ? 0 : valueAt(strip, strip.top + dy) - valueAt(strip, strip.top),
    };
  }
}

function hit({ plot, project, bench }: HitScene, strip: Strip, x: number, y: number): HandleHeld | null {
  const drawn = new Set(strip.channels);
  const within = [frameAt(plot, x - LONGEST), frameAt(plot, x + LONGEST)] as const;
  const open = [...bench.keys, ...bench.handles].filter(
    ({ channel, frame }) => frame >= within[0] && frame <= within[1] && drawn.has(channel),
  );
  for (const { channel, frame } of open) {
    const curve = curveOf(project, channel);
    if (!curve) continue;
    const i = firstKeyFrom(curve.keys, frame);
    if (curve.keys[i]?.frame !== frame) continue;
    for (const side of ['in', 'out'] as const) {
      const end = handlePlace(project, curve, i, side);
      if (end && near(xOf(plot, end.frame) - x, yOf(strip, end.value) - y))
        return { kind: 'handle', handle: { channel, frame, side }, strip };
    }
  }
  return null;
}

export const handle: Draggable<HandleHeld> = {
  kind: 'handle',
  areas: ['values'],
  cursor: 'grab',
  hit: (scene, { strip, x, y }) => strip && hit(scene, strip, x, y),
  hand: HandleHand,
};
