import { Injectable, inject } from '@angular/core';
import type { Command } from '../../commands/command';
import type { Tool } from '../../state/bench';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { PartCommands } from './part-commands';
import { Stage } from '../stage/stage';
import { AmountStrip } from './amount-strip';
import { HandledParts } from './handled-parts';
import { readPose } from './part-pose';
import { THE_SHOT, ViewControl } from '../stage/view-control';

/** Commands of the view: tools, posing by a number, where to look from. */
@Injectable({ providedIn: 'root' })
export class ViewCommands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly view = inject(ViewControl);
  private readonly strip = inject(AmountStrip);
  private readonly hands = inject(HandledParts);
  private readonly notices = inject(Notices);
  private readonly parts = inject(PartCommands);

  list(): readonly Command[] {
    return [...this.posing(), ...this.looking()];
  }

  private posing(): Command[] {
    const tool = (name: Tool) => () => this.studio.set({ tool: name });
    return [
      { id: 'tool.select', label: 'Select', group: 'Pose', shortcuts: ['1'], run: tool('select') },
      { id: 'tool.move', label: 'Move', group: 'Pose', shortcuts: ['2'], run: tool('move') },
      { id: 'tool.turn', label: 'Turn', group: 'Pose', shortcuts: ['3'], run: tool('turn') },
      { id: 'tool.size', label: 'Size', group: 'Pose', shortcuts: ['4'], run: tool('size') },
      {
        id: 'pose.amount',
        label: 'Move, turn or size by exact amounts',
        group: 'Pose',
        shortcuts: ['Enter'],
        when: () => this.strip.canOpen(),
        run: () => this.strip.begin(),
      },
      {
        id: 'pose.point',
        label: 'Turn and size about a point, or about the pivot again',
        group: 'Pose',
        shortcuts: ['Q'],
        on: () => this.studio.bench().turnPoint !== null,
        when: () => this.studio.bench().turnPoint !== null || this.studio.bench().parts.length > 0,
        run: () => this.togglePoint(),
      },
      ...this.nudges(),
    ];
  }

  /** Arrow keys with Alt go along X and Y of the chosen axes, Page keys along Z. */
  private nudges(): Command[] {
    const keys = [
      ['x', 'Alt+→', 'Alt+←'],
      ['y', 'Alt+↑', 'Alt+↓'],
      ['z', 'Alt+PageUp', 'Alt+PageDown'],
    ] as const;
    const when = () => !this.studio.readOnly() && this.studio.bench().parts.length > 0;
    return keys.flatMap(([letter, more, less], axis): Command[] => [
      {
        id: `pose.nudge-${letter}`,
        label: `Move, turn or size along ${letter.toUpperCase()} by a step`,
        group: 'Pose',
        shortcuts: [more],
        when,
        run: () => this.hands.nudge(axis, 1),
      },
      {
        id: `pose.nudge-${letter}-back`,
        label: `Move, turn or size along ${letter.toUpperCase()} by a step back`,
        group: 'Pose',
        shortcuts: [less],
        when,
        run: () => this.hands.nudge(axis, -1),
      },
    ]);
  }

  /** Sets the point at the pivot of the part chosen last; it can be dragged from there. */
  private togglePoint(): void {
    const { turnPoint, parts } = this.studio.bench();
    const now = this.stage.now();
    const pose = now && readPose(now, parts.at(-1) ?? '');
    if (turnPoint || !pose) this.studio.set({ turnPoint: null });
    else this.studio.set({ turnPoint: pose.pivot.toArray() });
  }

  private looking(): Command[] {
    return [
      {
        id: 'view.side-on',
        label: 'Side on, so that the motion reads left to right',
        group: 'View',
        shortcuts: ['Shift+1'],
        run: () => this.view.show('side-on'),
      },
      {
        id: 'view.side',
        label: 'View from the side',
        group: 'View',
        shortcuts: ['Shift+2'],
        run: () => this.view.show('side'),
      },
      {
        id: 'view.front',
        label: 'View from the front',
        group: 'View',
        shortcuts: ['Shift+3'],
        run: () => this.view.show('front'),
      },
      {
        id: 'view.top',
        label: 'View from the top',
        group: 'View',
        shortcuts: ['Shift+4'],
        run: () => this.view.show('top'),
      },
      {
        id: 'view.swap',
        label: 'Working view or shot camera',
        group: 'View',
        shortcuts: ['V'],
        on: () => this.view.shot() !== null,
        run: () => this.swapCamera(),
      },
    ];
  }

  private swapCamera(): void {
    if (this.view.shot() !== null) {
      this.view.shot.set(null);
      return;
    }
    const { parts } = this.studio.bench();
    const cameras = (this.studio.project()?.parts ?? []).filter((part) => part.kind === 'camera');
    const chosen = cameras.find((part) => parts.includes(part.id));
    if (cameras.length > 0) this.view.shot.set(chosen?.id ?? THE_SHOT);
    else
      this.notices.tell('There is no camera among the parts yet', {
        label: 'Add a camera',
        run: () => this.parts.add('camera'),
      });
  }
}
