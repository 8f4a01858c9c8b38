import { Injectable, inject } from '@angular/core';
import type { Command } from '../commands/command';
import { CameraCommands } from './build/camera-commands';
import { ChartCommands } from './chart/chart-commands';
import { KeyCommands } from './shell/key-commands';
import { BuildCommands } from './build/build-commands';
import { ChosenPartCommands } from './build/chosen-part-commands';
import { ContactCommands } from './posing/contact-commands';
import { DriveCommands } from './drive/drive-commands';
import { InterlockCommands } from './interlock/interlock-commands';
import { LinkCommands } from './links/link-commands';
import { PartCommands } from './view/part-commands';
import { PlayCommands } from './transport/play-commands';
import { PoseCommands } from './posing/pose-commands';
import { RulerCommands } from './ruler/ruler-commands';
import { PanelCommands } from './shell/panel-commands';
import { OutsideCommands } from './shaping/outside-commands';
import { ReduceCommands } from './shaping/reduce-commands';
import { ShapeCommands } from './shaping/shape-commands';
import { SideCommands } from './shaping/side-commands';
import { TakeCommands } from './shaping/take-commands';
import { TreatmentCommands } from './shaping/treatment-commands';
import { SwitchCommands } from './shell/switch-commands';
import { TimeCommands } from './timing/time-commands';
import { RowSetCommands } from './plot/row-set-commands';
import { SeeingCommands } from './view/seeing-commands';
import { ViewCommands } from './view/view-commands';

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
    inject(ContactCommands),
    inject(RulerCommands),
    inject(ViewCommands),
    inject(SeeingCommands),
    inject(ChartCommands),
    inject(RowSetCommands),
    inject(PartCommands),
    inject(LinkCommands),
    inject(DriveCommands),
    inject(InterlockCommands),
    inject(BuildCommands),
    inject(ChosenPartCommands),
    inject(CameraCommands),
    inject(SwitchCommands),
    inject(TakeCommands),
    inject(TreatmentCommands),
    inject(ReduceCommands),
  ];

  list(): readonly Command[] {
    return this.groups.flatMap((group) => group.list());
  }
}
