import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import {
  channelKind,
  mapKeyPlaces,
  splitChannel,
  setJoined,
  setLeg,
  setReach,
  setSideMode,
  setSpeed,
  type CamLaw,
  type EaseFamily,
  type EaseSlow,
  type Leg,
  type LegKind,
  type Project,
  type SideMode,
} from '@kaizen/core';
import { CommandRegistry } from '../../commands/registry';
import { Studio } from '../../state/studio';
import { decimalsOf } from '../../ui/amount';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { optionsOf, type Option } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { SelectComponent } from '../../ui/select.component';
import { VectorFieldComponent } from '../../ui/vector-field.component';
import { channelLabel } from '../channel-label';
import { Stage } from '../stage';
import {
  AXIS_LETTERS,
  EASE_LABELS,
  LAW_LABELS,
  LEG_LABELS,
  SIDE_LABELS,
  SIDE_TIPS,
  SLOW_LABELS,
} from '../words';
import {
  chosenKeys,
  common,
  legNumber,
  legNumbers,
  legOfKind,
  sideModes,
  sideSpeeds,
  withLegNumber,
  type LegNumber,
  type SideName,
} from './chosen-keys';
import { OutsideFormComponent } from './outside-form.component';

/** The side sheet Key: everything about the chosen keys by number and by name. */
@Component({
  selector: 'kz-key-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    MatTooltip,
    NumberFieldComponent,
    OutsideFormComponent,
    SegmentsComponent,
    SelectComponent,
    VectorFieldComponent,
  ],
  templateUrl: './key-sheet.component.html',
  styleUrl: './sheet.scss',
})
export class KeySheetComponent {
  readonly studio = inject(Studio);
  readonly registry = inject(CommandRegistry);
  private readonly stage = inject(Stage);
  readonly sideModes: readonly Option<SideMode>[] = optionsOf(SIDE_LABELS).map((option) => ({
    ...option,
    tip: SIDE_TIPS[option.value],
  }));
  readonly joinings: readonly Option<boolean>[] = [
    { value: true, label: 'Joined', tip: 'Both slopes move together' },
    { value: false, label: 'Split', tip: 'Each side by itself: a corner' },
  ];
  readonly legKinds = optionsOf(LEG_LABELS);
  readonly families = optionsOf(EASE_LABELS);
  readonly slows = optionsOf(SLOW_LABELS);
  readonly laws = optionsOf(LAW_LABELS);

  private readonly project = computed(() => this.stage.shown());
  readonly keys = computed(() => {
    const project = this.project();
    return project ? chosenKeys(project, this.studio.bench().keys) : [];
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
  readonly sides = computed(() => {
    const project = this.project();
    const keys = this.keys();
    const one = (name: SideName, word: string) => ({
      name,
      word,
      mode: sideModes(keys, name),
      speeds: project ? sideSpeeds(project, keys, name) : [],
      reaches: keys.map(({ key }) => key[name].reach),
    });
    return [one('in', 'arrives'), one('out', 'leaves')];
  });
  readonly joined = computed(() => common(this.keys().map(({ key }) => key.joined)));
  readonly legKind = computed(() => common(this.keys().map(({ key }) => key.leg.kind)));
  readonly leg = computed((): Leg | null =>
    this.legKind() === null ? null : (this.keys()[0]?.key.leg ?? null),
  );
  readonly legIsMixed = computed(
    () => new Set(this.keys().map(({ key }) => JSON.stringify(key.leg))).size > 1,
  );
  readonly numbers = computed(() => {
    const leg = this.leg();
    return leg ? legNumbers(leg) : [];
  });
  readonly gravity = computed(() => {
    const leg = this.leg();
    return leg?.kind === 'ballistic' ? (leg.gravity ?? this.project()?.gravity ?? 9.81) : 0;
  });

  private edit(label: string, change: (project: Project) => Project): void {
    this.studio.edit(label, change);
  }

  setFrames(change: (value: number) => number): void {
    const refs = this.refs();
    const place = (frame: number) => Math.round(change(frame) * 1e6) / 1e6;
    this.edit('Set frame', (project) =>
      mapKeyPlaces(project, refs, (key) => ({ frame: place(key.frame), value: key.value })),
    );
    this.studio.pick({ keys: refs.map((ref) => ({ ...ref, frame: place(ref.frame) })), handles: [] });
  }

  setPlace(axis: number, change: (value: number) => number): void {
    const ending = `.${AXIS_LETTERS[axis]!.toLowerCase()}`;
    const refs = this.refs().filter(({ channel }) => channel.endsWith(ending));
    this.edit('Set place', (project) =>
      mapKeyPlaces(project, refs, (key) => ({ frame: key.frame, value: change(key.value) })),
    );
  }

  setValues(change: (value: number) => number): void {
    this.edit('Set value', (project) => this.withValues(project, change));
  }

  showValues(change: ((value: number) => number) | null): void {
    const project = this.studio.project();
    this.stage.preview.set(change && project ? this.withValues(project, change) : null);
  }

  private withValues(project: Project, change: (value: number) => number): Project {
    return mapKeyPlaces(project, this.refs(), (key) => ({ frame: key.frame, value: change(key.value) }));
  }

  toWholeFrames(): void {
    this.setFrames(Math.round);
  }

  setSide(side: SideName, mode: SideMode): void {
    const word = side === 'in' ? 'arrives' : 'leaves';
    this.edit(`${SIDE_LABELS[mode]}, ${word}`, (project) => setSideMode(project, this.refs(), side, mode));
  }

  setSpeeds(side: SideName, change: (value: number) => number): void {
    const project = this.studio.project();
    if (!project) return;
    const list = this.keys().filter(({ curve, index }) => curve.keys[side === 'out' ? index + 1 : index - 1]);
    this.edit('Set speed', (now) =>
      list.reduce(
        (at, chosen) => setSpeed(at, [chosen.ref], side, change(sideSpeeds(project, [chosen], side)[0] ?? 0)),
        now,
      ),
    );
  }

  setReaches(side: SideName, change: (value: number) => number): void {
    this.edit('Set reach', (project) =>
      this.keys().reduce((at, { ref, key }) => setReach(at, [ref], side, change(key[side].reach)), project),
    );
  }

  setJoined(joined: boolean): void {
    this.edit(joined ? 'Join sides' : 'Split sides', (project) => setJoined(project, this.refs(), joined));
  }

  setLeg(leg: Leg): void {
    this.edit(`Leg: ${LEG_LABELS[leg.kind]}`, (project) => setLeg(project, this.refs(), leg));
  }

  setKind(kind: LegKind): void {
    if (kind !== this.legKind() || this.legIsMixed()) this.setLeg(legOfKind(kind));
  }

  setFamily(family: EaseFamily): void {
    const leg = this.leg();
    if (leg?.kind === 'ease') this.setLeg({ kind: 'ease', family, slow: leg.slow });
  }

  setSlow(slow: EaseSlow): void {
    const leg = this.leg();
    if (leg?.kind === 'ease') this.setLeg({ ...leg, slow });
  }

  setLaw(law: CamLaw): void {
    this.setLeg({ kind: 'law', law });
  }

  numberValues(number: LegNumber): readonly number[] {
    return this.keys().map(({ key }) => legNumber(key.leg, number));
  }

  setNumber(number: LegNumber, change: (value: number) => number): void {
    this.edit(number.label, (project) =>
      this.keys().reduce(
        (at, { ref, key }) =>
          setLeg(at, [ref], withLegNumber(key.leg, number, change(legNumber(key.leg, number)))),
        project,
      ),
    );
  }

  setGravity(gravity: number | null): void {
    this.setLeg({ kind: 'ballistic', gravity });
  }

  setOwnGravity(change: (value: number) => number): void {
    this.setGravity(change(this.gravity()));
  }
}
