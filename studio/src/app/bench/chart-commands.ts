import { Injectable, inject } from '@angular/core';
import { curveOf, setCurveFlag } from '@kaizen/core';
import type { Command } from '../commands/command';
import { Studio } from '../state/studio';
import { ChartHalves } from './chart/chart-halves';
import { ChartModel } from './plot/chart-model';
import { Panels } from './panels';
import { namedChannels } from './picking';
import { ShapeSheets } from './shape/shape-sheets';
import { ViewControl } from './view3d/view-control';

/** Commands of the Chart: fitting, zooming, densities, one channel alone, mute and lock. */
@Injectable({ providedIn: 'root' })
export class ChartCommands {
  private readonly studio = inject(Studio);
  private readonly chart = inject(ChartModel);
  private readonly halves = inject(ChartHalves);
  private readonly view = inject(ViewControl);
  private readonly panels = inject(Panels);
  private readonly sheets = inject(ShapeSheets);
  private readonly hasChannel = () => !this.studio.readOnly() && this.channels().length > 0;

  list(): readonly Command[] {
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
      {
        id: 'chart.only',
        label: 'Only this channel',
        group: 'Chart',
        shortcuts: ['O'],
        run: () => this.onlyThis(),
      },
      {
        id: 'chart.mute',
        label: 'Mute or unmute the chosen channels',
        group: 'Chart',
        shortcuts: ['M'],
        when: this.hasChannel,
        run: () => this.flag('muted'),
      },
      {
        id: 'chart.lock',
        label: 'Lock or unlock the chosen channels',
        group: 'Chart',
        shortcuts: ['L'],
        when: this.hasChannel,
        run: () => this.flag('locked'),
      },
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
  private channels(): readonly string[] {
    const project = this.studio.project();
    return namedChannels(this.studio.bench()).filter((channel) => project && curveOf(project, channel));
  }

  private flag(flag: 'muted' | 'locked'): void {
    const project = this.studio.project();
    const channels = this.channels();
    if (!project || channels.length === 0) return;
    const on = !channels.every((channel) => curveOf(project, channel)?.[flag]);
    const word = { muted: on ? 'Mute' : 'Unmute', locked: on ? 'Lock' : 'Unlock' }[flag];
    this.studio.edit(
      `${word} ${channels.length === 1 ? 'a channel' : `${channels.length} channels`}`,
      (now) => setCurveFlag(now, channels, flag, on),
    );
  }

  private onlyThis(): void {
    const { only, channels, keys } = this.studio.bench();
    const channel = channels[0] ?? keys[0]?.channel ?? this.chart.plotted()[0] ?? null;
    this.studio.set({ only: only === null ? channel : null });
  }
}
