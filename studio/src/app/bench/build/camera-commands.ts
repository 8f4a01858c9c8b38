import { Injectable, inject } from '@angular/core';
import { partOf } from '@kaizen/core';
import { onItem, type Command, type ItemCommand } from '../../commands/command';
import { Studio } from '../../state/studio';
import { CameraHands, type CameraPart } from './camera-hands';

/** Commands about one camera: the one that a button says, else the chosen one. */
@Injectable({ providedIn: 'root' })
export class CameraCommands {
  private readonly studio = inject(Studio);
  private readonly hands = inject(CameraHands);

  list(): readonly Command[] {
    const { hands } = this;
    const editable = () => !this.studio.readOnly();
    const isKept = (camera: CameraPart) => hands.keptOn(camera) !== null;
    const about = (id: string, label: string, what: Pick<ItemCommand<CameraPart>, 'when' | 'on' | 'run'>) =>
      onItem<CameraPart>({ id, label, group: 'View', meant: () => this.meant(), ...what });
    return [
      about('camera.look', 'Look through the chosen camera, or no more', {
        on: (camera) => hands.isThrough(camera),
        run: (camera) => hands.look(camera),
      }),
      about('camera.focus-on', 'Focus the chosen camera on a thing that is picked, at this frame', {
        when: (camera) => editable() && !isKept(camera),
        run: (camera) => hands.askFocus(camera),
      }),
      about('camera.keep-on', 'Keep the chosen camera sharp on a part that is picked', {
        when: (camera) => editable() && !isKept(camera),
        run: (camera) => hands.askKeep(camera),
      }),
      about('camera.let-go', 'The focus of the chosen camera is its own again', {
        when: (camera) => editable() && isKept(camera),
        run: (camera) => hands.letGo(camera),
      }),
    ];
  }

  private meant(): CameraPart | null {
    const project = this.studio.project();
    const part = project && partOf(project, this.studio.bench().parts.at(-1) ?? '');
    return part?.kind === 'camera' ? part : null;
  }
}
