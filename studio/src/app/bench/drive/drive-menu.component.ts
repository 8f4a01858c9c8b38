import { ChangeDetectionStrategy, Component, computed, effect, inject, viewChild } from '@angular/core';
import { MatMenu, MatMenuContent, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import type { DriverName } from '@kaizen/core';
import { MenuRunDirective } from '../../commands/menu-run.directive';
import { Studio } from '../../state/studio';
import { CueCardComponent } from '../../ui/cue-card.component';
import { channelLabel } from '../stage/channel-label';
import { DriveDrag } from './drive-drag';
import { DRIVER_WORDS } from './driver-words';

/** What a dragged channel would do, and the menu that asks in which way one channel drives another. */
@Component({
  selector: 'kz-drive-menu',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CueCardComponent, MatMenu, MatMenuContent, MatMenuItem, MatMenuTrigger, MenuRunDirective],
  template: `
    @if (drag.shown(); as shown) {
      <kz-cue-card [refused]="shown.refused" [x]="shown.x" [y]="shown.y">
        <strong>{{ shown.title }}</strong>
        <span>{{ shown.words }}</span>
      </kz-cue-card>
    }
    <span
      class="anchor"
      aria-hidden="true"
      [matMenuTriggerFor]="menu"
      [style.left.px]="drag.asked()?.x"
      [style.top.px]="drag.asked()?.y"
    ></span>
    <mat-menu #menu="matMenu">
      <ng-template matMenuContent>
        <p class="name">{{ title() }}</p>
        @for (kind of kinds; track kind) {
          <button mat-menu-item [kzRun]="'drive.' + kind" [kzOf]="drag.asked()">{{ words(kind) }}</button>
        }
      </ng-template>
    </mat-menu>
  `,
  styles: `
    .anchor {
      position: fixed;
      width: 1px;
      height: 1px;
    }
    .name {
      margin: 0;
      padding: 2px 16px 4px;
      color: var(--ink-soft);
      font-size: 12.5px;
    }
  `,
})
export class DriveMenuComponent {
  readonly drag = inject(DriveDrag);
  private readonly studio = inject(Studio);
  private readonly trigger = viewChild.required(MatMenuTrigger);
  readonly kinds = Object.keys(DRIVER_WORDS) as DriverName[];

  readonly title = computed(() => {
    const [project, asked] = [this.studio.project(), this.drag.asked()];
    if (!project || !asked) return '';
    const name = channelLabel(project, asked.target).full;
    return asked.input === null ? `Drive ${name}` : `${name} from ${channelLabel(project, asked.input).full}`;
  });

  constructor() {
    effect(() => {
      if (this.drag.asked()) queueMicrotask(() => this.trigger().openMenu());
    });
  }

  words(kind: DriverName): string {
    const { label } = DRIVER_WORDS[kind];
    return this.drag.asked()?.input === null ? label : label.replace(' …', '');
  }
}
