import { Injectable, inject } from '@angular/core';
import { insertTrailKeys, moveTrailKey, trailChannels } from '@kaizen/core';
import { Vector3 } from 'three';
import { Studio } from '../../../state/studio';
import { shownFrame, shownNumber } from '../../../ui/amount';
import { Notices } from '../../../ui/notices';
import { Proposals } from '../../stage/proposals';
import { Stage } from '../../stage/stage';
import { onPlane, rayThrough, toScreen, type Eye } from '../grip-math';
import type { Bead } from '../trail';
import { ViewAsked } from '../view-asked';
import { ViewDraggable, type At, type Found, type ViewDrag } from './draggable';

const REACH = 9;

/** The motion trail under the hand: its keys are picked and dragged in the view, and a double click on a bead adds one. */
@Injectable({ providedIn: 'root' })
export class TrailKey extends ViewDraggable<Bead> {
  readonly cursor = 'grab';
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly asked = inject(ViewAsked);
  private readonly proposals = inject(Proposals);
  private readonly notices = inject(Notices);

  /** The scene draws the trail itself, among the parts. */
  draw(): readonly [] {
    return [];
  }

  override hit(eye: Eye, at: At): Found<Bead> | null {
    const bead = this.beadAt(eye, at, true);
    const hint = 'Drag to move this key along the channels that have one here';
    return bead && { target: bead, name: `key ${bead.frame}`, hint };
  }

  /** The bead of the trail on show that is nearest to a place of the view, within reach. */
  beadAt(eye: Eye, { x, y }: At, keysOnly: boolean): Bead | null {
    if (!this.asked.trailShown()) return null;
    let best: { bead: Bead; distance: number } | null = null;
    for (const bead of this.asked.beads()) {
      if (keysOnly && !bead.key) continue;
      const at = toScreen(eye, bead.place);
      const distance = at ? Math.hypot(at.x - x, at.y - y) : Infinity;
      if (distance <= REACH && distance < (best?.distance ?? Infinity)) best = { bead, distance };
    }
    return best?.bead ?? null;
  }

  private channels(): readonly string[] {
    const project = this.studio.project();
    const program = this.stage.program();
    const part = this.studio.bench().parts.at(-1);
    return project && program && part !== undefined ? trailChannels(project, program, part) : [];
  }

  /** Picks the keys of a bead; their places can then be typed in the sheet Key. */
  private pickKeys(frame: number): void {
    const project = this.studio.project();
    if (!project) return;
    const keys = this.channels().map((channel) => ({ channel, frame }));
    this.studio.pick({ keys, handles: [] });
    this.studio.set({ sheet: 'key' });
  }

  /** Drags the keys of a bead across the view; the beads beside it move as the curve does. */
  begin(eye: Eye, down: At, bead: Bead): ViewDrag | null {
    const project = this.studio.project();
    const program = this.stage.program();
    const part = this.studio.bench().parts.at(-1);
    if (!project || !program || part === undefined) return null;
    const facing = new Vector3().setFromMatrixPosition(eye.camera.matrixWorld).sub(bead.place).normalize();
    const placeOf = ({ x, y }: At) => onPlane(rayThrough(eye, x, y), bead.place, facing);
    const from = placeOf(down);
    const name = `f ${shownFrame(bead.frame)}`;
    return {
      move: (at) => {
        const to = placeOf(at);
        if (!from || !to || this.studio.readOnly()) return name;
        const shift = to.sub(from);
        this.proposals.show({
          label: `Move the key at ${name} on the trail`,
          edit: (now) => moveTrailKey(now, program, part, bead.frame, [shift.x, shift.y, shift.z]),
        });
        return `${name}, moved ${shownNumber(shift.length(), 3)} m`;
      },
      end: () => {
        const shown = this.proposals.result();
        this.proposals.take();
        if (shown?.project === project)
          this.notices.tell('Only channels that have keys move on the trail; none of these goes that way');
        this.pickKeys(bead.frame);
      },
      cancel: () => this.proposals.drop(),
    };
  }

  /** A key at a bead, without changing the way. */
  addKey(bead: Bead): void {
    const channels = this.channels();
    if (channels.length === 0 || this.studio.readOnly()) return;
    this.studio.edit(`Add a key at f ${shownFrame(bead.frame)} on the trail`, (project) =>
      insertTrailKeys(project, channels, bead.frame),
    );
    this.pickKeys(bead.frame);
  }
}
