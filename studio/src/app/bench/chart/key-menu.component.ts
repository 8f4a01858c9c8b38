import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import { MatMenu, MatMenuContent, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import { curveOf, repeats, type KeyRef } from '@kaizen/core';
import { MenuRunDirective } from '../../commands/menu-run.directive';
import { CommandRegistry } from '../../commands/registry';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { channelLabel } from '../stage/channel-label';

const ENTRIES = [
  'shape.point',
  'shape.longer',
  'shape.shorter',
  'shape.convert',
  'table.copy',
  'key.copy',
  'key.delete',
];

const SIDES = ['smooth', 'bounded', 'flat', 'linear'].flatMap((mode) => [
  `side.${mode}`,
  `side.${mode}-in`,
  `side.${mode}-out`,
]);
const LEGS = [
  'curve',
  'hold',
  'fall',
  'ease-in',
  'ease-out',
  'ease-both',
  'law-s-curve',
  'law-trapezoid',
  'law-cycloidal',
].map((name) => `leg.${name}`);

/** The menu of a key: pins of its loop, and what the commands do to the chosen keys. By the right button, Shift+F10 or the Menu key. */
@Component({
  selector: 'kz-key-menu',
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
        @if (ref(); as key) {
          <p class="name">{{ name() }}</p>
          @for (pin of pins(); track pin.command) {
            <button mat-menu-item [kzRun]="pin.command" [kzOf]="key">
              {{ pin.label }}
            </button>
          }
          <button mat-menu-item [matMenuTriggerFor]="sides">Sides</button>
          <button mat-menu-item [matMenuTriggerFor]="legs">Leg after</button>
          @for (entry of entries(); track entry.id) {
            <button mat-menu-item [kzRun]="entry.id">
              {{ entry.label }}
            </button>
          }
        }
      </ng-template>
    </mat-menu>
    <mat-menu #sides="matMenu">
      <ng-template matMenuContent>
        @for (entry of sideEntries(); track entry.id) {
          <button mat-menu-item [kzRun]="entry.id">
            {{ entry.label }}
          </button>
        }
      </ng-template>
    </mat-menu>
    <mat-menu #legs="matMenu">
      <ng-template matMenuContent>
        @for (entry of legEntries(); track entry.id) {
          <button mat-menu-item [kzRun]="entry.id">
            {{ entry.label }}
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
export class KeyMenuComponent {
  readonly studio = inject(Studio);
  readonly registry = inject(CommandRegistry);
  private readonly trigger = viewChild.required(MatMenuTrigger);
  readonly ref = signal<KeyRef | null>(null);
  readonly place = signal({ x: 0, y: 0 });

  /** Opens for a key at a place of the Chart; a key that is not chosen becomes the one that is. */
  open(ref: KeyRef, x: number, y: number): void {
    const { keys } = this.studio.bench();
    if (!keys.some((key) => key.channel === ref.channel && key.frame === ref.frame))
      this.studio.pick({ keys: [ref], handles: [] });
    this.ref.set(ref);
    this.place.set({ x, y });
    setTimeout(() => this.trigger().openMenu());
  }

  readonly name = computed(() => {
    const project = this.studio.project();
    const ref = this.ref();
    return project && ref ? `${channelLabel(project, ref.channel).full}, f ${shownFrame(ref.frame)}` : '';
  });

  readonly pins = computed(() => {
    const project = this.studio.project();
    const ref = this.ref();
    const curve = project && ref ? curveOf(project, ref.channel) : undefined;
    if (!curve || !ref) return [];
    return (['after', 'before'] as const).map((end) => {
      const pinned = curve[end].pin === ref.frame && repeats(curve[end].mode);
      const words = end === 'after' ? 'repeat from here' : 'repeat up to here';
      return {
        command: end === 'after' ? 'shape.pin' : 'shape.pin-before',
        label: pinned ? `Unpin: no longer ${words}` : `Pin: ${words}, the rest plays once`,
      };
    });
  });

  readonly entries = computed(() => this.named(ENTRIES));
  readonly sideEntries = computed(() => this.named(SIDES));
  readonly legEntries = computed(() => this.named(LEGS));

  private named(ids: readonly string[]) {
    return ids.flatMap((id) => {
      const label = this.registry.find(id)?.label.replace(/ (at|from|after) the chosen keys$/, '');
      return label === undefined ? [] : [{ id, label }];
    });
  }
}
