import { Injectable, inject } from '@angular/core';
import { cutsOf, cutTo, partOf, removeCut, type Cut } from '@kaizen/core';
import { onItem, type Command, type ItemCommand } from '../../commands/command';
import { Studio } from '../../state/studio';
import { Stage } from '../stage/stage';
import { THE_SHOT, ViewControl } from '../stage/view-control';
import { CameraHands, type CameraPart } from './camera-hands';

/** Commands about one camera, the one that a button says, else the chosen one; and about the cuts between cameras. */
@Injectable({ providedIn: 'root' })
export class CameraCommands {
  private readonly studio = inject(Studio);
  private readonly hands = inject(CameraHands);
  private readonly stage = inject(Stage);
  private readonly view = inject(ViewControl);

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
      about('camera.cut', 'Cut to the chosen camera at the playhead', {
        when: editable,
        run: ({ id, name }) => {
          const frame = this.stage.frame();
          this.studio.edit(`Cut to ${name}`, (project) => cutTo(project, id, frame));
        },
      }),
      ...this.cuts(),
      {
        id: 'view.shot',
        label: 'Watch the shot: look through whichever camera shows it',
        group: 'View',
        run: () => this.view.shot.set(THE_SHOT),
      },
    ];
  }

  private cuts(): readonly Command[] {
    const meant = () => {
      const project = this.stage.shown();
      return (project && cutsOf(project).findLast(({ frame }) => frame <= this.stage.frame())) ?? null;
    };
    return [
      onItem<Cut>({
        id: 'cut.go',
        label: 'Go to the cut that shows now',
        group: 'View',
        meant,
        run: ({ frame }) => this.stage.goTo(frame),
      }),
      onItem<Cut>({
        id: 'cut.remove',
        label: 'Take away the cut that shows now',
        group: 'View',
        meant,
        when: () => !this.studio.readOnly(),
        run: ({ frame }) => this.studio.edit('Remove a cut', (project) => removeCut(project, frame)),
      }),
    ];
  }

  private meant(): CameraPart | null {
    const project = this.studio.project();
    const part = project && partOf(project, this.studio.bench().parts.at(-1) ?? '');
    return part?.kind === 'camera' ? part : null;
  }
}
