import { Injectable, inject } from '@angular/core';
import { addParts, addSun, newPart, removeParts, type NewPartKind } from '@kaizen/core';
import type { Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { ViewControl } from '../stage/view-control';

/** What can be added: a simple part, or a light that hour and day turn. */
type Added = NewPartKind | 'sun';

const ADDED: readonly { readonly kind: Added; readonly name: string }[] = [
  { kind: 'group', name: 'Group' },
  { kind: 'box', name: 'Box' },
  { kind: 'cylinder', name: 'Cylinder' },
  { kind: 'sphere', name: 'Sphere' },
  { kind: 'torus', name: 'Ring' },
  { kind: 'plane', name: 'Plane' },
  { kind: 'gear', name: 'Gear' },
  { kind: 'camera', name: 'Camera' },
  { kind: 'light', name: 'Light' },
  { kind: 'sun', name: 'Sun' },
];

/** Adding simple parts and taking parts away. */
@Injectable({ providedIn: 'root' })
export class PartCommands {
  private readonly studio = inject(Studio);
  private readonly view = inject(ViewControl);
  readonly kinds = ADDED;

  list(): readonly Command[] {
    const editable = () => !this.studio.readOnly();
    const adds = ADDED.map(({ kind, name }): Command => ({
      id: `part.add-${kind}`,
      label: `Add a part: ${name.toLowerCase()}`,
      group: 'Pose',
      when: editable,
      run: () => this.add(kind),
    }));
    const remove: Command = {
      id: 'part.remove',
      label: 'Remove the chosen parts with all below them',
      group: 'Pose',
      shortcuts: ['Shift+Delete'],
      when: () => editable() && this.studio.bench().parts.length > 0,
      run: () => this.remove(),
    };
    return [...adds, remove];
  }

  add(kind: Added): void {
    const name = ADDED.find((entry) => entry.kind === kind)?.name ?? kind;
    let added: readonly string[] = [];
    this.studio.edit(`Add a ${name.toLowerCase()}`, (project) => {
      const result =
        kind === 'sun' ? addSun(project) : addParts(project, { parts: [newPart(kind, name)], assets: [] });
      added = result.added;
      return result.project;
    });
    this.studio.pick({ parts: added, channels: [], keys: [], handles: [] });
    this.studio.set({ sheet: 'part' });
    this.view.bring(added);
  }

  remove(): void {
    const { parts } = this.studio.bench();
    this.studio.edit(parts.length === 1 ? 'Remove a part' : `Remove ${parts.length} parts`, (project) =>
      removeParts(project, parts),
    );
  }
}
