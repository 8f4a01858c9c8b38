import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { frameToSeconds, secondsToFrame } from '@kaizen/core';
import type { PlayMode } from '../../state/bench';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { OneStopDirective } from '../../ui/one-stop.directive';
import type { Option } from '../../ui/option';
import { SelectComponent } from '../../ui/select.component';
import { Stage } from '../stage/stage';

const MODES: readonly Option<PlayMode>[] = [
  { value: 'once', label: 'Once' },
  { value: 'loop', label: 'Loop' },
  { value: 'forth', label: 'Forth and back' },
];

const JUMPS = [
  { id: 'play.first', name: 'Start of the range', icon: 'first' },
  { id: 'play.previous-key', name: 'Previous key', icon: 'previous-key' },
  { id: 'play.toggle', name: 'Play', icon: 'play' },
  { id: 'play.next-key', name: 'Next key', icon: 'next-key' },
  { id: 'play.last', name: 'End of the range', icon: 'last' },
];
const SPANS: readonly Option<boolean>[] = [
  { value: false, label: 'Range' },
  { value: true, label: 'All' },
];

/** Playing: to the ends, from key to key, the frame and second of the playhead, how and how fast it plays. */
@Component({
  selector: 'kz-transport',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatIcon, NumberFieldComponent, OneStopDirective, SelectComponent, RunDirective],
  template: `
    <div class="jumps" role="group" aria-label="Playing" kzOneStop>
      @for (jump of jumps; track jump.id) {
        @if (jump.id === 'play.toggle') {
          <button class="button main play" [kzRun]="jump.id">
            <mat-icon [svgIcon]="stage.playing() ? 'pause' : 'play'" />
            {{ stage.playing() ? 'Stop' : 'Play' }}
          </button>
        } @else {
          <button class="button icon-only" [attr.aria-label]="jump.name" [kzRun]="jump.id">
            <mat-icon [svgIcon]="jump.icon" />
          </button>
        }
      }
    </div>
    <kz-number-field
      class="frame"
      name="Frame of the playhead"
      unit="f"
      [values]="[stage.frame()]"
      [framesPerSecond]="rate()"
      tip="Frame of the playhead (← →)"
      (changed)="goTo($event(stage.frame()))"
      (previewed)="scrub($event)"
    />
    <kz-number-field
      class="seconds"
      name="Second of the playhead"
      unit="s"
      [values]="[seconds()]"
      [decimals]="3"
      tip="Second of the playhead"
      (changed)="goToSeconds($event(seconds()))"
    />
    <kz-select
      class="mode"
      name="How it plays"
      tip="Once, in a loop, or forth and back"
      [options]="modes"
      [value]="studio.bench().playMode"
      (chosen)="studio.set({ playMode: $event })"
    />
    <kz-number-field
      class="speed"
      name="How fast it plays"
      unit="×"
      [values]="[studio.bench().playSpeed]"
      [decimals]="2"
      tip="Playing speed: 1 is real time; type 1/4 or 2"
      (changed)="setSpeed($event(studio.bench().playSpeed))"
    />
    <kz-select
      class="span"
      name="What plays"
      tip="The marked range, or from the first key to the last"
      [options]="spans"
      [value]="studio.bench().playAll"
      (chosen)="studio.set({ playAll: $event })"
    />
    <button
      class="button toggle"
      kzRun="play.every-frame"
      kzTip="On: every frame is shown, if need be slower. Off: real time"
    >
      Every frame
    </button>
  `,
  styles: `
    :host {
      display: contents;
    }
    .jumps {
      display: flex;
      flex: none;
      gap: 6px;
    }
    .play {
      width: 68px;
    }
    kz-number-field,
    kz-select,
    button {
      flex: none;
    }
    .frame {
      width: 76px;
      margin-left: 4px;
    }
    .seconds {
      width: 92px;
    }
    .mode {
      width: 108px;
    }
    .speed {
      width: 70px;
    }
    .span {
      width: 76px;
    }
  `,
})
export class TransportComponent {
  readonly studio = inject(Studio);
  readonly stage = inject(Stage);
  readonly modes = MODES;
  readonly spans = SPANS;
  readonly jumps = JUMPS;
  readonly rate = this.studio.framesPerSecond;
  readonly seconds = computed(() => {
    const project = this.studio.project();
    return project ? frameToSeconds(this.stage.frame(), project.rate) : 0;
  });

  goTo(frame: number): void {
    this.stage.goTo(Math.round(frame * 1000) / 1000);
  }
  scrub(change: ((value: number) => number) | null): void {
    const from = this.studio.bench().frame;
    this.stage.scrub(change ? change(from) : from);
  }
  /** Any speed from a hundredth to a hundred times. */
  setSpeed(speed: number): void {
    this.studio.set({ playSpeed: Math.min(100, Math.max(0.01, speed)) });
  }
  goToSeconds(seconds: number): void {
    const project = this.studio.project();
    if (project) this.goTo(secondsToFrame(seconds, project.rate));
  }
}
