import { Injectable, inject } from '@angular/core';
import { curveOf, setCurveFlag, splitChannel } from '@kaizen/core';
import { onItem, type Command } from '../../commands/command';
import type { RowFilter } from '../../state/bench';
import { Studio } from '../../state/studio';
import { ChartHalves } from './chart-halves';
import { ChartModel } from '../plot/chart-model';
import { Panels } from '../stage/panels';
import { channelLabel } from '../stage/channel-label';
import { namedChannels, toggled } from '../stage/picking';
import { ShapeSheets } from '../shaping/shape-sheets';
import { ViewControl } from '../stage/view-control';

/** Which rows show, one filter at a time. */
const FILTERS: readonly { readonly filter: RowFilter; readonly label: string }[] = [
  { filter: 'all', label: 'Rows: all parts' },
  { filter: 'keyed', label: 'Rows: only channels that have keys' },
  { filter: 'selected', label: 'Rows: only the picked parts and channels' },
  { filter: 'tied', label: 'Rows: only channels whose keys wait for each other' },
  { filter: 'off', label: 'Rows: only channels with keys between frames' },
];

/** Commands of the Chart: fitting, zooming, densities, one channel alone, mute and lock. */
@Injectable({ providedIn: 'root' })
export class ChartCommands {
  private readonly studio = inject(Studio);
  private readonly chart = inject(ChartModel);
  private readonly halves = inject(ChartHalves);
  private readonly view = inject(ViewControl);
  private readonly panels = inject(Panels);
  private readonly sheets = inject(ShapeSheets);

  list(): readonly Command[] {
    const flagged = {
      group: 'Chart',
      meant: () => this.channels(),
      when: () => !this.studio.readOnly(),
    } as const;
    const middle = () => this.chart.size().width / 2;
    return [
      {
        id: 'fit.selection',
        label: 'Fit the selection',
        group: 'Chart',
        shortcuts: ['0', 'F'],
        run: () =>
          this.panels.pointerIn === 'view' ? this.view.fit(false) : this.halves.meant().fitSelection(),
      },
      {
        id: 'fit.all',
        label: 'Fit all',
        group: 'Chart',
        shortcuts: ['Shift+0'],
        run: () => (this.panels.pointerIn === 'view' ? this.view.fit(true) : this.halves.meant().fitAll()),
      },
      {
        id: 'fit.time',
        label: 'Fit time',
        group: 'Chart',
        shortcuts: ['9'],
        run: () => this.chart.fitTime(),
      },
      {
        id: 'fit.value',
        label: 'Fit value',
        group: 'Chart',
        shortcuts: ['8'],
        run: () => this.halves.meant().fitValue(),
      },
      onItem<readonly string[]>({
        id: 'chart.only',
        label: 'Only this channel',
        group: 'Chart',
        shortcuts: ['O'],
        meant: () => this.onlyMeant(),
        on: ([channel]) => this.studio.bench().only === channel,
        run: ([channel]) => this.onlyThis(channel!),
      }),
      onItem<readonly string[]>({
        ...flagged,
        id: 'chart.mute',
        label: 'Mute or unmute the chosen channels',
        shortcuts: ['M'],
        on: (channels) => this.isFlagged(channels, 'muted'),
        run: (channels) => this.flag(channels, 'muted'),
      }),
      onItem<readonly string[]>({
        ...flagged,
        id: 'chart.lock',
        label: 'Lock or unlock the chosen channels',
        shortcuts: ['L'],
        on: (channels) => this.isFlagged(channels, 'locked'),
        run: (channels) => this.flag(channels, 'locked'),
      }),
      onItem<readonly string[]>({
        id: 'chart.pin',
        label: 'Keep the chosen channels drawn, or no longer',
        group: 'Chart',
        meant: () => this.named(),
        on: (channels) => channels.every((channel) => this.studio.bench().pinned.includes(channel)),
        run: (channels) =>
          this.studio.set({
            pinned: channels.reduce((list, channel) => toggled(list, channel), this.studio.bench().pinned),
          }),
      }),
      {
        id: 'chart.ticks',
        label: 'Density Ticks',
        group: 'Chart',
        shortcuts: ['Ctrl+1'],
        run: () => this.halves.setDensity('ticks'),
      },
      {
        id: 'chart.curves',
        label: 'Density Curves',
        group: 'Chart',
        shortcuts: ['Ctrl+2'],
        run: () => this.halves.setDensity('curves'),
      },
      {
        id: 'chart.rates',
        label: 'Density Rates',
        group: 'Chart',
        shortcuts: ['Ctrl+3'],
        run: () => this.halves.setDensity('rates'),
      },
      {
        id: 'chart.split',
        label: 'Split the Chart in two halves, or make it one again',
        group: 'Chart',
        shortcuts: ['X'],
        on: () => this.studio.bench().split.on,
        run: () => this.halves.toggle(),
      },
      ...FILTERS.map(({ filter, label }): Command => ({
        id: `rows.${filter}`,
        label,
        group: 'Chart',
        on: () => this.studio.bench().filter === filter,
        run: () => this.studio.set({ filter }),
      })),
      {
        id: 'rows.sets',
        label: 'Sets of rows: keep the chosen rows under a name, show a set alone',
        group: 'Chart',
        run: () => this.sheets.rowSets(),
      },
      {
        id: 'chart.closer',
        label: 'Zoom into time',
        group: 'Chart',
        shortcuts: ['+', '='],
        run: () => this.chart.zoomTime(middle(), 1.4),
      },
      {
        id: 'chart.farther',
        label: 'Zoom out of time',
        group: 'Chart',
        shortcuts: ['-'],
        run: () => this.chart.zoomTime(middle(), 1 / 1.4),
      },
      {
        id: 'chart.left',
        label: 'Pan to earlier frames',
        group: 'Chart',
        shortcuts: ['PageUp'],
        run: () => this.chart.panPixels(this.chart.size().width / 3, 0, undefined),
      },
      {
        id: 'chart.right',
        label: 'Pan to later frames',
        group: 'Chart',
        shortcuts: ['PageDown'],
        run: () => this.chart.panPixels(-this.chart.size().width / 3, 0, undefined),
      },
    ];
  }

  /** The channels that the selection names, as far as they have a curve. */
  private named(): readonly string[] | null {
    const named = namedChannels(this.studio.bench());
    return named.length > 0 ? named : null;
  }

  private channels(): readonly string[] | null {
    const project = this.studio.project();
    const named = namedChannels(this.studio.bench()).filter(
      (channel) => project && curveOf(project, channel),
    );
    return named.length > 0 ? named : null;
  }

  private isFlagged(channels: readonly string[], flag: 'muted' | 'locked'): boolean {
    const project = this.studio.project();
    return project !== null && channels.every((channel) => curveOf(project, channel)?.[flag]);
  }

  private flag(channels: readonly string[], flag: 'muted' | 'locked'): void {
    const project = this.studio.project();
    if (!project) return;
    const on = !this.isFlagged(channels, flag);
    const word = { muted: on ? 'Mute' : 'Unmute', locked: on ? 'Lock' : 'Unlock' }[flag];
    const [only] = channels.length === 1 ? channels : [];
    this.studio.edit(
      `${word} ${only === undefined ? `${channels.length} channels` : channelLabel(project, only).full}`,
      (now) => setCurveFlag(now, channels, flag, on),
    );
  }

  /** The channel that stands alone already, else the chosen one, else the first that is drawn. */
  private onlyMeant(): readonly string[] | null {
    const { only, channels, keys } = this.studio.bench();
    const channel = only ?? channels[0] ?? keys[0]?.channel ?? this.chart.plotted()[0];
    return channel === undefined ? null : [channel];
  }

  private onlyThis(channel: string): void {
    const { only, channels } = this.studio.bench();
    const off = only === channel;
    this.studio.set({ only: off ? null : channel });
    if (!off && !channels.includes(channel))
      this.studio.pick({ channels: [channel], parts: [splitChannel(channel).part] });
  }
}
