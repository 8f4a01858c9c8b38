import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import {
  changeRateKeepingFrames,
  changeRateKeepingSeconds,
  lastShownFrame,
  rateOf,
  setRange,
  type Project,
} from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { shownNumber } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SelectComponent } from '../../ui/select.component';
import { PartCommands } from '../view/part-commands';
import { Stage } from '../stage/stage';

/** Between these, in frames a second, a rate may be typed. */
const [LEAST_RATE, MOST_RATE] = [0.1, 1000];

/** What holds for the whole shot: name, rate, range, gravity, floor. Shown while no part is picked. */
@Component({
  selector: 'kz-shot-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, NumberFieldComponent, SelectComponent, RunDirective],
  template: `
    @if (project(); as project) {
      <section>
        <div class="section-head">
          <h3>The shot</h3>
          <span class="numbers">{{ length() }}</span>
        </div>
        <label class="field">
          <span class="label">Project name</span>
          <input
            class="input"
            type="text"
            [value]="project.name"
            (change)="rename($any($event.target).value)"
            (keydown.enter)="$any($event.target).blur()"
          />
        </label>
      </section>
      <section>
        <div class="pair">
          <kz-number-field
            label="Range starts"
            unit="f"
            [values]="[project.range.start]"
            [framesPerSecond]="rate()"
            tip="First frame of the shot"
            (changed)="setStart($event)"
          />
          <kz-number-field
            label="Range ends"
            unit="f"
            [values]="[project.range.end]"
            [framesPerSecond]="rate()"
            tip="Last frame of the shot"
            (changed)="setEnd($event)"
          />
        </div>
        <button
          class="button toggle"
          kzRun="shot.loop"
          kzTip="The last frame shows what the first shows, so playing leaves it out"
        >
          The range is a loop
        </button>
      </section>
      @if (clips().length > 1) {
        <section>
          <kz-select
            label="Clip shown"
            [options]="clips()"
            [value]="project.activeClip"
            tip="The clip whose keys the Chart shows and that plays while no clips are placed over time"
            (chosen)="showClip($event)"
          />
        </section>
      }
      <section>
        <div class="pair">
          <kz-number-field
            label="Frames a second"
            [values]="[rate()]"
            [decimals]="2"
            [tip]="
              keeps() === 'seconds'
                ? 'Keeps the seconds: keys move to other frames'
                : 'Keeps the frames: the shot gets shorter or longer in seconds'
            "
            (changed)="setRate($event)"
          />
          <kz-select
            label="Another rate keeps"
            [options]="keepings"
            [value]="keeps()"
            tip="Whether keys stay at their seconds or on their frames; set slopes stay per second or per frame with them"
            (chosen)="keeps.set($event)"
          />
          <kz-number-field
            label="Gravity"
            unit="m/s²"
            [values]="[project.gravity]"
            [decimals]="2"
            tip="For Free fall legs"
            (changed)="setGravity($event)"
          />
          <kz-number-field
            label="Floor"
            unit="m"
            [values]="[project.floor]"
            [decimals]="2"
            tip="Height of the ground"
            (changed)="setFloor($event)"
          />
        </div>
      </section>
      <section>
        <div class="section-head">
          <h3>Add a part</h3>
          <span>or drop a GLB or <span class="numbers">glTF</span></span>
        </div>
        <div class="add">
          @for (entry of parts.kinds; track entry.kind) {
            <button
              class="button"
              [kzRun]="'part.add-' + entry.kind"
              [kzTip]="'Add a ' + entry.name.toLowerCase()"
            >
              {{ entry.name }}
            </button>
          }
          <button class="button" kzRun="path.draw" kzTip="Press in the view where it goes">Path …</button>
        </div>
      </section>
      <section>
        <p class="note">Pick a part in the view or in the rows to see its values here.</p>
      </section>
    }
  `,
  styleUrl: './sheet.scss',
  styles: `
    .add {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
  `,
})
export class ShotSheetComponent {
  readonly studio = inject(Studio);
  readonly parts = inject(PartCommands);
  private readonly stage = inject(Stage);
  private readonly notices = inject(Notices);
  readonly project = computed(() => this.stage.shown());
  readonly rate = this.studio.framesPerSecond;
  readonly keeps = signal<'seconds' | 'frames'>('seconds');
  readonly keepings: readonly Option<'seconds' | 'frames'>[] = [
    { value: 'seconds', label: 'the seconds' },
    { value: 'frames', label: 'the frames' },
  ];
  readonly clips = computed((): readonly Option<string>[] =>
    (this.project()?.clips ?? []).map(({ id, name }) => ({ value: id, label: name })),
  );
  readonly length = computed(() => {
    const project = this.project();
    if (!project) return '';
    const frames = lastShownFrame(project.range) - project.range.start + 1;
    return `${frames} f, ${shownNumber(frames / this.rate(), 2)} s`;
  });

  private change(label: string, change: (project: Project) => Project): void {
    this.studio.edit(label, change);
  }

  rename(name: string): void {
    if (name.trim() !== '')
      this.change('Rename the project', (project) => ({ ...project, name: name.trim() }));
  }
  showClip(id: string): void {
    const name = this.clips().find(({ value }) => value === id)?.label ?? id;
    this.change(`Show the clip ${name}`, (project) => ({ ...project, activeClip: id }));
  }
  setStart(change: (value: number) => number): void {
    this.change('Range start', (project) => setRange(project, { start: change(project.range.start) }));
  }
  setEnd(change: (value: number) => number): void {
    this.change('Range end', (project) => setRange(project, { end: change(project.range.end) }));
  }
  setRate(change: (value: number) => number): void {
    const next = change(this.rate());
    if (!(next >= LEAST_RATE && next <= MOST_RATE)) {
      this.notices.warn(`Frames a second lie between ${LEAST_RATE} and ${MOST_RATE}; 24 is usual for film`);
      return;
    }
    const rate = rateOf(next);
    if (this.keeps() === 'frames')
      this.change('Frames a second, keeping frames', (project) => changeRateKeepingFrames(project, rate));
    else
      this.studio.edit('Frames a second, keeping seconds', (project) =>
        changeRateKeepingSeconds(project, rate),
      );
  }
  setGravity(change: (value: number) => number): void {
    this.change('Gravity', (project) => ({ ...project, gravity: change(project.gravity) }));
  }
  setFloor(change: (value: number) => number): void {
    this.change('Floor', (project) => ({ ...project, floor: change(project.floor) }));
  }
}
