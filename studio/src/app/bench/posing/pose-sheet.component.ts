import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import type { Axis, ChannelKind } from '@kaizen/core';
import { offerCommands } from '../../commands/offer-commands';
import { ALL_KINDS } from '../../state/bench';
import { RunDirective } from '../../commands/run.directive';
import { Assets } from '../../state/assets';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { toggled } from '../stage/picking';
import { PoseTools } from './pose-tools';
import type { SideSheet } from '../stage/side-sheet';

/** The side sheet Pose: a pose copied, mirrored, brought from another frame; the shelf; poses held. */
@Component({
  selector: 'kz-pose-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, NumberFieldComponent, SegmentsComponent, RunDirective],
  templateUrl: './pose-sheet.component.html',
  styleUrls: ['../side-sheet/sheet.scss', './pose-sheet.component.scss'],
})
export class PoseSheetComponent {
  readonly studio = inject(Studio);
  private readonly assets = inject(Assets);
  readonly tools = inject(PoseTools);
  readonly allKinds = ALL_KINDS;
  readonly axes: readonly Option<Axis>[] = [
    { value: 'x', label: 'X', tip: 'The mirror stands across X: left and right change sides' },
    { value: 'y', label: 'Y', tip: 'The mirror lies across Y: up and down change sides' },
    { value: 'z', label: 'Z', tip: 'The mirror stands across Z: front and back change sides' },
  ];
  readonly from = signal(0);
  readonly poses = computed(() => this.studio.project()?.poses ?? []);
  /** The pictures of the poses, as they can be shown, by their ids. */
  readonly pictures = computed(
    () =>
      new Map(
        this.poses().map(({ id, picture }) => [id, picture === null ? null : this.assets.picture(picture)]),
      ),
  );
  readonly held = computed(() => this.studio.bench().held);
  readonly whose = computed(() => {
    const ids = this.studio.bench().parts;
    const first = this.studio.project()?.parts.find(({ id }) => id === ids[0]);
    if (!first) return 'no part is picked';
    const count = this.tools.parts().length;
    return count === 1 ? first.name : `${first.name} and ${count - 1} more`;
  });
  readonly released = computed(() => this.held().released);

  constructor() {
    offerCommands([
      {
        id: 'pose.bring',
        label: 'Bring the pose of the frame that the sheet Pose says',
        group: 'Pose',
        when: () => this.studio.bench().parts.length > 0 && !this.studio.readOnly(),
        run: () => this.tools.bring(this.from()),
      },
    ]);
  }

  toggleKind(kind: ChannelKind): void {
    this.tools.kinds.update((kinds) => toggled(kinds, kind));
  }

  setReleased(end: 'start' | 'end', change: (value: number) => number): void {
    const released = this.released();
    if (released)
      this.studio.set({ held: { ...this.held(), released: { ...released, [end]: change(released[end]) } } });
  }
}

export const poseSheet: SideSheet = {
  id: 'pose',
  label: 'Pose',
  tip: 'Poses copied, mirrored and kept; poses held',
  component: PoseSheetComponent,
};
