import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import { MatMenu, MatMenuContent, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import { curveOf, OUTSIDE_MODES } from '@kaizen/core';
import { MenuRunDirective } from '../../commands/menu-run.directive';
import { Studio } from '../../state/studio';
import { channelLabel } from '../stage/channel-label';
import { OUTSIDE_LABELS } from '../stage/words';

/** The menu of a curve where it has no keys any more: what it does before its first or after its last one. By the right button. */
@Component({
  selector: 'kz-outside-menu',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatMenu, MatMenuContent, MatMenuItem, MatMenuTrigger, MenuRunDirective],
  template: `
    <span
      class="anchor"
      aria-hidden="true"
      [matMenuTriggerFor]="menu"
      [style.left.px]="place().x"
      [style.top.px]="place().y"
    ></span>
    <mat-menu #menu="matMenu">
      <ng-template matMenuContent>
        <p class="name">{{ name() }}</p>
        @for (mode of modes; track mode) {
          <button
            mat-menu-item
            role="menuitemradio"
            [attr.aria-checked]="mode === current()"
            [kzRun]="'outside.' + asked().end + '-' + mode"
          >
            {{ mode === current() ? '● ' : '○ ' }}{{ labels[mode] }}
          </button>
        }
      </ng-template>
    </mat-menu>
  `,
  styles: `
    .anchor {
      position: absolute;
      width: 1px;
      height: 1px;
    }
    .name {
      margin: 0;
      padding: 2px 16px 4px;
      font-weight: 600;
    }
  `,
})
export class OutsideMenuComponent {
  readonly studio = inject(Studio);
  private readonly trigger = viewChild.required(MatMenuTrigger);
  readonly modes = OUTSIDE_MODES;
  readonly labels = OUTSIDE_LABELS;
  readonly asked = signal<{ readonly channel: string; readonly end: 'before' | 'after' }>({
    channel: '',
    end: 'after',
  });
  readonly place = signal({ x: 0, y: 0 });

  readonly current = computed(() => {
    const project = this.studio.project();
    const { channel, end } = this.asked();
    return (project && curveOf(project, channel)?.[end].mode) ?? null;
  });
  readonly name = computed(() => {
    const project = this.studio.project();
    const { channel, end } = this.asked();
    const curve = project && curveOf(project, channel);
    return project && curve
      ? `${channelLabel(project, channel).full}, ${end === 'before' ? 'before its first key' : 'after its last key'}`
      : '';
  });

  /** Opens for a channel at a place of the Chart, the channel chosen; nothing opens where the frame lies among its keys. */
  open(channel: string, frame: number, x: number, y: number): void {
    const project = this.studio.project();
    const keys = (project && curveOf(project, channel)?.keys) ?? [];
    const [first, last] = [keys[0], keys.at(-1)];
    if (!first || !last || (frame >= first.frame && frame <= last.frame)) return;
    this.studio.pick({ channels: [channel], keys: [], handles: [] });
    this.asked.set({ channel, end: frame < first.frame ? 'before' : 'after' });
    this.place.set({ x, y });
    setTimeout(() => this.trigger().openMenu());
  }
}
