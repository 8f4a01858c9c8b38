import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { CommandRegistry } from '../../commands/registry';
import type { Axes } from '../../state/bench';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { tellHeight } from '../../ui/tell-height';
import { TIPS_BELOW } from '../../ui/tips';
import { OneStopDirective } from '../../ui/one-stop.directive';
import { optionsOf, type Option } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { TOOL_LABELS } from '../stage/words';
import { ViewControl } from '../stage/view-control';

const AXES: readonly Option<Axes>[] = [
  { value: 'own', label: 'Own', tip: 'Along the part’s own axes' },
  { value: 'parent', label: 'Parent', tip: 'Along its parent’s axes' },
  { value: 'world', label: 'World', tip: 'Along the world’s axes' },
  { value: 'view', label: 'View', tip: 'Along the picture: right, up, and towards you' },
];
const VIEWS = [
  { id: 'view.side-on', label: 'Side on' },
  { id: 'view.side', label: 'Side' },
  { id: 'view.front', label: 'Front' },
  { id: 'view.top', label: 'Top' },
];

/** The tools over the view: posing at the left, looking at the right. */
@Component({
  selector: 'kz-view-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberFieldComponent, OneStopDirective, SegmentsComponent, RunDirective],
  providers: [TIPS_BELOW],
  template: `
    <div class="group">
      <kz-segments
        name="Tool"
        [options]="tools()"
        [value]="studio.bench().tool"
        (chosen)="studio.set({ tool: $event })"
      />
      @if (studio.bench().tool !== 'select') {
        @if (studio.bench().tool !== 'size') {
          <kz-segments
            name="Axes"
            [options]="axes"
            [value]="studio.bench().axes"
            (chosen)="studio.set({ axes: $event })"
          />
          <button class="button toggle" kzRun="pose.steps" kzTip="Grips go in steps of this size">
            Steps
          </button>
          <kz-number-field
            name="Step of the grips"
            [unit]="stepUnit()"
            [values]="[step()]"
            [decimals]="stepUnit() === 'm' ? 2 : 1"
            tip="Size of a step"
            (changed)="setStep($event(step()))"
          />
        }
      }
      @if (studio.bench().tool === 'turn' || studio.bench().tool === 'size') {
        <button
          class="button toggle"
          kzRun="pose.point"
          kzTip="Turns and sizes about a point that can be dragged, instead of the pivot"
        >
          Point
        </button>
      }
    </div>
    <div class="group look" role="group" aria-label="Looking" kzOneStop>
      <button class="button toggle" kzRun="view.trail">Trail</button>
      <button class="button toggle" kzRun="view.ghosts">Ghosts</button>
      <button class="button toggle" kzRun="view.keep-in-sight">Keep in sight</button>
      @if (studio.bench().seeing.alone.length > 0) {
        <button class="button toggle" kzRun="view.alone" kzTip="Only the chosen parts show: press for all">
          Only these
        </button>
      }
      <div class="choice" role="group" aria-label="Look from">
        @for (view of views; track view.id) {
          <button [kzRun]="view.id">{{ view.label }}</button>
        }
      </div>
      <button class="button toggle" kzRun="view.swap">Shot camera</button>
      <button class="button toggle" kzRun="view.beside">Beside</button>
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 8px;
      padding: 7px 12px;
      pointer-events: none;
    }
    .group {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px 8px;
      pointer-events: auto;
    }
    .look {
      margin-left: auto;
    }
    kz-number-field {
      width: 80px;
    }
  `,
})
export class ViewBarComponent {
  readonly studio = inject(Studio);
  readonly registry = inject(CommandRegistry);
  readonly control = inject(ViewControl);
  readonly tools = computed(() =>
    optionsOf(TOOL_LABELS).map((option) => ({ ...option, tip: this.registry.tip(`tool.${option.value}`) })),
  );
  readonly axes = AXES;
  readonly views = VIEWS;
  readonly steps = computed(() => this.studio.bench().steps);
  private readonly kind = computed(() => (this.studio.bench().tool === 'turn' ? 'angle' : 'length'));
  readonly step = computed(() => this.steps()[this.kind()]);
  readonly stepUnit = computed(() => (this.kind() === 'angle' ? '°' : 'm'));

  constructor() {
    tellHeight('--view-bar');
  }

  setStep(step: number): void {
    if (step > 0) this.studio.set({ steps: { ...this.steps(), [this.kind()]: step } });
  }
}
