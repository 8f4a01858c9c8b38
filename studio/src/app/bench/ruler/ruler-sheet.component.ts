import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { MARKER_KINDS, type MarkerKind } from '@kaizen/core';
import { CommandRegistry } from '../../commands/registry';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SelectComponent } from '../../ui/select.component';
import { Stage } from '../stage/stage';
import { MARKER_NAMES, RulerTools } from './ruler-tools';
import type { SideSheet } from '../stage/side-sheet';

/** The side sheet Ruler: markers and notes, sounds, and what things snap to. */
@Component({
  selector: 'kz-ruler-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, NumberFieldComponent, SelectComponent, RunDirective],
  templateUrl: './ruler-sheet.component.html',
  styleUrls: ['../side-sheet/sheet.scss', './ruler-sheet.component.scss'],
})
export class RulerSheetComponent {
  readonly studio = inject(Studio);
  readonly stage = inject(Stage);
  readonly tools = inject(RulerTools);
  readonly registry = inject(CommandRegistry);
  readonly rate = this.studio.framesPerSecond;
  readonly kinds: readonly Option<MarkerKind>[] = MARKER_KINDS.map((value) => ({
    value,
    label: MARKER_NAMES[value],
  }));
  readonly sounds = computed(() => {
    const assets = new Map((this.studio.project()?.assets ?? []).map((asset) => [asset.id, asset.name]));
    return this.tools.sounds().map((sound) => ({ sound, name: assets.get(sound.asset) ?? sound.asset }));
  });

  positive(value: number): number {
    return Math.max(0, value);
  }
}

export const rulerSheet: SideSheet = {
  id: 'ruler',
  label: 'Ruler',
  tip: 'Markers and notes, sound, and what things snap to',
  component: RulerSheetComponent,
};
