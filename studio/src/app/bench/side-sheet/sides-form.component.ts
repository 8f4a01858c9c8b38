import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { reshapeKeySpeed, secondsPerFrame, setJoined, setReach, setSpeed, type SideMode } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { optionsOf, type Option } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { SelectComponent } from '../../ui/select.component';
import { ShapeTools, type SideScope } from '../shaping/shape-tools';
import { Stage } from '../stage/stage';
import { SIDE_LABELS, SIDE_TIPS } from '../stage/words';
import {
  common,
  legsWithoutSides,
  sideModes,
  sideSpeeds,
  type ChosenKey,
  type SideName,
} from '../shaping/chosen-keys';

/** How the curves meet the chosen keys: modes, speeds and reaches of their sides, points, handles. */
@Component({
  selector: 'kz-sides-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, NumberFieldComponent, SegmentsComponent, SelectComponent, RunDirective],
  templateUrl: './sides-form.component.html',
  styleUrl: './sheet.scss',
})
export class SidesFormComponent {
  readonly keys = input.required<readonly ChosenKey[]>();
  readonly unit = input.required<string>();
  readonly studio = inject(Studio);
  private readonly tools = inject(ShapeTools);
  private readonly stage = inject(Stage);
  readonly sideModes: readonly Option<SideMode>[] = optionsOf(SIDE_LABELS).map((option) => ({
    ...option,
    tip: SIDE_TIPS[option.value],
  }));
  readonly joinings: readonly Option<boolean>[] = [
    { value: true, label: 'Joined', tip: 'Both slopes move together' },
    { value: false, label: 'Split', tip: 'Each side by itself: a corner' },
  ];
  private readonly refs = computed(() => this.keys().map(({ ref }) => ref));
  readonly sides = computed(() => {
    const project = this.stage.shown();
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
  readonly unused = computed(() => legsWithoutSides(this.keys()));
  readonly joined = computed(() => common(this.keys().map(({ key }) => key.joined)));
  readonly scope = signal<SideScope>('all');
  readonly scopes: readonly Option<SideScope>[] = [
    { value: 'all', label: 'of every key' },
    { value: 'first', label: 'only the first departure' },
    { value: 'last', label: 'only the last arrival' },
  ];
  readonly handleSets = [
    { command: 'handles.arriving', label: 'arriving', tip: 'Choose the handles that arrive at these keys' },
    { command: 'handles.leaving', label: 'leaving', tip: 'Choose the handles that leave these keys' },
    { command: 'handles.both', label: 'both', tip: 'Choose both handles of these keys' },
  ];
  /** The lines of side modes: arrives, leaves and both; of a first departure or last arrival the one that there is. */
  readonly sideLines = computed(() => {
    const [into, out] = this.sides();
    if (this.keys().length > 1 && this.scope() === 'first') return [out!];
    if (this.keys().length > 1 && this.scope() === 'last') return [into!];
    const mode = common([into!.mode, out!.mode]);
    return [into!, out!, { name: 'both' as const, word: 'both', mode }];
  });

  setSide(side: SideName | 'both', mode: SideMode): void {
    this.tools.setSides(this.keys().length > 1 ? this.scope() : 'all', side, mode);
  }

  /** Sets the slopes of a side; while places move in Rates, the keys behind move along as dragging the speed has it. */
  setSpeeds(side: SideName, change: (value: number) => number): void {
    const project = this.studio.project();
    if (!project) return;
    const { density, shaping } = this.studio.bench();
    const free = density === 'rates' && shaping.lock === 'free';
    const seconds = secondsPerFrame(project.rate);
    const list = this.keys().filter(({ curve, index }) => curve.keys[side === 'out' ? index + 1 : index - 1]);
    this.studio.edit('Set speed', (now) =>
      list.reduce((at, chosen) => {
        const was = sideSpeeds(project, [chosen], side)[0] ?? 0;
        return free
          ? reshapeKeySpeed(at, chosen.ref, side, (change(was) - was) * seconds, 'free')
          : setSpeed(at, [chosen.ref], side, change(was));
      }, now),
    );
  }

  setReaches(side: SideName, change: (value: number) => number): void {
    this.studio.edit('Set reach', (project) =>
      this.keys().reduce((at, { ref, key }) => setReach(at, [ref], side, change(key[side].reach)), project),
    );
  }

  setJoined(joined: boolean): void {
    this.studio.edit(joined ? 'Join sides' : 'Split sides', (project) =>
      setJoined(project, this.refs(), joined),
    );
  }
}
