import '@angular/compiler';
import { chartProject, EVERY_ROW } from '../../testing/chart-project';
import { ROW } from './plot';
import { scrolledToChosen } from './row-in-sight';
import { chartRows } from './rows';

const project = chartProject();
const rowsOf = (collapsed: readonly string[] = []) =>
  chartRows(project, new Set(), [], { ...EVERY_ROW, everyChannel: true, collapsed });
const height = 4 * ROW;

/** The scroll after a choice, from the top. */
const after = (chosen: { parts?: string[]; channels?: string[] }, top = 0, collapsed: string[] = []) =>
  scrolledToChosen(
    rowsOf(collapsed),
    project.parts,
    { parts: chosen.parts ?? [], channels: chosen.channels ?? [] },
    { top, height },
  );
const placeOf = (kind: string, id: string, collapsed: string[] = []) =>
  rowsOf(collapsed).findIndex((row) => row.kind === kind && row.id === id);

describe('the rows, when something is chosen elsewhere', () => {
  it('are scrolled as little as shows its row: up to it, or down until it is the last', () => {
    const shed = placeOf('part', 'shed');
    expect(shed).toBeGreaterThan(4);
    expect(after({ parts: ['shed'] })).toBe((shed + 1) * ROW - height);
    expect(after({ parts: ['wagon'] }, 10 * ROW)).toBe(0);
    const lift = placeOf('channel', 'hook/translate.y');
    expect(after({ parts: ['hook'], channels: ['hook/translate.y'] })).toBe((lift + 1) * ROW - height);
  });

  it('stay where one of the chosen is in sight, and where nothing is chosen or has a row', () => {
    expect(after({ parts: ['wagon', 'shed'] })).toBe(0);
    expect(after({ parts: ['shed', 'wagon'] }, 1)).toBe(0);
    expect(after({}, 50)).toBe(50);
    expect(after({ parts: ['nobody'], channels: ['nobody/visible'] }, 50)).toBe(50);
  });

  it('show what a part rides on where its own row is folded away', () => {
    const folded = ['shed'];
    expect(placeOf('part', 'door', folded)).toBe(-1);
    expect(after({ parts: ['door'] }, 0, folded)).toBe((placeOf('part', 'shed', folded) + 1) * ROW - height);
  });
});
