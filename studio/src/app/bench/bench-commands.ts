import { Injectable, inject } from '@angular/core';
import type { Command } from '../commands/command';
import { ChartCommands } from './chart-commands';
import { KeyCommands } from './key-commands';
import { PartCommands } from './part-commands';
import { PlayCommands } from './play-commands';
import { PoseCommands } from './pose/pose-commands';
import { RulerCommands } from './ruler/ruler-commands';
import { PanelCommands } from './panel-commands';
import { OutsideCommands } from './shape/outside-commands';
import { ShapeCommands } from './shape/shape-commands';
import { SideCommands } from './shape/side-commands';
import { TakeCommands } from './shape/take-commands';
import { SwitchCommands } from './switch-commands';
import { TimeCommands } from './time/time-commands';
import { ViewCommands } from './view-commands';

/** Commands of the Bench. One line a group. */
@Injectable({ providedIn: 'root' })
export class BenchCommands {
  private readonly groups = [
    inject(PlayCommands),
    inject(KeyCommands),
    inject(ShapeCommands),
    inject(SideCommands),
    inject(OutsideCommands),
    inject(PanelCommands),
    inject(TimeCommands),
    inject(PoseCommands),
    inject(RulerCommands),
    inject(ViewCommands),
    inject(ChartCommands),
    inject(PartCommands),
    inject(SwitchCommands),
    inject(TakeCommands),
  ];

  list(): readonly Command[] {
    return this.groups.flatMap((group) => group.list());
  }
}
