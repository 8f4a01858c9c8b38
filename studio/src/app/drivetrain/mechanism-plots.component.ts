import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { LINKAGES, type Jet, type LinkageDriver } from '@kaizen/core';
import { Stage } from '../bench/stage/stage';
import { switching } from '../commands/command';
import { offerCommands } from '../commands/offer-commands';
import { RunDirective } from '../commands/run.directive';
import { shownNumber } from '../ui/amount';
import { MechanismFigureComponent } from './mechanism-figure.component';

const [WIDTH, HEIGHT, LEFT, RIGHT] = [440, 96, 60, 10] as const;
const COUNT = 361;

/** One curve over the input: a value, or how it changes with the input. */
interface Plot {
  readonly title: string;
  readonly path: string;
  readonly ticks: readonly { readonly y: number; readonly text: string }[];
  /** Where it is now, in pixels. */
  readonly now: { readonly x: number; readonly y: number; readonly text: string } | null;
}

/**
 * A mechanism over its input: an output with its first and second change by the input, exact as its mathematics has them; dead
 * centres, where the output turns back, as dashed lines; where it is at the playhead.
 */
@Component({
  selector: 'kz-mechanism-plots',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, MechanismFigureComponent, RunDirective],
  template: `
    @if (mechanism(); as mechanism) {
      <kz-mechanism-figure
        [linkage]="driver().linkage"
        [params]="mechanism.params"
        [mechanism]="mechanism.made"
        [span]="span()"
        [at]="inputs()"
      />
    }
    <div class="hand">
      <input
        type="range"
        step="any"
        [min]="span()[0]"
        [max]="span()[1]"
        [value]="inputs()[0] ?? 0"
        aria-label="Turned by hand"
        matTooltip="Looks at it elsewhere, without changing anything"
        (input)="hand.set(+$any($event.target).value)"
      />
      <button class="button toggle" kzRun="drivetrain.playhead" kzTip="Follows the playhead again">
        At the playhead
      </button>
    </div>
    @for (plot of plots(); track plot.title) {
      <h4>{{ plot.title }}</h4>
      <svg [attr.viewBox]="'0 0 ' + width + ' ' + height" role="img" [attr.aria-label]="plot.title">
        @for (tick of plot.ticks; track tick.text) {
          <path class="grid" [attr.d]="'M' + left + ' ' + tick.y + 'H' + (width - right)" />
          <text [attr.x]="left - 6" [attr.y]="tick.y + 4">{{ tick.text }}</text>
        }
        @for (gap of gaps(); track gap.x) {
          <rect class="gap" [attr.x]="gap.x" y="4" [attr.width]="gap.width" [attr.height]="height - 8">
            <title>It can’t be here: its lengths don’t reach</title>
          </rect>
        }
        @for (centre of centres(); track $index) {
          <path class="centre" [attr.d]="'M' + centre + ' 4V' + (height - 4)" />
        }
        <path class="curve" [attr.d]="plot.path" />
        @if (plot.now; as now) {
          <path class="now" [attr.d]="'M' + now.x + ' 2V' + (height - 2)" />
          <circle class="dot" [attr.cx]="now.x" [attr.cy]="now.y" r="3.5" />
          <text class="value" [attr.x]="now.x + (now.x > 330 ? -8 : 8)" y="14" [class.left]="now.x > 330">
            {{ now.text }}
          </text>
        }
      </svg>
    }
    <p class="note">{{ words() }}</p>
  `,
  styles: `
    :host {
      display: block;
    }
    h4 {
      margin: 8px 0 2px;
      font-size: 13px;
      font-weight: 600;
    }
    svg {
      display: block;
      width: 100%;
      background: var(--field);
      border: 1px solid var(--rule);
      border-radius: var(--radius);
    }
    path {
      fill: none;
    }
    .hand {
      display: flex;
      gap: 8px;
      align-items: center;
      margin: 8px 0;

      input {
        flex: 1;
        accent-color: var(--select);
      }
    }
    .grid {
      stroke: var(--rule);
    }
    .gap {
      fill: color-mix(in srgb, var(--warn) 16%, transparent);
    }
    .centre {
      stroke: var(--ink-soft);
      stroke-dasharray: 4 3;
    }
    .curve {
      stroke: var(--axis-x);
      stroke-width: 1.75;
    }
    .now {
      stroke: var(--ink);
    }
    .dot {
      fill: var(--ink);
    }
    text {
      fill: var(--ink-soft);
      font:
        11px 'IBM Plex Mono',
        monospace;
      text-anchor: end;
    }
    .value {
      /* its own ground, as the curve goes under it */
      paint-order: stroke;
      stroke: var(--field);
      stroke-width: 4px;
      fill: var(--ink);
      text-anchor: start;

      &.left {
        text-anchor: end;
      }
    }
  `,
})
export class MechanismPlotsComponent {
  readonly driver = input.required<LinkageDriver>();
  private readonly stage = inject(Stage);
  readonly width = WIDTH;
  readonly height = HEIGHT;
  readonly left = LEFT;
  readonly right = RIGHT;

  /** The mechanism with its dimensions, and which of its outputs is asked for. */
  readonly mechanism = computed(() => {
    const { linkage: name, params, output } = this.driver();
    const linkage = LINKAGES.get(name);
    const read = linkage?.read(params);
    if (!linkage || !read || 'message' in read) return null;
    const filled = read.params as Readonly<Record<string, unknown>>;
    return {
      linkage,
      params: filled,
      made: read.make(),
      place: Math.max(0, linkage.outputs.indexOf(output)),
    };
  });

  /** Where it is looked at by hand; null: at the playhead. */
  readonly hand = signal<number | null>(null);

  constructor() {
    offerCommands([
      switching(
        {
          id: 'drivetrain.playhead',
          label: 'The chosen mechanism follows the playhead, or stays where it is',
          group: 'View',
        },
        () => this.hand() === null,
        (follows) => this.hand.set(follows ? null : (this.inputs()[0] ?? 0)),
      ),
    ]);
  }

  /** The first input at the playhead or by hand, and the others, which stay as they are. */
  readonly inputs = computed(() => {
    const { inputs } = this.driver();
    const names = this.mechanism()?.linkage.inputs ?? [];
    const hand = this.hand();
    return names.map((name, i) =>
      i === 0 && hand !== null ? hand : (this.stage.valueOf(inputs[name] ?? '') ?? 0),
    );
  });

  /** From where to where the input is drawn: one turn of an angle; of a length, as far as there is an output. */
  readonly span = computed((): readonly [number, number] => {
    const mechanism = this.mechanism();
    if (!mechanism || mechanism.linkage.inputs[0] === 'angle') return [0, 360];
    const reach = lengthIn(this.driver().params);
    return mechanism.linkage.inputs[0] === 'x' ? [-reach, reach] : [0, reach];
  });

  private readonly jets = computed((): readonly (readonly [number, Jet])[] => {
    const mechanism = this.mechanism();
    if (!mechanism) return [];
    const [from, to] = this.span();
    const others = this.inputs()
      .slice(1)
      .map((value): Jet => [value, 0, 0, 0]);
    return Array.from({ length: COUNT }, (_, i) => {
      const at = from + ((to - from) * i) / (COUNT - 1);
      return [at, mechanism.made.jets([[at, 1, 0, 0], ...others])[mechanism.place]!] as const;
    });
  });

  private readonly x = computed(() => scaleLinear([...this.span()], [LEFT, WIDTH - RIGHT]));

  /** Where the output turns back: its speed changes its sign, over the seam of a turn too. */
  private readonly turns = computed((): readonly number[] => {
    const jets = this.jets();
    const isTurn = this.span()[1] === 360;
    const speeds = jets.map(([, [, speed]]) => speed);
    const least = 1e-9 * Math.max(0, ...speeds.filter(Number.isFinite).map(Math.abs));
    const signs = speeds.map((speed) => (Math.abs(speed) <= least ? 0 : Math.sign(speed)));
    let before = isTurn ? (signs.findLast((sign) => sign !== 0) ?? 0) : 0;
    let still: number | null = null;
    const found: number[] = [];
    jets.forEach(([at], i) => {
      const sign = signs[i]!;
      if (sign === 0) still ??= at;
      if (sign === 0) return;
      if (sign === -before) found.push(still ?? between(jets[i - 1]!, jets[i]!));
      [before, still] = [sign, null];
    });
    return found;
  });
  /** Where it has no output: the limits of a mechanism that can't go all the way. */
  private readonly limits = computed(() => {
    const spans: { from: number; to: number }[] = [];
    let open: { from: number; to: number } | null = null;
    for (const [at, [value]] of this.jets()) {
      if (Number.isFinite(value)) open = null;
      else if (open) open.to = at;
      else spans.push((open = { from: at, to: at }));
    }
    return spans;
  });
  readonly gaps = computed(() => {
    const x = this.x();
    return this.limits().map(({ from, to }) => ({ x: x(from), width: Math.max(2, x(to) - x(from)) }));
  });
  readonly centres = computed(() => this.turns().map((at) => this.x()(at)));

  readonly plots = computed((): readonly Plot[] => {
    const { output, linkage } = this.driver();
    const per = this.span()[1] === 360 ? '°' : 'm';
    const titles = [output, `${output}, speed per ${per}`, `${output}, acceleration per ${per}²`];
    // what a follower feels at the ends of a rise
    if (linkage === 'cam') titles.push(`${output}, jerk per ${per}³`);
    return titles.map((title, order) => this.plot(title, order));
  });

  private plot(title: string, order: number): Plot {
    const jets = this.jets();
    const values = jets.map(([, jet]) => jet[order]!).filter((value) => Number.isFinite(value));
    const [low, high] = [Math.min(...values), Math.max(...values)];
    const margin = (high - low || 1) * 0.08;
    const y = scaleLinear([low - margin, high + margin], [HEIGHT - 6, 6]);
    const x = this.x();
    const path = line<readonly [number, Jet]>()
      .defined(([, jet]) => Number.isFinite(jet[order]))
      .x(([at]) => x(at))
      .y(([, jet]) => y(jet[order]!))([...jets]);
    return {
      title,
      path: path ?? '',
      ticks: y.ticks(3).map((value) => ({ y: y(value), text: y.tickFormat(3)(value) })),
      now: this.nowOn(order, y),
    };
  }

  private nowOn(order: number, y: (value: number) => number): Plot['now'] {
    const mechanism = this.mechanism();
    const [first, ...others] = this.inputs();
    if (!mechanism || first === undefined) return null;
    const jet = mechanism.made.jets([[first, 1, 0, 0], ...others.map((value): Jet => [value, 0, 0, 0])])[
      mechanism.place
    ]!;
    const value = jet[order]!;
    if (!Number.isFinite(value)) return null;
    const [from, to] = this.span();
    const within = to === 360 ? first - 360 * Math.floor(first / 360) : first;
    const drawn = this.jets().reduce(
      (near, each) => (Math.abs(each[0] - within) < Math.abs(near[0] - within) ? each : near),
      this.jets()[0]!,
    );
    return {
      x: this.x()(Math.min(to, Math.max(from, within))),
      y: y(drawn[1][order]!),
      text: shownNumber(value, digitsFor(value)),
    };
  }

  readonly words = computed(() => {
    const turns = this.turns();
    const values = this.jets()
      .map(([, [value]]) => value)
      .filter((value) => Number.isFinite(value));
    const out = this.limits().map(({ from, to }) => `${shownNumber(from, 1)} to ${shownNumber(to, 1)}`);
    const [low, high] = [Math.min(...values), Math.max(...values)];
    const unit = this.span()[1] === 360 ? '°' : ' m';
    const never = out.map((span) => `${span}${unit}`).join(' and ');
    const dead = turns.map((at) => `${shownNumber(at, 1)}${unit}`).join(', ');
    return [
      `from ${shownNumber(low, 3)} to ${shownNumber(high, 3)}`,
      turns.length > 0 ? `turns back at ${dead}` : 'never turns back',
      never === '' ? '' : `out of reach from ${never}`,
    ]
      .filter(Boolean)
      .join('; ');
  });
}

/** All lengths of a mechanism together: no input reaches further. */
function lengthIn(params: Readonly<Record<string, unknown>>): number {
  const lengths = Object.values(params).filter(
    (value): value is number => typeof value === 'number' && value > 0,
  );
  return Math.max(
    0.1,
    lengths.reduce((sum, value) => sum + value, 0),
  );
}

/** Where the speed passes zero between two places at which it is known. */
function between([a, [, before]]: readonly [number, Jet], [b, [, after]]: readonly [number, Jet]): number {
  return a + ((b - a) * before) / (before - after);
}

/** Decimals that show three digits of a value. */
function digitsFor(value: number): number {
  return value === 0 ? 1 : Math.min(9, Math.max(0, 2 - Math.floor(Math.log10(Math.abs(value)))));
}
