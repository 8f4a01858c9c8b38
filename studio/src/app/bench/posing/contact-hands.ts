import { Injectable, inject } from '@angular/core';
import { channelName, extentOf, fallOnto, partOf, translateOf, type Extent, type Part } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownNumber } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { PartPicker } from '../stage/picker';
import { ModelMeshes } from '../stage/model-meshes';
import { Stage } from '../stage/stage';
import { Poser } from './poser';

/** Contact by hand: where a part's lowest point is, and setting it down on the floor or on another part. */
@Injectable({ providedIn: 'root' })
export class ContactHands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly picker = inject(PartPicker);
  private readonly notices = inject(Notices);
  private readonly models = inject(ModelMeshes);

  /** The part with all that rides on it, as it is at the playhead; null where it has no mesh that is known. */
  extent(part: Part): Extent | null {
    const now = this.stage.now();
    const project = this.stage.shown();
    return now && project ? extentOf(project, now.program, now.out, part.id, this.models.of) : null;
  }

  /** The part moves straight up or down until its lowest point, squashed as it is, is on the floor. */
  setDown(part: Part): void {
    const project = this.studio.project();
    const extent = this.extent(part);
    if (project && extent) this.moveBy(part, project.floor - extent.lowest[1], 'the floor');
    else this.notices.warn(`${part.name} has no mesh whose lowest point is known. Nothing was changed.`);
  }

  askSetDown(part: Part): void {
    this.picker.ask({
      words: `Pick what ${part.name} is set down on`,
      refuse: (onto) =>
        onto === part.id ? `${part.name} itself is no answer: pick what lies below it` : null,
      take: (onto) => this.setDownOn(part, onto),
    });
  }

  private setDownOn(part: Part, onto: string): void {
    const now = this.stage.now();
    const project = this.stage.shown();
    if (!now || !project) return;
    const name = partOf(project, onto)?.name ?? onto;
    const fall = fallOnto(project, now.program, now.out, part.id, onto, this.models.of);
    if (fall === null)
      this.notices.warn(`${part.name} is not above ${name}: nothing of it is under it. Nothing was changed.`);
    else this.moveBy(part, -fall, name);
  }

  private moveBy(part: Part, by: number, onto: string): void {
    const now = this.stage.now();
    if (!now) return;
    const { structure } = now.program;
    const i = structure.partIndex.get(part.id)!;
    const above = structure.hierarchy.parents[i]!;
    const shift = translateOf([0, by, 0], above >= 0 ? now.out.world[above]! : null);
    const values = [0, 1, 2].flatMap((n) =>
      shift[n] === 0
        ? []
        : [
            {
              channel: channelName(part.id, `translate.${'xyz'.charAt(n)}`),
              value: now.out.channels[structure.firstSlot[i]! + n]! + shift[n]!,
            },
          ],
    );
    if (values.length === 0) this.notices.tell(`${part.name} stands on ${onto} already`);
    else this.poser.take(`Set down ${part.name}`, values);
    if (values.length > 0)
      this.notices.tell(`${part.name} stands on ${onto}: it moved by ${shownNumber(by, 3)} m`);
  }
}
