import { Injectable, inject } from '@angular/core';
import type { Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { Poser } from '../poser';
import type { KeyWhich } from '../key-here';
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
