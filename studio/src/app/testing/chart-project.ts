import { compile, readDocument, type Program, type Project } from '@kaizen/core';
import type { RowsQuery } from '../bench/plot/rows';

/** Asks for every row of the Chart. */
export const EVERY_ROW: RowsQuery = {
  filter: 'all',
  everyChannel: false,
  collapsed: [],
  parts: [],
  channels: [],
  kinds: ['place', 'turn', 'size', 'squash', 'look', 'custom'],
  summary: 'own',
  search: '',
  set: null,
};

/** A small project for the Chart's tests: a wagon with a hook on it, a keyed run, a held lift, a driven wheel. */
export function chartProject(): Project {
  const read = readDocument({
    format: 'kaizen',
    version: 1,
    id: 'p',
    name: 'P',
    rate: { frames: 24, per: 1 },
    range: { start: 0, end: 48 },
    parts: [
      { id: 'wagon', name: 'Wagon', kind: 'group' },
      { id: 'wheel', name: 'Wheel', kind: 'group', parent: 'wagon' },
      { id: 'hook', name: 'Hook', kind: 'group', parent: 'wagon' },
      { id: 'shed', name: 'Shed', kind: 'group' },
      { id: 'door', name: 'Door', kind: 'group', parent: 'shed' },
    ],
    clips: [
      {
        id: 'main',
        name: 'Main',
        curves: [
          {
            channel: 'wagon/translate.x',
            keys: [
              { frame: 0, value: 0 },
              { frame: 24, value: 2 },
              { frame: 48, value: 4 },
            ],
          },
          {
            channel: 'hook/translate.y',
            keys: [
              { frame: 12, value: 1, leg: { kind: 'hold' } },
              { frame: 36, value: 3 },
            ],
          },
        ],
      },
    ],
    activeClip: 'main',
    drivers: [
      {
        id: 'roll',
        target: 'wheel/rotate.z',
        kind: 'linkage',
        linkage: 'wheel',
        inputs: { distance: 'wagon/translate.x' },
        output: 'angle',
        params: { radius: 0.5 },
      },
    ],
  });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

export function programOf(project: Project): Program {
  const compiled = compile(project);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  return compiled.value;
}
