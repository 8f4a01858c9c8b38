import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { curveOf, seamSpeedCanClose, type SeamGap, type SeamMove } from '@kaizen/core';
import { onItem } from '../../commands/command';
import { offerCommands } from '../../commands/offer-commands';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { decimalsOf, shownFrame, signedNumber } from '../../ui/amount';
import { channelLabel } from '../stage/channel-label';
import { isClosed } from '../plot/plot-notes';
import { Stage } from '../stage/stage';
import { Proposals, type Proposal } from '../stage/proposals';
import { ShapeTools } from './shape-tools';

type Gap = SeamGap & { readonly channel: string };

/** One way to close a seam, in its value or its speed. */
interface Closing {
  readonly gap: Gap;
  readonly what: 'value' | 'speed';
  readonly how: SeamMove;
}

const MOVES: readonly { readonly how: SeamMove; readonly label: string; readonly tip: string }[] = [
  { how: 'outer', label: 'move the last', tip: 'The key at the end takes what the loop starts with' },
  { how: 'both', label: 'both', tip: 'Both ends meet half way' },
  { how: 'carry', label: 'carry', tip: 'Carry on from where it arrived: Loop and carry' },
];

/** How well the loops of the chosen channels close: the gap of value, speed and acceleration at each seam, and what closes it. */
@Component({
  selector: 'kz-seam-gauge',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RunDirective],
  template: `
    @if (gaps().length > 0) {
      <div class="gauge" role="group" aria-label="Seam gauge">
        <h4>Seam gauge</h4>
        <div class="grid">
          <span class="soft">seam</span>
          @for (head of heads(); track head) {
            <span class="soft">{{ head }}</span>
          }
          @for (gap of gaps(); track $index) {
            <span class="numbers place">{{ place(gap) }}</span>
            @for (cell of cells(gap); track cell.what) {
              <span class="numbers gap" [class.closed]="cell.closed" [attr.data-gap]="cell.what">{{
                cell.text
              }}</span>
            }
          }
        </div>
        @for (gap of gaps(); track $index) {
          @if (gaps().length > 1) {
            <p class="soft where">{{ place(gap) }}</p>
          }
          @for (line of lines; track line.what) {
            <div class="close">
              <span class="soft">{{ line.label }}</span>
              @for (move of line.moves; track move.how) {
                <button
                  class="button"
                  kzRun="shape.close-seam"
                  [kzOf]="{ gap, what: line.what, how: move.how }"
                  [kzTip]="tip(gap, line.what, move.tip)"
                  [attr.aria-label]="'Close the seam in ' + line.what + ': ' + move.label"
                  (pointerenter)="proposals.show(offer({ gap, what: line.what, how: move.how }))"
                  (pointerleave)="proposals.drop()"
                  (focus)="proposals.show(offer({ gap, what: line.what, how: move.how }))"
                  (blur)="proposals.drop()"
                >
                  {{ move.label }}
                </button>
              }
            </div>
          }
        }
      </div>
    }
  `,
  styles: `
    .gauge {
      margin: 4px 0 10px;
    }
    h4 {
      margin: 0 0 4px;
      font-size: 12px;
      font-weight: 600;
    }
    .grid {
      display: grid;
      grid-template-columns: minmax(104px, auto) auto auto auto;
      justify-content: space-between;
      align-items: end;
      gap: 2px 10px;
      margin-bottom: 6px;
      font-size: 12px;
    }
    /* one line whatever its frames: what lies below stays where it is while an offer is shown */
    .place {
      white-space: nowrap;
    }
    .gap {
      color: var(--caution);
    }
    .gap.closed {
      color: var(--ok);
    }
    .close {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px;
      margin-bottom: 4px;
      font-size: 12px;
    }
    .close > span {
      width: 82px;
    }
    .close .button {
      padding: 0 7px;
    }
    .where {
      margin: 4px 0 2px;
      font-size: 12px;
    }
  `,
})
export class SeamGaugeComponent {
  private readonly studio = inject(Studio);
  readonly proposals = inject(Proposals);
  private readonly stage = inject(Stage);
  private readonly tools = inject(ShapeTools);
  readonly lines = [
    { what: 'value' as const, label: 'Close the value', moves: MOVES },
    { what: 'speed' as const, label: 'the speed', moves: MOVES.slice(0, 2) },
  ];
  /** More seams than a sheet has room for are told of the first channels only. */
  readonly gaps = computed(() => this.tools.gaps().slice(0, 4));

  constructor() {
    offerCommands([
      onItem<Closing>({
        id: 'shape.close-seam',
        label: 'Close the seam of the loop: its last key takes what the loop starts with',
        group: 'Shape',
        meant: () => {
          const gap = this.gaps().find((each) => !this.isClosed(each, 'value'));
          return gap ? { gap, what: 'value', how: 'outer' } : null;
        },
        when: (closing) => this.canClose(closing),
        run: (closing) => this.proposals.take(this.offer(closing)),
      }),
    ]);
  }

  place(gap: Gap): string {
    const project = this.stage.shown();
    const many = new Set(this.gaps().map(({ channel }) => channel)).size > 1;
    const name = many && project ? `${channelLabel(project, gap.channel).short}, ` : '';
    return `${name}f ${shownFrame(gap.frame)} to ${shownFrame(gap.to)}`;
  }

  /** The columns with their units, where all seams have the same. */
  readonly heads = computed(() => {
    const project = this.stage.shown();
    const units = this.gaps().map(({ channel }) => (project ? channelLabel(project, channel).unit : ''));
    const unit = units.every((each) => each === units[0]) ? units[0]! : '';
    return [`value ${unit}`, `speed ${unit}/s`, `accel. ${unit}/s²`];
  });

  cells(gap: Gap) {
    const project = this.stage.shown();
    const unit = project ? channelLabel(project, gap.channel).unit : '';
    return (['value', 'speed', 'acceleration'] as const).map((what, order) => {
      const own = unit + ['', '/s', '/s²'][order]!;
      return {
        what,
        text: signedNumber(gap[what], decimalsOf(order === 0 ? unit : own)),
        closed: this.isClosed(gap, what),
      };
    });
  }

  /** Whether something is left to close that can be; while what closes it is rested on the press stays possible. */
  private canClose({ gap, what }: Closing): boolean {
    if (this.studio.readOnly() || (what === 'speed' && !this.speedCanClose(gap))) return false;
    return this.proposals.shown() !== null || !this.isClosed(gap, what);
  }

  private isClosed(gap: Gap, what: 'value' | 'speed' | 'acceleration'): boolean {
    return isClosed(gap[what]);
  }

  private speedCanClose(gap: Gap): boolean {
    const project = this.studio.project();
    const curve = project && curveOf(project, gap.channel);
    return curve ? seamSpeedCanClose(curve, gap.side) : false;
  }

  tip(gap: Gap, what: 'value' | 'speed', tip: string): string {
    return what === 'value' || this.speedCanClose(gap)
      ? tip
      : 'Both legs at the seam must be curves; convert them first';
  }

  offer({ gap, what, how }: Closing): Proposal {
    return this.tools.closeSeam(gap.channel, gap.side, what, how);
  }
}
