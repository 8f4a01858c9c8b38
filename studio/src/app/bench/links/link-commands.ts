import { Injectable, inject } from '@angular/core';
import { armOf, isBaked, partOf, reorderPart, type Constraint } from '@kaizen/core';
import { onItem, type Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import { HoldHands } from './hold-hands';
import { LinkHands } from './link-hands';

/** Linking parts: riding, constraints, jumping from one part to what it is linked to. */
@Injectable({ providedIn: 'root' })
export class LinkCommands {
  private readonly studio = inject(Studio);
  private readonly hands = inject(LinkHands);
  private readonly holds = inject(HoldHands);

  list(): readonly Command[] {
    return [...this.riding(), ...this.holding(), ...this.cards()];
  }

  /** A command about the part that was chosen last. */
  private onPart(
    command: Omit<Command, 'run' | 'when' | 'group'>,
    run: (part: string) => void,
    when: (part: string) => boolean = () => true,
  ): Command {
    const meant = () => this.studio.bench().parts.at(-1) ?? null;
    return {
      ...command,
      group: 'Pose',
      when: () => {
        const part = meant();
        return part !== null && !this.studio.readOnly() && this.studio.project() !== null && when(part);
      },
      run: () => {
        const part = meant();
        if (part !== null) run(part);
      },
    };
  }

  private riding(): readonly Command[] {
    const { hands } = this;
    const parentOf = (id: string) => {
      const project = this.studio.project();
      return (project && partOf(project, id)?.parent) ?? null;
    };
    return [
      this.onPart({ id: 'link.ride', label: 'Ride on a part: pick it', shortcuts: ['Shift+W'] }, (part) =>
        hands.askRide(part),
      ),
      this.onPart({ id: 'link.rider', label: 'Pick a part that rides on this one' }, (part) =>
        hands.askRider(part),
      ),
      this.onPart(
        { id: 'link.release', label: 'Release: ride on nothing' },
        (part) => hands.ride(part, null),
        (part) => parentOf(part) !== null,
      ),
      this.onPart({ id: 'part.up', label: 'Part before the one above', shortcuts: ['Ctrl+Alt+↑'] }, (part) =>
        this.reorder(part, -1),
      ),
      this.onPart({ id: 'part.down', label: 'Part after the one below', shortcuts: ['Ctrl+Alt+↓'] }, (part) =>
        this.reorder(part, 1),
      ),
      onItem<string>({
        id: 'link.go',
        label: 'Go to what the part rides on',
        group: 'Select',
        meant: () => {
          const part = this.studio.bench().parts.at(-1);
          return part === undefined ? null : parentOf(part);
        },
        run: (part) => this.studio.pick({ parts: [part], channels: [], keys: [], handles: [] }),
      }),
    ];
  }

  private reorder(part: string, by: -1 | 1): void {
    this.studio.edit('Order of parts', (project) => reorderPart(project, part, by));
  }

  private holding(): readonly Command[] {
    const hands = this.holds;
    const heldOf = (part: string, muted: boolean) =>
      this.studio.project()?.constraints.some((each) => each.part === part && each.muted === muted) ?? false;
    const isEnd = (part: string) => {
      const project = this.studio.project();
      return project !== null && armOf(project, part) !== null;
    };
    return [
      this.onPart(
        { id: 'link.attach', label: 'Attach: ride along for a while, from the first chosen key to the last' },
        (part) => hands.askConstraint('attach', part),
      ),
      this.onPart(
        { id: 'link.plant', label: 'Plant: stay in the world from the first chosen key to the last' },
        (part) => hands.plant(part),
      ),
      this.onPart(
        { id: 'link.plant-arm', label: 'Plant the end of an arm, its elbow bending' },
        (part) => hands.plantArm(part),
        isEnd,
      ),
      this.onPart({ id: 'link.aim', label: 'Aim at a part: pick it' }, (part) =>
        hands.askConstraint('aim', part),
      ),
      this.onPart(
        { id: 'link.reach', label: 'Reach for a part with an arm of two links: pick it' },
        (part) => hands.askReach(part),
        isEnd,
      ),
      this.onPart({ id: 'link.chase', label: 'Chase: go with a part, keeping its distance' }, (part) =>
        hands.askConstraint('chase', part),
      ),
      this.onPart({ id: 'link.heading', label: 'Heading: look where it goes' }, (part) =>
        hands.heading(part),
      ),
      this.onPart({ id: 'link.along', label: 'Along: follow a path, pick it' }, (part) =>
        hands.askAlong(part),
      ),
      this.onPart(
        { id: 'link.bake', label: 'Bake what holds the part to keys' },
        (part) => hands.bake(part),
        (part) => heldOf(part, false),
      ),
      this.onPart(
        { id: 'link.unbake', label: 'Bring back what held the part before it was baked' },
        (part) => hands.unbake(part),
        (part) => {
          const project = this.studio.project();
          return project !== null && isBaked(project, part);
        },
      ),
    ];
  }

  private cards(): readonly Command[] {
    const hands = this.holds;
    const about = (
      command: { readonly id: string; readonly label: string },
      run: (constraint: Constraint) => void,
    ) =>
      onItem<Constraint>({
        ...command,
        group: 'Pose',
        meant: () => {
          const part = this.studio.bench().parts.at(-1);
          return this.studio.project()?.constraints.find((each) => each.part === part) ?? null;
        },
        when: () => !this.studio.readOnly(),
        run,
      });
    return [
      about({ id: 'link.mute', label: 'Mute what holds the part, or let it act' }, ({ id, muted }) =>
        hands.change(id, muted ? 'Let a constraint act' : 'Mute a constraint', { muted: !muted }),
      ),
      about({ id: 'link.earlier', label: 'Constraint one place earlier' }, ({ id }) => hands.move(id, -1)),
      about({ id: 'link.later', label: 'Constraint one place later' }, ({ id }) => hands.move(id, 1)),
      about({ id: 'link.remove', label: 'Remove a constraint' }, ({ id }) => hands.remove(id)),
    ];
  }
}
