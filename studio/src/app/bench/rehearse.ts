import { compile, type Project } from '@kaizen/core';
import { quietGroups } from '../open/quiet-groups';
import { FrameCounts } from './plot/frame-counts';
import { chartRows, type RowsQuery } from './plot/rows';
import { keySpread } from './plot/value-range';

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
  const curves = project.clips.flatMap((clip) => clip.curves);
  quietGroups(project);
  chartRows(project, new Set(), [], EVERYTHING);
  keySpread(
    project,
    curves.map(({ channel }) => channel),
    { first: project.range.start, last: project.range.end },
  );
  const counts = new FrameCounts();
  for (const curve of curves) counts.add(curve, 1);
  counts.frames();
  const program = compile(project);
  if (program.ok) program.value.run(project.range.start, program.value.createOutput());
}
