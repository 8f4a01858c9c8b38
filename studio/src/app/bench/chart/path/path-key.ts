import { inject, Injectable } from '@angular/core';
import { mapKeyPlaces, type Project } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import { shownFrame, shownNumber } from '../../../ui/amount';
import type { Drag } from '../../../ui/follow-drag';
import { ChartModel } from '../../plot/chart-model';
import type { Ink } from '../../plot/ink';
import { pathKeys, placeAt, type PathKeyAt, type PathScene } from './path-scene';

const REACH = 8;

/** A key on the path: drawn as a disc, found under the pointer, and dragged on both channels at once. */
@Injectable({ providedIn: 'root' })
export class PathKey {
  readonly cursor = 'grab';
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);

  draw(pen: CanvasRenderingContext2D, ink: Ink, { plane, project, program, channels }: PathScene): void {
    const chosen = new Set(this.model.look().keys.map(({ channel, frame }) => `${channel}@${frame}`));
    for (const { frame, refs } of pathKeys(project, channels)) {
      const [x, y] = placeAt(program, channels, frame);
      const on = refs.some(({ channel }) => chosen.has(`${channel}@${frame}`));
      pen.fillStyle = on ? ink.select : ink.sheet;
      pen.strokeStyle = on ? ink.select : ink.tones.x;
      pen.lineWidth = 1.6;
      pen.beginPath();
      pen.arc(plane.x(x), plane.y(y), on ? 5 : 3.8, 0, Math.PI * 2);
      pen.fill();
      pen.stroke();
    }
  }

  hit({ plane, project, program, channels }: PathScene, x: number, y: number): PathKeyAt | null {
    const near = ({ frame }: PathKeyAt) => {
      const [across, up] = placeAt(program, channels, frame);
      return Math.hypot(plane.x(across) - x, plane.y(up) - y) <= REACH;
    };
    return pathKeys(project, channels).find(near) ?? null;
  }

  begin({ plane, program, channels }: PathScene, down: PointerEvent, { frame, refs }: PathKeyAt): Drag {
    return {
      move: (event) => {
        const by = [
          (event.clientX - down.clientX) / plane.scale,
          -(event.clientY - down.clientY) / plane.scale,
        ] as const;
        const edit = (now: Project) =>
          mapKeyPlaces(now, refs, (key, channel) => ({
            frame: key.frame,
            value: key.value + by[channels.indexOf(channel)]!,
          }));
        const text = `f ${shownFrame(frame)} · ${shownNumber(by[0], 3)}, ${shownNumber(by[1], 3)} m`;
        this.model.showDrag(
          { label: 'Move a key of the path', edit },
          {
            chip: { x: this.model.plot().time(frame), y: event.offsetY, text },
            box: null,
            old: program,
            channels,
          },
        );
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
    };
  }

  /** Picks a key; its numbers are then in the sheet Key. */
  pick(key: PathKeyAt | null): void {
    this.studio.pick({ keys: key?.refs ?? [], handles: [] });
    if (key && !this.studio.readOnly()) this.studio.set({ sheet: 'key' });
  }
}
