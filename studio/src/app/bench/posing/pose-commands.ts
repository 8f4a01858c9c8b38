import { Injectable, inject } from '@angular/core';
import type { Pose } from '@kaizen/core';
import { onItem, type Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { Poser } from './poser';
import type { KeyWhich } from './key-here';
import { PoseTools } from './pose-tools';

const KEYED: readonly { readonly which: KeyWhich; readonly label: string }[] = [
  { which: 'place', label: 'Key place here' },
  { which: 'turn', label: 'Key turn here' },
  { which: 'size', label: 'Key size here' },
  { which: 'part', label: 'Key the whole part here' },
  { which: 'below', label: 'Key the part with all below it here' },
  { which: 'animated', label: 'Key what is animated of the part and below it here' },
  { which: 'existing', label: 'Update the keys at the playhead' },
];

/** Commands of poses: copying, mirroring, the shelf, poses held, and the other ways of keying here. */
@Injectable({ providedIn: 'root' })
export class PoseCommands {
  private readonly studio = inject(Studio);
  private readonly tools = inject(PoseTools);
  private readonly poser = inject(Poser);
  readonly keyed = KEYED;

  list(): readonly Command[] {
    const editable = () => !this.studio.readOnly();
    const hasParts = () => this.studio.bench().parts.length > 0;
    const newest = () => this.studio.project()?.poses.at(-1) ?? null;
    const shelf = { group: 'Pose', meant: newest, when: editable } as const;
    const pastes = () => editable() && this.tools.copied() !== null;
    return [
      ...KEYED.map(({ which, label }): Command => ({
        id: `key.${which}`,
        label,
        group: 'Keys',
        when: editable,
        run: () => this.poser.keyHere(which),
      })),
      {
        id: 'pose.copy',
        label: 'Copy the pose',
        group: 'Pose',
        shortcuts: ['Ctrl+Shift+C'],
        when: hasParts,
        run: () => this.tools.copy(),
      },
      {
        id: 'pose.paste',
        label: 'Paste the pose',
        group: 'Pose',
        shortcuts: ['Ctrl+Shift+V'],
        when: pastes,
        run: () => this.tools.paste(false),
      },
      {
        id: 'pose.paste-mirrored',
        label: 'Paste the pose mirrored',
        group: 'Pose',
        shortcuts: ['Ctrl+Shift+X'],
        when: pastes,
        run: () => this.tools.paste(true),
      },
      {
        id: 'pose.keep',
        label: 'Keep the pose on the shelf',
        group: 'Pose',
        when: () => editable() && hasParts(),
        run: () => this.tools.keep(),
      },
      onItem<Pose>({
        ...shelf,
        id: 'pose.use',
        label: 'Use the pose kept last',
        run: (pose) => this.tools.use(pose, false),
      }),
      onItem<Pose>({
        ...shelf,
        id: 'pose.use-mirrored',
        label: 'Use the pose kept last, mirrored',
        run: (pose) => this.tools.use(pose, true),
      }),
      onItem<Pose>({
        ...shelf,
        id: 'pose.off-shelf',
        label: 'Take the pose kept last off the shelf',
        run: (pose) => this.tools.remove(pose),
      }),
      {
        id: 'pose.with-below',
        label: 'Poses go with all below the picked parts, or not',
        group: 'Pose',
        on: () => this.tools.withChildren(),
        run: () => this.tools.withChildren.update((on) => !on),
      },
      {
        id: 'pose.release',
        label: 'Release a span of the poses held',
        group: 'Pose',
        when: () => this.studio.bench().held.released === null,
        run: () => this.tools.release(),
      },
      {
        id: 'pose.hold-all',
        label: 'Hold the poses of the whole shot',
        group: 'Pose',
        when: () => this.studio.bench().held.released !== null,
        run: () => this.tools.holdAll(),
      },
      {
        id: 'pose.held',
        label: 'Poses held on or off',
        group: 'Pose',
        shortcuts: ['Shift+H'],
        on: () => this.studio.bench().held.on,
        run: () => this.tools.toggleHeld(),
      },
    ];
  }
}
