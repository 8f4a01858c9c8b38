import '@angular/compiler';
import { curveOf, curvesOf, setLeg, type Project } from '@kaizen/core';
import { chartProject, programOf } from '../../testing/chart-project';
import { channelLabel } from '../stage/channel-label';
import { playedSpread } from './chart-lines';
import { fittedRanges, showsKeys, showsLines } from './fit';
import { layPlot, layStrips, PLOT_TOP, yOf } from './plot';

const RUN = 'wagon/translate.x';
const AXIS = { first: 0, last: 48 };
const VIEW = { axis: AXIS, width: 480 };

/** The run from 2 m to 4 m in its second second, falling freely. */
function falling(): Project {
  return setLeg(chartProject(), [{ channel: RUN, frame: 24 }], { kind: 'ballistic' });
}

/** How a plot of the run from a quarter below it to so high shows a project. */
function shownUpTo(high: number, project: Project) {
  const height = PLOT_TOP + 400;
  const channels = [{ channel: RUN, label: channelLabel(project, RUN) }];
  const plot = layPlot(
    AXIS,
    480,
    height,
    layStrips(channels, new Map([['m', { low: -0.25, high }]]), height),
  );
  const lines = (isMeant: (channel: string) => boolean) =>
    showsLines(
      { project, plot, view: VIEW, parted: ({ channels: front }) => ({ front, crowd: [] }) },
      isMeant,
    );
  return {
    keys: showsKeys(plot, (channel) => curveOf(project, channel)),
    lines: lines(() => true),
    others: lines((channel) => channel !== RUN),
  };
}

describe('what of the curves the plot shows', () => {
  it('is as high as a throw that comes down 2 m higher after a second', () => {
    const speed = 2 + 9.81 / 2;
    const [curve] = curvesOf(falling(), [RUN]);
    const { high } = playedSpread(VIEW, falling(), curve!)!;
    expect(high).toBeCloseTo(2 + speed ** 2 / (2 * 9.81), 2);
    expect(playedSpread({ ...VIEW, axis: { first: 60, last: 90 } }, falling(), curve!)).toBeNull();
  });

  it('tells a leg that leaves the plot, though its keys are in it', () => {
    expect(shownUpTo(4.25, chartProject())).toEqual({ keys: true, lines: true, others: true });
    expect(shownUpTo(4.25, falling())).toEqual({ keys: true, lines: false, others: true });
    expect(shownUpTo(4.5, falling())).toEqual({ keys: true, lines: true, others: true });
  });
});

describe('a plot that is fitted', () => {
  it.each([60, 120, 400])('leaves the name of a strip %i px high free of its curve', (height) => {
    const project = chartProject();
    const channels = [{ channel: RUN, label: channelLabel(project, RUN) }];
    const laid = (ranges: ReadonlyMap<string, { readonly low: number; readonly high: number }>) =>
      layPlot(AXIS, 480, PLOT_TOP + height, layStrips(channels, ranges, PLOT_TOP + height));
    const fitted = fittedRanges(
      {
        project,
        program: programOf(project),
        plot: laid(new Map([['m', { low: 0, high: 1 }]])),
        view: VIEW,
        parted: ({ channels: front }) => ({ front, crowd: [] }),
      },
      [],
    );
    const strip = laid(new Map(fitted)).strips[0]!;
    const name = Math.min(22, 0.3 * strip.height);
    expect(yOf(strip, 4) - strip.top).toBeGreaterThanOrEqual(name - 1e-9);
    expect(strip.top + strip.height - yOf(strip, 0)).toBeGreaterThan(0);
  });
});
