import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  signal,
  type WritableSignal,
} from '@angular/core';
import { AngularSplitModule } from 'angular-split';
import { CommandRegistry } from '../commands/registry';
import type { Density } from '../state/bench';
import { RunDirective } from '../commands/run.directive';
import { Studio } from '../state/studio';
import type { Option } from '../ui/option';
import { AWAKE, InTurnDirective, Turns } from '../ui/in-turn.directive';
import { SegmentsComponent } from '../ui/segments.component';
import { SplitValuesDirective } from '../ui/split-values.directive';
import { BenchCommands } from './bench-commands';
import { CaptureBarComponent } from './posing/capture-bar.component';
import { ChartComponent } from './chart/chart.component';
import { ChartHalves } from './chart/chart-halves';
import { ChartModel } from './plot/chart-model';
import { LowerHalfDirective } from './chart/lower-half.directive';
import { FilterRowComponent } from './chart/filter-row.component';
import { PickBannerComponent } from './links/pick-banner.component';
import { DriveMenuComponent } from './drive/drive-menu.component';
import { RideCueComponent } from './links/ride-cue.component';
import { Panels } from './stage/panels';
import { LanesComponent } from './shaping/lanes/lanes.component';
import { LegPicturesComponent } from './shaping/leg-pictures.component';
import { SideSheetComponent } from './side-sheet/side-sheet.component';
import { Stage } from './stage/stage';
import { PendingBarComponent } from './timing/pending-bar.component';
import { TransportComponent } from './transport/transport.component';
import { TrayComponent } from './posing/tray.component';
import { ViewBarComponent } from './view/view-bar.component';
import { Notices } from '../ui/notices';
import { OpenBench } from '../open/bench-hands';
import { SoundShelf } from './ruler/sound-shelf';
import { ViewControl } from './stage/view-control';
import { ShotPaneComponent } from './view/shot-pane.component';
import { ViewComponent } from './view/view.component';

/** Comes with the Bench’s scripts, and is of use before the Bench. */
export { rehearseOpening } from './rehearse';

/** The Bench: the view above its Chart, the side sheet at the right. */
@Component({
  selector: 'kz-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    AngularSplitModule,
    CaptureBarComponent,
    ChartComponent,
    FilterRowComponent,
    InTurnDirective,
    LanesComponent,
    LegPicturesComponent,
    LowerHalfDirective,
    PendingBarComponent,
    PickBannerComponent,
    DriveMenuComponent,
    RideCueComponent,
    SegmentsComponent,
    SideSheetComponent,
    SplitValuesDirective,
    TransportComponent,
    TrayComponent,
    ViewBarComponent,
    ShotPaneComponent,
    ViewComponent,
    RunDirective,
  ],
  template: `
    <as-split
      kzSplitValues
      gutterAriaLabel="Width of the side sheet"
      direction="horizontal"
      unit="pixel"
      [gutterSize]="5"
      (dragEnd)="panels.keep('sheet', $event.sizes)"
    >
      <as-split-area size="*">
        <as-split
          gutterAriaLabel="Height of the view and the Chart"
          direction="vertical"
          unit="percent"
          [gutterSize]="5"
          (dragEnd)="panels.keep('bench', $event.sizes)"
        >
          <as-split-area
            [size]="panels.size('bench', 0, 40)"
            [minSize]="15"
            [visible]="panels.full() !== 'chart'"
          >
            <div class="view" (pointerenter)="panels.pointerIn = 'view'">
              <kz-view *kzInTurn="'last'" [class.beside]="studio.bench().beside" />
              @if (studio.bench().beside) {
                <kz-shot-pane />
              }
              <kz-view-bar *kzInTurn />
              <kz-pick-banner />
              <kz-ride-cue />
              <kz-drive-menu />
              <div class="foot">
                <kz-capture-bar *kzInTurn />
                <kz-tray *kzInTurn />
              </div>
            </div>
          </as-split-area>
          <as-split-area
            [size]="panels.size('bench', 1, 60)"
            [minSize]="20"
            [visible]="panels.full() !== 'view'"
          >
            <div class="chart" (pointerenter)="panels.pointerIn = 'chart'">
              <div class="tools">
                <kz-segments
                  name="Density"
                  [options]="densities()"
                  [value]="studio.bench().density"
                  (chosen)="halves.setDensity($event, 'upper')"
                />
                <kz-transport *kzInTurn />
              </div>
              <div class="filters">
                <kz-filter-row *kzInTurn />
                <kz-pending-bar *kzInTurn />
              </div>
              <as-split
                class="halves"
                gutterAriaLabel="Height of the two halves of the Chart"
                direction="vertical"
                unit="percent"
                [gutterSize]="5"
                (dragEnd)="panels.keep('halves', $event.sizes)"
              >
                <as-split-area [size]="split() ? panels.size('halves', 0, 55) : 100" [minSize]="20">
                  <div class="half">
                    <kz-chart *kzInTurn />
                    <kz-lanes *kzInTurn />
                  </div>
                </as-split-area>
                <as-split-area
                  [size]="split() ? panels.size('halves', 1, 45) : 0"
                  [minSize]="split() ? 20 : 0"
                  [visible]="split()"
                >
                  @if (split()) {
                    <div
                      class="half lower"
                      (pointerenter)="panels.pointerIn = 'lower'"
                      (pointerleave)="panels.pointerIn = 'chart'"
                    >
                      <div class="split-bar">
                        <span class="soft">below</span>
                        <kz-segments
                          name="Density of the lower half"
                          [options]="densities()"
                          [value]="studio.bench().split.density"
                          (chosen)="halves.setDensity($event, 'lower')"
                        />
                        <span class="room"></span>
                        <button class="button bare" kzRun="chart.split" kzTip="One Chart again">
                          One Chart
                        </button>
                      </div>
                      <kz-chart kzLowerHalf />
                    </div>
                  }
                </as-split-area>
              </as-split>
              @if (studio.bench().shaping.pictures) {
                <kz-leg-pictures />
              }
            </div>
          </as-split-area>
        </as-split>
      </as-split-area>
      <as-split-area
        [size]="panels.size('sheet', 1, 320)"
        [minSize]="260"
        [maxSize]="520"
        [visible]="panels.full() === null"
        ><kz-side-sheet *kzInTurn="'last'"
      /></as-split-area>
    </as-split>
  `,
  styleUrl: './bench.component.scss',
  providers: [{ provide: AWAKE, useFactory: () => signal(false) }],
})
export class BenchComponent {
  readonly studio = inject(Studio);
  readonly registry = inject(CommandRegistry);
  readonly panels = inject(Panels);
  readonly halves = inject(ChartHalves);
  readonly split = computed(() => this.studio.bench().split.on);
  readonly densities = computed((): readonly Option<Density>[] => [
    { value: 'ticks', label: 'Ticks', tip: this.registry.tip('chart.ticks', 'Ticks: timing, a peg a key') },
    { value: 'curves', label: 'Curves', tip: this.registry.tip('chart.curves', 'Curves: shape') },
    {
      value: 'rates',
      label: 'Rates',
      tip: this.registry.tip('chart.rates', 'Rates: value, speed and acceleration over one time'),
    },
  ]);

  private readonly awake = inject(AWAKE) as WritableSignal<boolean>;
  private readonly turns = inject(Turns);
  private readonly stage = inject(Stage);
  private readonly model = inject(ChartModel);
  private readonly sounds = inject(SoundShelf);
  private readonly view = inject(ViewControl);
  private readonly open = inject(OpenBench);
  private readonly notices = inject(Notices);
  private readonly destroyed = inject(DestroyRef);
  private readonly commands = inject(BenchCommands).list();

  /** Shows the open project: its commands can be run from now on, and its panels come to life one after the other. */
  wake(): void {
    const { turns, stage, model, sounds, view } = this;
    const remove = this.registry.add(this.commands);
    turns.take(() => stage.program());
    turns.take(() => model.rows());
    turns.take(() => model.plot());
    stage.prepare();
    const leave = this.open.enter({
      takeSound: (name, bytes) => sounds.take(name, bytes),
      bringIntoSight: (parts) => view.bring(parts),
    });
    this.awake.set(true);
    this.destroyed.onDestroy(() => {
      this.notices.clearPress();
      leave();
      remove();
      stage.stop();
    });
  }
}
