import fc from 'fast-check';
import { activeClip, deleteKeys, keyValues, newProject, type Project } from '@kaizen/core';
import type { LooseEdit } from '../../state/document';
import { quietGroups } from '../../open/quiet-groups';
import { chartRows, type RowsQuery } from './rows';
import { plottedChannels } from './plotted-channels';
import { chartProject, EVERY_ROW } from '../../testing/chart-project';

const project = chartProject();
const driven = new Set(['wheel/rotate.z']);
const NO_LOOSE: readonly LooseEdit[] = [];
const ids = (query: Partial<RowsQuery>, loose = []) =>
  chartRows(project, driven, loose, { ...EVERY_ROW, ...query }).map((row) => row.id);

describe('the Chart’s rows', () => {
  it('are parts before their children, each with the channels that live', () => {
    expect(ids({})).toEqual([
      'wagon',
      'wagon/translate.x',
      'wheel',
      'wheel/rotate.z',
      'hook',
      'hook/translate.y',
      'shed',
      'door',
    ]);
  });

  it('hide what is below a closed part', () => {
    expect(ids({ collapsed: ['wagon', 'shed'] })).toEqual(['wagon', 'shed']);
  });

  it('are fewer under a filter or a search, and without the hierarchy', () => {
    expect(ids({ filter: 'keyed', collapsed: ['wagon'] })).toEqual([
      'wagon',
      'wagon/translate.x',
      'hook',
      'hook/translate.y',
    ]);
    expect(ids({ search: 'hook place' })).toEqual(['hook', 'hook/translate.y']);
    expect(ids({ search: 'door' })).toEqual(['door']);
    expect(ids({ filter: 'selected', channels: ['wheel/rotate.z'] })).toEqual(['wheel', 'wheel/rotate.z']);
    expect(chartRows(project, driven, [], { ...EVERY_ROW, search: 'hook' }).map((row) => row.depth)).toEqual([
      0, 1,
    ]);
  });

  it('are those of a set by its name, also channels that nothing moves', () => {
    expect(ids({ set: ['hook/translate.y', 'shed/rotate.y'] })).toEqual([
      'hook',
      'hook/translate.y',
      'shed',
      'shed/rotate.y',
    ]);
    expect(ids({ set: [] })).toEqual([]);
  });

  it('of a kind close by themselves, and are left out with their kind', () => {
    const query = { everyChannel: true, search: 'door' };
    expect(ids({ ...query, collapsed: ['door#place', 'door#size'] })).toEqual([
      'door',
      'door#place',
      'door#turn',
      'door/rotate.x',
      'door/rotate.y',
      'door/rotate.z',
      'door#size',
      'door/squash',
      'door/visible',
    ]);
    expect(ids({ ...query, kinds: ['squash'] })).toEqual(['door', 'door/squash']);
  });

  it('stand for the keys of a part, or of all below it', () => {
    const curvesOf = (summary: RowsQuery['summary']) => {
      const row = chartRows(project, driven, [], { ...EVERY_ROW, summary })[0]!;
      return row.kind === 'part' ? row.curves.map(({ channel }) => channel) : [];
    };
    expect(curvesOf('own')).toEqual(['wagon/translate.x']);
    expect(curvesOf('below')).toEqual(['wagon/translate.x', 'hook/translate.y']);
  });

  it('show every channel when asked, and a loose edit’s always', () => {
    const door = ids({ everyChannel: true }).filter((id) => /^door[/#]/.test(id));
    expect(door).toHaveLength(14);
    expect(door.slice(0, 5)).toEqual([
      'door#place',
      'door/translate.x',
      'door/translate.y',
      'door/translate.z',
      'door#turn',
    ]);
    const loose = [{ channel: 'door/rotate.y', frame: 5, value: 30, was: 0 }];
    const rows = chartRows(project, driven, loose, EVERY_ROW);
    expect(rows.at(-1)).toMatchObject({ id: 'door/rotate.y', loose });
  });
});

describe('rows that are asked for again', () => {
  const channels = [
    'wagon/translate.x',
    'hook/translate.y',
    'hook/rotate.x',
    'door/scale.y',
    'shed/translate.z',
  ];
  const curvesOf = (of: Project) => activeClip(of)!.curves;
  const edit = fc.oneof(
    fc
      .record({ channel: fc.constantFrom(...channels), frame: fc.integer({ min: 0, max: 5 }) })
      .map((key) => (of: Project) => keyValues(of, [{ ...key, value: 1 }])),
    fc.constantFrom(...channels).map((channel) => (of: Project) => {
      const keys = curvesOf(of).find((curve) => curve.channel === channel)?.keys ?? [];
      return deleteKeys(
        of,
        keys.map(({ frame }) => ({ channel, frame })),
      );
    }),
    fc.constant((of: Project): Project => ({
      ...of,
      clips: of.clips.map((clip) => ({ ...clip, curves: clip.curves.toReversed() })),
    })),
  );
  const some = fc.uniqueArray(fc.constantFrom(...channels), { maxLength: 3 });
  /** What is asked beside an edit: as often as not the very lists that were asked for before. */
  const asking = fc.record({
    filter: fc.constantFrom<'all' | 'keyed' | 'selected'>('all', 'all', 'all', 'keyed', 'selected'),
    chosen: fc.option(some),
    driven: fc.option(some),
    loose: fc.option(some),
  });

  it('are, after any edits, those of a project that was never asked', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(edit, asking), { maxLength: 12 }), (steps) => {
        let now = { project, driven, loose: NO_LOOSE, query: EVERY_ROW };
        const asks = steps.map(([change, { filter, chosen, driven: others, loose }]) => {
          now = {
            project: change(now.project),
            driven: others ? new Set(others) : now.driven,
            loose: loose ? loose.map((channel) => ({ channel, frame: 3, value: 1, was: 0 })) : now.loose,
            query: { ...now.query, filter, channels: chosen ?? now.query.channels },
          };
          return now;
        });
        // Asked one after the other first, as another project in between would make it forget.
        const asked = asks.map((ask) => chartRows(ask.project, ask.driven, ask.loose, ask.query));
        for (const [i, { project: of, driven: by, loose, query }] of asks.entries()) {
          const fresh = { ...of, parts: of.parts.map((part) => ({ ...part })) };
          expect(asked[i]).toEqual(chartRows(fresh, new Set(by), [...loose], query));
        }
      }),
    );
  });
});

describe('the plot', () => {
  const plotted = (bench: Partial<Parameters<typeof plottedChannels>[2]>) =>
    plottedChannels(project, driven, { only: null, channels: [], parts: [], pinned: [], ...bench });

  it('shows one alone, else the chosen channels, else the chosen parts’, else all that is keyed', () => {
    expect(plotted({})).toEqual(['wagon/translate.x', 'hook/translate.y']);
    expect(plotted({ parts: ['wheel'] })).toEqual(['wheel/rotate.z']);
    expect(plotted({ parts: ['wheel'], channels: ['hook/translate.y'] })).toEqual(['hook/translate.y']);
    expect(plotted({ channels: ['hook/translate.y'], only: 'wagon/translate.x' })).toEqual([
      'wagon/translate.x',
    ]);
    expect(plotted({ parts: ['shed'] })).toEqual(['wagon/translate.x', 'hook/translate.y']);
  });
});

describe('a project that is opened', () => {
  it('has groups closed where nothing moves, but not where nothing moves at all', () => {
    expect(quietGroups(project)).toEqual(['shed']);
    expect(quietGroups({ ...newProject('n', 'N'), parts: project.parts })).toEqual([]);
  });
});
