import { Injectable, inject } from '@angular/core';
import {
  changeSound,
  putMarker,
  shiftFrame,
  type Marker,
  type Project,
  type Sound,
  type TimeKnot,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { CLICK_SLOP, NOTHING_SHOWN, type Drag } from '../plot/drag';
import { ChartModel } from '../plot/chart-model';
import { frameAt } from '../plot/plot';
import { Snapper } from '../plot/snapper';
import { TimeTools } from '../time/time-tools';
import { RulerTools } from './ruler-tools';

/** Dragging what stands on the ruler: Stakes, markers with their ends, sounds. */
@Injectable({ providedIn: 'root' })
export class MarkDrags {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);
  private readonly snapper = inject(Snapper);
  private readonly time = inject(TimeTools);
  private readonly ruler = inject(RulerTools);

  stake(stake: TimeKnot, down: PointerEvent): Drag {
    const targets = this.snapper.targets();
    const offset = frameAt(this.model.plot(), down.offsetX) - stake.to;
    return {
      move: (event) => {
        const to = this.snapper.snap(frameAt(this.model.plot(), event.offsetX) - offset, targets, event);
        this.time.moveStake(stake, to);
      },
      end: () => undefined,
      cancel: () => this.time.moveStake(stake, stake.to),
    };
  }

  marker(marker: Marker, end: 'start' | 'end' | 'whole', down: PointerEvent): Drag {
    const grabbed = end === 'end' ? (marker.end ?? marker.frame) : marker.frame;
    this.ruler.pick(marker.id);
    return this.slide(down, grabbed, `Move the marker “${marker.name}”`, (project, by) =>
      putMarker(project, movedMarker(marker, end, by)),
    );
  }

  sound(sound: Sound, down: PointerEvent): Drag {
    this.ruler.pick(sound.id);
    return this.slide(down, sound.start, 'Move a sound', (project, by) =>
      changeSound(project, sound.id, { start: shiftFrame(sound.start, by) }),
    );
  }

  /** A drag along time: shown meanwhile, kept at its end as one edit. */
  private slide(
    down: PointerEvent,
    grabbed: number,
    label: string,
    change: (project: Project, by: number) => Project,
  ): Drag {
    const targets = this.snapper.targets();
    const offset = frameAt(this.model.plot(), down.offsetX) - grabbed;
    return {
      move: (event) => {
        if (this.studio.readOnly() || Math.abs(event.clientX - down.clientX) < CLICK_SLOP) return;
        const to = this.snapper.snap(frameAt(this.model.plot(), event.offsetX) - offset, targets, event);
        const by = shiftFrame(to, -grabbed);
        const text = `f ${shownFrame(grabbed)} → ${shownFrame(to)} (${by > 0 ? '+' : ''}${shownFrame(by)})`;
        this.model.showDrag(
          { label, edit: (now) => change(now, by) },
          { ...NOTHING_SHOWN, chip: { x: event.offsetX, y: event.offsetY, text } },
        );
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
    };
  }
}

/** A marker moved by some frames as a whole, or one of its ends; an end does not pass the other. */
export function movedMarker(marker: Marker, end: 'start' | 'end' | 'whole', by: number): Marker {
  const moved = (frame: number) => shiftFrame(frame, by);
  if (end === 'whole')
    return { ...marker, frame: moved(marker.frame), end: marker.end === null ? null : moved(marker.end) };
  if (end === 'start') return { ...marker, frame: Math.min(moved(marker.frame), marker.end ?? Infinity) };
  return { ...marker, end: Math.max(marker.frame, moved(marker.end ?? marker.frame)) };
}
