import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { channelKind, mapKeyPlaces, splitChannel, type Edit } from '@kaizen/core';
import { CommandRegistry } from '../../commands/registry';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { decimalsOf } from '../../ui/amount';
import { InTurnDirective } from '../../ui/in-turn.directive';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { VectorFieldComponent } from '../../ui/vector-field.component';
import { channelLabel } from '../stage/channel-label';
import { Proposals } from '../stage/proposals';
import { Stage } from '../stage/stage';
import { AXIS_LETTERS } from '../stage/words';
import { chosenKeys, common } from '../shaping/chosen-keys';
import { ScaleFormComponent } from '../shaping/scale-form.component';
import { ShapeTools } from '../shaping/shape-tools';
import { WaitsFormComponent } from '../interlock/waits-form.component';
import { LegFormComponent } from './leg-form.component';
import { OutsideFormComponent } from './outside-form.component';
import { SidesFormComponent } from './sides-form.component';
import type { SideSheet } from '../stage/side-sheet';

/** The side sheet Key: everything about the chosen keys by number and by name. */
@Component({
  selector: 'kz-key-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    InTurnDirective,
    MatTooltip,
    NumberFieldComponent,
    OutsideFormComponent,
    LegFormComponent,
    ScaleFormComponent,
    SidesFormComponent,
    VectorFieldComponent,
    RunDirective,
    WaitsFormComponent,
  ],
  templateUrl: './key-sheet.component.html',
  styleUrl: './sheet.scss',
})
export class KeySheetComponent {
  readonly studio = inject(Studio);
  readonly registry = inject(CommandRegistry);
  private readonly stage = inject(Stage);
  private readonly proposals = inject(Proposals);

  private readonly project = computed(() => this.stage.shown());
  readonly keys = computed(() => {
    const project = this.project();
    return project ? chosenKeys(project, this.proposals.bench().keys) : [];
  });
  readonly refs = computed(() => this.keys().map(({ ref }) => ref));
  readonly channels = computed(() => [...new Set(this.keys().map(({ ref }) => ref.channel))]);
  readonly title = computed(() => {
    const project = this.project();
    const keys = this.keys();
    const [first] = this.channels();
    if (!project || first === undefined) return '';
    if (this.channels().length > 1) return `${keys.length} keys on ${this.channels().length} channels`;
    return `${keys.length === 1 ? 'Key' : `${keys.length} keys`} of ${channelLabel(project, first).full}`;
  });
  /** Which of its curve's keys the one that is chosen is. */
  readonly position = computed(() => {
    const [only, more] = this.keys();
    return only && !more ? `key ${only.index + 1} of ${only.curve.keys.length}` : null;
  });
  readonly unit = computed(() => {
    const project = this.project();
    return project
      ? (common(this.channels().map((channel) => channelLabel(project, channel).unit)) ?? '')
      : '';
  });
  readonly decimals = computed(() => decimalsOf(this.unit()));
  /** The place along X, Y and Z where the chosen keys are those of one part's place at one frame; else null. */
  readonly place = computed((): readonly number[] | null => {
    const keys = this.keys();
    const whole = keys.every(
      ({ ref }) =>
        ref.frame === keys[0]!.ref.frame &&
        splitChannel(ref.channel).part === splitChannel(keys[0]!.ref.channel).part &&
        channelKind(splitChannel(ref.channel).property) === 'place',
    );
    if (!whole || keys.length < 2) return null;
    return AXIS_LETTERS.map(
      (letter) => keys.find(({ ref }) => ref.channel.endsWith(`.${letter.toLowerCase()}`))?.key.value,
    ) as readonly number[];
  });
  readonly frames = computed(() => this.refs().map((ref) => ref.frame));
  readonly values = computed(() => this.keys().map(({ key }) => key.value));
  readonly offFrame = computed(() => this.frames().filter((frame) => !Number.isInteger(frame)).length);
  readonly framesPerSecond = this.studio.framesPerSecond;
  readonly tools = inject(ShapeTools);
  private edit(label: string, change: Edit): void {
    this.studio.edit(label, change);
  }

  setFrames(change: (value: number) => number): void {
    const refs = this.refs();
    const place = (frame: number) => Math.round(change(frame) * 1e6) / 1e6;
    this.edit('Set frame', (project) =>
      mapKeyPlaces(project, refs, (key) => ({ frame: place(key.frame), value: key.value })),
    );
  }

  setPlace(axis: number, change: (value: number) => number): void {
    const ending = `.${AXIS_LETTERS[axis]!.toLowerCase()}`;
    const refs = this.refs().filter(({ channel }) => channel.endsWith(ending));
    this.edit('Set place', (project) =>
      mapKeyPlaces(project, refs, (key) => ({ frame: key.frame, value: change(key.value) })),
    );
  }

  setValues(change: (value: number) => number): void {
    this.edit('Set value', this.withValues(change));
  }

  showValues(change: ((value: number) => number) | null): void {
    if (change) this.proposals.show({ label: 'Set value', edit: this.withValues(change) });
    else this.proposals.drop();
  }

  private withValues(change: (value: number) => number): Edit {
    const refs = this.refs();
    return (project) =>
      mapKeyPlaces(project, refs, (key) => ({ frame: key.frame, value: change(key.value) }));
  }
}

export const keySheet: SideSheet = {
  id: 'key',
  label: 'Key',
  tip: 'The chosen keys',
  component: KeySheetComponent,
  countsKeys: true,
};
