import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { curveOf, ownerOf } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { InTurnDirective } from '../../ui/in-turn.directive';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { channelLabel } from '../stage/channel-label';
import { KeyTableComponent } from './key-table.component';
import { Reduce } from './reduce';
import { ShapeTools } from './shape-tools';
import { TreatmentListComponent } from './treatment-list.component';
import type { SideSheet } from '../stage/side-sheet';

/** The side sheet Curve: what belongs to a channel as a whole. */
@Component({
  selector: 'kz-curve-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    InTurnDirective,
    KeyTableComponent,
    MatTooltip,
    NumberFieldComponent,
    TreatmentListComponent,
    RunDirective,
  ],
  templateUrl: './curve-sheet.component.html',
  styleUrl: '../side-sheet/sheet.scss',
})
export class CurveSheetComponent {
  readonly studio = inject(Studio);
  readonly tools = inject(ShapeTools);
  readonly reduce = inject(Reduce);

  readonly channels = this.tools.channels;
  /** The one channel whose treatments are listed: that of a weight that is drawn beside it, too. */
  readonly treated = computed(() => {
    const own = new Set(this.channels().map(ownerOf));
    return own.size === 1 ? [...own][0]! : null;
  });
  /** The channel, or the weight, whose keys the table has. */
  readonly tabled = computed(() => (this.channels().length === 1 ? this.channels()[0]! : this.treated()));
  readonly title = computed(() => {
    const project = this.studio.project();
    const own = this.treated();
    const [only, ...more] = own === null ? this.channels() : [own];
    if (!project || only === undefined) return '';
    return more.length > 0 ? `${more.length + 1} channels` : channelLabel(project, only).full;
  });
  readonly hasTake = computed(() => {
    const project = this.studio.project();
    return this.channels().some((channel) => project && curveOf(project, channel)?.otherTake);
  });
}

export const curveSheet: SideSheet = {
  id: 'curve',
  label: 'Curve',
  tip: 'Treatments, takes, bake, the table of keys',
  component: CurveSheetComponent,
};
