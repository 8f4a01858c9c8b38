import { compile, curvesOf, type Project } from '@kaizen/core';
import { quietGroups } from '../open/quiet-groups';
import { keysSpan } from './chart/curves-shown';
import { FrameCounts } from './plot/frame-counts';
import { layStrips } from './plot/plot';
import { plottedChannels } from './plot/plotted-channels';
import { chartRows, type RowsQuery } from './plot/rows';
import { keySpread } from './plot/value-range';
import { channelLabel } from './stage/channel-label';

const NOTHING_DRIVEN: ReadonlySet<string> = new Set();
const NOTHING_CHOSEN = { only: null, channels: [], parts: [], pinned: [] };

const EVERYTHING: RowsQuery = {
  filter: 'all',
  everyChannel: false,
  collapsed: [],
  parts: [],
  channels: [],
  kinds: [],
  summary: 'own',
  search: '',
  set: null,
};

/**
 * Finds out of a made-up project what the Bench finds out of one that opens, and forgets it: code that ran a few times runs faster, and
 * a big project then opens sooner.
 */
export function rehearseOpening(made: Project): void {
  // What is known of a list of parts or of a part is not found out again: these are others.
  const project = { ...made, parts: made.parts.map((part) => ({ ...part })) };
  quietGroups(project);
  chartRows(project, NOTHING_DRIVEN, [], EVERYTHING);
  const labelled = plottedChannels(project, NOTHING_DRIVEN, NOTHING_CHOSEN).map((channel) => ({
    channel,
    label: channelLabel(project, channel),
  }));
  for (const strip of layStrips(labelled, new Map(), 300)) {
    keySpread(project, strip.channels, { first: project.range.start, last: project.range.end });
    keysSpan(project, strip);
    const counts = new FrameCounts();
    for (const curve of curvesOf(project, strip.channels)) counts.add(curve, 1);
    counts.frames();
  }
  const program = compile(project);
  if (program.ok) program.value.run(project.range.start, program.value.createOutput());
}
