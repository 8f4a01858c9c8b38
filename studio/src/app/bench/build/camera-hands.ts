import { Injectable, inject } from '@angular/core';
import {
  channelName,
  focusDriver,
  inWorld,
  keepFocusOn,
  letFocusGo,
  partOf,
  type CameraBlock,
  type Part,
  type Project,
  type Result,
  type Vec3,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownNumber } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { Poser } from '../posing/poser';
import { PartPicker } from '../stage/picker';
import { Stage } from '../stage/stage';
import { ViewControl } from '../stage/view-control';

export type CameraPart = Part & { readonly kind: 'camera'; readonly camera: CameraBlock };

/** What a hand does with a camera of the shot: looking through it, and what it is focused on. */
@Injectable({ providedIn: 'root' })
export class CameraHands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly picker = inject(PartPicker);
  private readonly notices = inject(Notices);
  private readonly view = inject(ViewControl);

  /** The name of the part that a camera is kept sharp on, or null. */
  keptOn({ id }: CameraPart): string | null {
    const project = this.stage.shown();
    const driver = project && focusDriver(project, id);
    return driver ? (partOf(project, driver.to)?.name ?? driver.to) : null;
  }

  isThrough({ id }: CameraPart): boolean {
    return this.view.shot() === id;
  }

  /** Looks through a camera, or no more. */
  look(camera: CameraPart): void {
    this.view.shot.set(this.isThrough(camera) ? null : camera.id);
  }

  askFocus(camera: CameraPart): void {
    this.picker.ask({
      words: `Pick what ${camera.name} is focused on`,
      refuse: (part) => refusal(camera, part),
      take: (part, place) => this.focusOn(camera, part, place),
    });
  }

  /** The place that was pressed on, or, of a row, the part's pivot. */
  private focusOn({ id, name }: CameraPart, part: string, place: Vec3 | null): void {
    const lens = this.pivotOf(id);
    const thing = place ?? this.pivotOf(part);
    if (!lens || !thing) return;
    const distance = Math.hypot(thing[0] - lens[0], thing[1] - lens[1], thing[2] - lens[2]);
    this.poser.take(`Focus of ${name}`, [
      { channel: channelName(id, 'camera.focusDistance'), value: distance },
    ]);
    this.notices.tell(`Focused at ${shownNumber(distance, 3)} m`);
  }

  private pivotOf(id: string): Vec3 | null {
    const now = this.stage.now();
    const i = now?.program.structure.partIndex.get(id);
    if (!now || i === undefined) return null;
    return inWorld(now.out.world[i]!, now.program.structure.parts[i]!.pivot);
  }

  askKeep(camera: CameraPart): void {
    const { id, name } = camera;
    this.picker.ask({
      words: `Pick what ${name} is kept sharp on`,
      refuse: (part) => refusal(camera, part),
      take: (part) => this.edit(`Focus of ${name}`, (project) => keepFocusOn(project, id, part)),
    });
  }

  /** Its focus is its own again. */
  letGo({ id, name }: CameraPart): void {
    this.edit(`Focus of ${name}`, (project) => letFocusGo(project, id));
  }

  private edit(label: string, edit: (project: Project) => Result<Project>): void {
    const project = this.studio.project();
    if (!project) return;
    const made = edit(project);
    if (made.ok) this.studio.edit(label, () => made.value);
    else this.notices.warn(`${made.problems[0]?.message ?? 'That can’t be'}. Nothing was changed.`);
  }
}

function refusal({ id }: CameraPart, part: string): string | null {
  return part === id ? 'the camera itself is no answer: pick a thing it sees' : null;
}
