import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject } from '@angular/core';
import { framesPerSecond, timingSheet } from '@kaizen/core';
import { standingWords } from '../bench/interlock/interlock-hands';
import { channelLabel } from '../bench/stage/channel-label';
import { awaitedWords, gapWords } from '../bench/stage/interlock-words';
import { offerCommands } from '../commands/offer-commands';
import { RunDirective } from '../commands/run.directive';
import { Studio } from '../state/studio';
import { Theme } from '../ui/theme';
import { decimalsOf, shownFrame, shownNumber } from '../ui/amount';
import { drawTiming, LEFT, ROW, TOP, WIDTH } from './timing-drawing';

/** The timing sheet of the machine: which channel moves when, what waits for what; made to be printed. */
@Component({
  selector: 'kz-timing-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective],
  templateUrl: './timing-sheet.component.html',
  styleUrl: './timing-sheet.component.scss',
})
export class TimingSheetComponent {
  readonly studio = inject(Studio);
  private readonly theme = inject(Theme);
  readonly left = LEFT;
  readonly width = WIDTH;
  readonly top = TOP;
  readonly row = ROW;
  readonly frame = shownFrame;

  readonly sheet = computed(() => {
    const project = this.studio.project();
    return project ? timingSheet(project) : null;
  });
  readonly drawing = computed(() => {
    const [project, sheet] = [this.studio.project(), this.sheet()];
    return project && sheet && sheet.channels.length > 0 ? drawTiming(project, sheet) : null;
  });
  readonly cycle = computed(() => {
    const project = this.studio.project();
    if (!project) return '';
    const { range, rate } = project;
    const frames = range.end - range.start;
    const seconds = shownNumber(frames / framesPerSecond(rate), 2);
    return `${range.loop ? 'cycle of ' : ''}${shownFrame(frames)} f, ${seconds} s at ${shownFrame(framesPerSecond(rate))} f/s`;
  });
  readonly clip = computed(() => {
    const project = this.studio.project();
    return project?.clips.find(({ id }) => id === project.activeClip)?.name ?? '';
  });

  /** The moves one by one, as the table below the drawing has them. */
  readonly moves = computed(() => {
    const [project, sheet] = [this.studio.project(), this.sheet()];
    if (!project || !sheet) return [];
    const rate = framesPerSecond(project.rate);
    return sheet.channels.flatMap(({ channel, moves }) => {
      const { full, unit } = channelLabel(project, channel);
      const value = (number: number) => `${shownNumber(number, decimalsOf(unit))} ${unit}`.trim();
      return moves.map(({ from, to, first, last }) => ({
        name: full,
        first: shownFrame(first),
        last: shownFrame(last),
        seconds: shownNumber((last - first) / rate, 3),
        from: value(from),
        to: value(to),
      }));
    });
  });
  readonly ties = computed(() => {
    const [project, sheet] = [this.studio.project(), this.sheet()];
    if (!project || !sheet) return [];
    return sheet.interlocks.map(({ lock, standing }) => ({
      name: `${channelLabel(project, lock.channel).full} at f ${shownFrame(lock.frame)}`,
      rule: `${gapWords(lock)} ${awaitedWords(project, lock.after)}`,
      due: standing.due === null ? 'never' : `f ${shownFrame(standing.due)}`,
      ...standingWords(project, lock),
    }));
  });

  constructor() {
    // on paper it is day: light ink would not be seen there
    const theme = document.documentElement.dataset;
    const toDay = () => (theme['theme'] = 'day');
    const back = () => (theme['theme'] = this.theme.name());
    addEventListener('beforeprint', toDay);
    addEventListener('afterprint', back);
    inject(DestroyRef).onDestroy(() => {
      removeEventListener('beforeprint', toDay);
      removeEventListener('afterprint', back);
    });
    offerCommands([
      { id: 'timing.print', label: 'Print the timing sheet', group: 'Project', run: () => window.print() },
    ]);
  }
}
