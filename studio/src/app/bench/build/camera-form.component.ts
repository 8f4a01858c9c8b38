import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import {
  channelName,
  focusDriver,
  inWorld,
  keepFocusOn,
  letFocusGo,
  partOf,
  type CameraBlock,
  type Part,
  type Project,
  type Result,
  type Vec3,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownNumber } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { Poser } from '../posing/poser';
import { PartPicker } from '../stage/picker';
import { Stage } from '../stage/stage';
import { ViewControl } from '../stage/view-control';

type CameraPart = Part & { readonly kind: 'camera'; readonly camera: CameraBlock };

/** The circle of confusion that still looks sharp, as a share of the sensor's height: 0.024 mm on a sensor of 24 mm. */
const SHARP = 1 / 1000;

/** A camera of the shot: looking through it, and what it is focused on. */
@Component({
  selector: 'kz-camera-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip],
  template: `
    <section>
      <div class="section-head">
        <h3>Camera</h3>
        <span>{{ keptOn() ? 'focus kept on ' + keptOn() : 'focus by hand' }}</span>
      </div>
      <dl class="readings">
        <dt>angle of view, up and down</dt>
        <dd class="numbers">{{ angle() }}</dd>
        <dt>sharp from</dt>
        <dd class="numbers">{{ sharp().near }}</dd>
        <dt>sharp to</dt>
        <dd class="numbers">{{ sharp().far }}</dd>
      </dl>
      <div class="line wrap">
        <button
          class="button"
          [attr.aria-pressed]="isThrough()"
          matTooltip="Shows what this camera sees; V swaps with the working view"
          (click)="look()"
        >
          {{ isThrough() ? 'Working view' : 'Look through' }}
        </button>
        <button
          class="button"
          [disabled]="studio.readOnly() || keptOn() !== null"
          matTooltip="Pick a thing: its true distance at this frame becomes the focus, loose or as a key"
          (click)="askFocus()"
        >
          Focus on …
        </button>
        @if (keptOn() === null) {
          <button
            class="button"
            [disabled]="studio.readOnly()"
            matTooltip="Pick a part: the focus follows its distance on every frame"
            (click)="askKeep()"
          >
            Keep on a part …
          </button>
        } @else {
          <button
            class="button"
            [disabled]="studio.readOnly()"
            matTooltip="The focus is its own again: its keys count"
            (click)="letGo()"
          >
            Let go
          </button>
        }
      </div>
    </section>
  `,
  styleUrl: '../posing/squash-form.scss',
})
export class CameraFormComponent {
  readonly part = input.required<CameraPart>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly poser = inject(Poser);
  private readonly picker = inject(PartPicker);
  private readonly notices = inject(Notices);
  private readonly view = inject(ViewControl);

  readonly keptOn = computed(() => {
    const project = this.stage.shown();
    const driver = project && focusDriver(project, this.part().id);
    return driver ? (partOf(project, driver.to)?.name ?? driver.to) : null;
  });
  readonly isThrough = computed(() => this.view.shot() === this.part().id);

  private value(property: string, rest: number): number {
    return this.stage.valueOf(channelName(this.part().id, property)) ?? rest;
  }

  readonly angle = computed(() => {
    this.stage.now();
    const { camera } = this.part();
    const focal = this.value('camera.focalLength', camera.focalLength);
    return `${shownNumber((2 * Math.atan(camera.sensorHeight / (2 * focal)) * 180) / Math.PI, 1)} °`;
  });

  /** From where to where it is sharp at the playhead, by the thin-lens formula with the hyperfocal distance. */
  readonly sharp = computed(() => {
    this.stage.now();
    const { camera } = this.part();
    const focal = this.value('camera.focalLength', camera.focalLength) / 1000;
    const stop = this.value('camera.fStop', camera.fStop);
    const focus = this.value('camera.focusDistance', camera.focusDistance);
    const hyperfocal = (focal * focal) / (stop * SHARP * (camera.sensorHeight / 1000)) + focal;
    const near = (focus * (hyperfocal - focal)) / (hyperfocal + focus - 2 * focal);
    const far = focus >= hyperfocal ? Infinity : (focus * (hyperfocal - focal)) / (hyperfocal - focus);
    const metres = (value: number) => (Number.isFinite(value) ? `${shownNumber(value, 2)} m` : 'without end');
    return { near: metres(near), far: metres(far) };
  });

  look(): void {
    this.view.shot.set(this.isThrough() ? null : this.part().id);
  }

  askFocus(): void {
    const { id, name } = this.part();
    this.picker.ask({
      words: `Pick what ${name} is focused on`,
      refuse: (part) => (part === id ? 'the camera itself is no answer: pick a thing it sees' : null),
      take: (part, place) => this.focusOn(part, place),
    });
  }

  /** The place that was pressed on, or, of a row, the part's pivot. */
  private focusOn(part: string, place: Vec3 | null): void {
    const lens = this.pivotOf(this.part().id);
    const thing = place ?? this.pivotOf(part);
    if (!lens || !thing) return;
    const distance = Math.hypot(thing[0] - lens[0], thing[1] - lens[1], thing[2] - lens[2]);
    this.poser.take(`Focus of ${this.part().name}`, [
      { channel: channelName(this.part().id, 'camera.focusDistance'), value: distance },
    ]);
    this.notices.tell(`Focused at ${shownNumber(distance, 3)} m`);
  }

  private pivotOf(id: string): Vec3 | null {
    const now = this.stage.now();
    const i = now?.program.structure.partIndex.get(id);
    if (!now || i === undefined) return null;
    return inWorld(now.out.world[i]!, now.program.structure.parts[i]!.pivot);
  }

  askKeep(): void {
    const { id, name } = this.part();
    this.picker.ask({
      words: `Pick what ${name} is kept sharp on`,
      refuse: (part) => (part === id ? 'the camera itself is no answer: pick a thing it sees' : null),
      take: (part) => this.edit(`Focus of ${name}`, (project) => keepFocusOn(project, id, part)),
    });
  }

  letGo(): void {
    const { id, name } = this.part();
    this.edit(`Focus of ${name}`, (project) => letFocusGo(project, id));
  }

  private edit(label: string, edit: (project: Project) => Result<Project>): void {
    const project = this.studio.project();
    if (!project) return;
    const made = edit(project);
    if (made.ok) this.studio.edit(label, () => made.value);
    else this.notices.warn(`${made.problems[0]?.message ?? 'That can’t be'}. Nothing was changed.`);
  }
}
