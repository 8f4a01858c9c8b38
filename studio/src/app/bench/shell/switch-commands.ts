import { Injectable, inject } from '@angular/core';
import { switching, type Command } from '../../commands/command';
import { Studio } from '../../state/studio';

/** Commands that switch settings of the Bench on and off: Capture, what things snap to, how the view is drawn, how it plays. */
@Injectable({ providedIn: 'root' })
export class SwitchCommands {
  private readonly studio = inject(Studio);

  list(): readonly Command[] {
    return [...this.capture(), ...this.snapping(), ...this.looks(), this.loop()];
  }

  private capture(): Command[] {
    const { studio } = this;
    const part = (
      id: string,
      label: string,
      name: 'on' | 'startNew' | 'markStart' | 'markEnd',
      shortcuts: readonly string[] = [],
    ) =>
      switching(
        { id, label, group: 'Keys', shortcuts },
        () => studio.bench().capture[name],
        (on) => studio.set({ capture: { ...studio.bench().capture, [name]: on } }),
      );
    return [
      part('key.capture', 'Capture on or off', 'on', ['C']),
      part('key.start-new', 'Capture may start new channels, or not', 'startNew'),
      part('key.mark-start', 'Capture marks the start of a channel, or not', 'markStart'),
      part('key.mark-end', 'Capture marks the end of a channel, or not', 'markEnd'),
    ];
  }

  private snapping(): Command[] {
    const { studio } = this;
    const to = (name: 'markers' | 'keys', label: string) =>
      switching(
        { id: `snap.${name}`, label, group: 'Time' },
        () => studio.bench().snap[name],
        (on) => studio.set({ snap: { ...studio.bench().snap, [name]: on } }),
      );
    return [
      this.flag('snap.frames', 'Keys and playhead land on whole frames, or anywhere', 'Time', 'wholeFrames'),
      to('markers', 'Snap to markers, or not'),
      to('keys', 'Snap to keys of other rows, or not'),
    ];
  }

  private looks(): Command[] {
    const { studio } = this;
    return [
      this.flag('view.trail', 'Motion trail on or off', 'View', 'trail', 'T'),
      this.flag('view.ghosts', 'Ghosts on or off', 'View', 'ghosts', 'G'),
      this.flag(
        'view.keep-in-sight',
        'Keep what is chosen in sight while it plays',
        'View',
        'keepInSight',
        'Y',
      ),
      this.flag('view.beside', 'The shot beside the working view, or not', 'View', 'beside', 'Shift+V'),
      this.flag('view.depth', 'Focus blur of the camera looked through, or none', 'View', 'depthOfField'),
      this.flag('view.fly', 'Fly the camera looked through, or leave it be', 'View', 'fly', 'Shift+Y'),
      this.flag('play.every-frame', 'Play every frame, or in real time', 'Play', 'playEveryFrame'),
      switching(
        { id: 'pose.steps', label: 'Grips go in steps, or freely', group: 'Pose' },
        () => studio.bench().steps.on,
        (on) => studio.set({ steps: { ...studio.bench().steps, on } }),
      ),
    ];
  }

  /** The shot’s range as a loop: an edit, as it is in the file. */
  private loop(): Command {
    const { studio } = this;
    return {
      ...switching(
        { id: 'shot.loop', label: 'The range is a loop, or not', group: 'Time' },
        () => studio.project()?.range.loop ?? false,
        (loop) =>
          studio.edit('The range as a loop', (project) => ({
            ...project,
            range: { ...project.range, loop },
          })),
      ),
      when: () => !studio.readOnly(),
    };
  }

  private flag(
    id: string,
    label: string,
    group: Command['group'],
    name:
      | 'trail'
      | 'ghosts'
      | 'keepInSight'
      | 'beside'
      | 'depthOfField'
      | 'fly'
      | 'playEveryFrame'
      | 'wholeFrames',
    ...shortcuts: readonly string[]
  ): Command {
    return switching(
      { id, label, group, shortcuts },
      () => this.studio.bench()[name],
      (on) => this.studio.set({ [name]: on }),
    );
  }
}
