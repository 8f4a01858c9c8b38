import { Injectable, inject } from '@angular/core';
import { putMarker, shiftFrame, type Marker } from '@kaizen/core';
import type { Drag } from '../../../ui/follow-drag';
import { MARKER_ROW, RULER, xOf } from '../../plot/plot';
import { markerBox, nameWidth } from '../../ruler/draw-marks';
import { RulerTools } from '../../ruler/ruler-tools';
import type { Draggable, Hand, HitScene } from './draggable';
import { Slide } from './slide';

interface MarkerHeld {
  readonly kind: 'marker';
  readonly marker: Marker;
  readonly end: 'start' | 'end' | 'whole';
}

/** A marker under the ruler: moved as a whole, or by one of its ends. */
@Injectable({ providedIn: 'root' })
export class MarkerHand implements Hand<MarkerHeld> {
  private readonly slide = inject(Slide);
  private readonly ruler = inject(RulerTools);

  begin(_: HitScene, down: PointerEvent, { marker, end }: MarkerHeld): Drag {
    const grabbed = end === 'end' ? (marker.end ?? marker.frame) : marker.frame;
    this.ruler.pick(marker.id);
    return this.slide.begin(down, grabbed, `Move the marker “${marker.name}”`, (project, by) =>
      putMarker(project, movedMarker(marker, end, by)),
    );
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

/** Those drawn last lie on top. */
function hit({ plot, project }: HitScene, x: number, y: number): MarkerHeld | null {
  if (y >= RULER + MARKER_ROW) return null;
  const marker = project.markers.findLast((each) => {
    const { left, right } = markerBox(plot, each, nameWidth(each));
    return x >= left - 3 && x <= right + 3;
  });
  if (!marker) return null;
  const onStart = marker.end !== null && Math.abs(x - xOf(plot, marker.frame)) <= 4;
  const onEnd = marker.end !== null && Math.abs(x - xOf(plot, marker.end)) <= 4;
  return { kind: 'marker', marker, end: onEnd ? 'end' : onStart ? 'start' : 'whole' };
}

export const marker: Draggable<MarkerHeld> = {
  kind: 'marker',
  areas: ['marks'],
  cursor: 'grab',
  hit: (scene, { x, y }) => hit(scene, x, y),
  hand: MarkerHand,
};
