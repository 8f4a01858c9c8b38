import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { CommandRegistry } from '../../commands/registry';
import type { TimeSettings } from '../../state/bench';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SegmentsComponent } from '../../ui/segments.component';
import { SelectComponent } from '../../ui/select.component';
import { KeyTools } from './key-tools';
import { TimeTools } from './time-tools';
import { ToolButtonsComponent, type ToolButton } from './tool-buttons.component';
import type { SideSheet } from '../stage/side-sheet';

/** The side sheet Time: selections, edits of time, Stakes, whole frames, waits and loops. */
@Component({
  selector: 'kz-time-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    MatTooltip,
    NumberFieldComponent,
    SegmentsComponent,
    SelectComponent,
    ToolButtonsComponent,
    RunDirective,
  ],
  templateUrl: './time-sheet.component.html',
  styleUrls: ['../side-sheet/sheet.scss', './time-sheet.component.scss'],
})
export class TimeSheetComponent {
  readonly studio = inject(Studio);
  readonly tools = inject(TimeTools);
  readonly keys = inject(KeyTools);
  readonly registry = inject(CommandRegistry);
  readonly rate = this.studio.framesPerSecond;
  readonly settings = this.tools.settings;
  readonly scopes: readonly Option<TimeSettings['scope']>[] = [
    { value: 'chosen', label: 'Chosen', tip: 'The channels of the chosen keys, channels or parts' },
    { value: 'all', label: 'All channels', tip: 'Every channel that has keys and is not locked' },
  ];
  readonly slopes: readonly Option<TimeSettings['slopes']>[] = [
    {
      value: 'shape',
      label: 'Shape stays',
      tip: 'Set slopes per frame go with the leg: a longer leg is less steep',
    },
    {
      value: 'speed',
      label: 'Speeds stay',
      tip: 'Set slopes per second stay as they are, however long the leg gets',
    },
  ];
  readonly rests: readonly Option<TimeSettings['rest']>[] = [
    {
      value: 'follows',
      label: 'Rest follows',
      tip: 'What lies after the stretched span goes along by whole',
    },
    { value: 'stays', label: 'Rest stays', tip: 'Only the span itself changes; keys outside it stay' },
  ];
  readonly abouts: readonly Option<TimeSettings['mirrorAbout']>[] = [
    { value: 'first', label: 'about the first key’s value' },
    { value: 'zero', label: 'about 0' },
    { value: 'playhead', label: 'about the value at the playhead' },
  ];
  readonly goes = [
    { id: 'range', label: 'Range', tip: 'The range’s end goes along, where all channels do' },
    {
      id: 'markers',
      label: 'Markers',
      tip: 'Markers and notes on the ruler go along, where all channels do',
    },
    { id: 'sounds', label: 'Sound', tip: 'Sounds on the ruler go along, where all channels do' },
  ] as const;
  readonly moves: readonly ToolButton[] = [
    {
      id: 'push-after',
      command: 'time.push-after',
      label: 'Push after',
      tip: 'Everything after the playhead moves later; the key on it stays',
    },
    {
      id: 'push-before',
      command: 'time.push-before',
      label: 'Push before',
      tip: 'Everything before the playhead moves earlier',
    },
    {
      id: 'open-gap',
      command: 'time.open-gap',
      label: 'Open gap',
      tip: 'What stands at the playhead or after it moves later',
    },
    {
      id: 'close-gap',
      command: 'time.close-gap',
      label: 'Close gap',
      tip: 'Cuts the frames after the playhead out, keys in them too',
    },
  ];
  readonly turns: readonly ToolButton[] = [
    {
      id: 'reverse',
      command: 'time.reverse',
      label: 'Reverse time',
      tip: 'Plays the span backwards: sides, legs and outsides too',
    },
    { id: 'mirror', command: 'time.mirror', label: 'Mirror values', tip: 'Turns the span upside down' },
  ];

  readonly touches = computed(() => {
    const scope = this.tools.scope();
    if (!scope || scope.channels.length === 0) return 'No channel has keys that are not locked.';
    const { span, channels, refs, all, locked } = scope;
    const what = refs.length > 0 ? `${refs.length} keys on ` : '';
    const where = span ? `, f ${shownFrame(span.start)} to ${shownFrame(span.end)}` : '';
    const nothing = all && this.settings().scope === 'chosen' ? ' (nothing is chosen)' : '';
    const left = locked > 0 ? `; ${locked} locked left alone` : '';
    return `${what}${all ? 'all ' : ''}${channels.length} channel${channels.length === 1 ? '' : 's'}${nothing}${where}${left}`;
  });
  readonly length = computed(() => {
    const span = this.tools.span();
    return span ? span.end - span.start : 0;
  });
  readonly off = computed(() => this.keys.offTheFrame().length);
  readonly shownFrame = shownFrame;
  /** The keys that take the playhead on and back by a step. */
  readonly stepKeys = computed(() =>
    ['play.next-frame', 'play.previous-frame']
      .flatMap((id) => {
        const command = this.registry.find(id);
        return command ? (this.registry.shortcutsOf(command)[0] ?? []) : [];
      })
      .join(' and '),
  );

  toggleMove(id: 'range' | 'markers' | 'sounds'): void {
    const { moves } = this.settings();
    this.tools.set({ moves: { ...moves, [id]: !moves[id] } });
  }

  setLength(change: (value: number) => number): void {
    this.tools.stretchToLength(change(this.length()));
  }

  previewLength(change: ((value: number) => number) | null): void {
    this.tools.showLength(change && change(this.length()));
  }

  /** A speed in per cent: 120 makes the span a sixth shorter. */
  setSpeed(change: (value: number) => number): void {
    const percent = change(100);
    if (percent > 0 && percent !== 100) this.tools.stretchBy(100 / percent);
  }

  /** Frames that the arrow keys move the playhead by: a thousandth of a frame at least. */
  setStep(frames: number): void {
    this.studio.set({ frameStep: Math.max(0.001, frames) });
  }
}

export const timeSheet: SideSheet = {
  id: 'time',
  label: 'Time',
  tip: 'Pushes, gaps, stretching, Stakes, waits and loops',
  component: TimeSheetComponent,
};
