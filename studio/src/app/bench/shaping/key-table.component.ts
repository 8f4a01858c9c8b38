import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import {
  curveOf,
  mapKeyPlaces,
  setLeg,
  setSideMode,
  type Key,
  type KeyRef,
  type LegKind,
  type SideMode,
} from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { applyAmount, decimalsOf, readAmount, shownFrame, shownNumber } from '../../ui/amount';
import { focusRow } from '../../ui/focus-row';
import { Notices } from '../../ui/notices';
import { optionsOf } from '../../ui/option';
import { channelLabel } from '../stage/channel-label';
import { toggled } from '../stage/picking';
import { legOfKind } from './chosen-keys';
import { Stage } from '../stage/stage';
import { LEG_LABELS, SIDE_LABELS } from '../stage/words';
import { KeyTableExchange } from './key-table-exchange';
import { ShapeSheets } from './shape-sheets';

const COLUMNS = ['frame', 'value', 'in', 'out', 'leg'] as const;
type Column = (typeof COLUMNS)[number];
const HEADS: Readonly<Record<Column, string>> = {
  frame: 'frame',
  value: 'value',
  in: 'arrives',
  out: 'leaves',
  leg: 'leg',
};

/**
 * The keys of a channel as a grid: arrow keys walk its cells, Enter or F2 edits one (in a cell of a number typing it does, too), Space
 * chooses its key, Delete removes it. All that the canvas does to keys can be done from here.
 */
@Component({
  selector: 'kz-key-table',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport, RunDirective],
  templateUrl: './key-table.component.html',
  styleUrls: ['../side-sheet/sheet.scss', './key-table.component.scss'],
})
export class KeyTableComponent {
  readonly channel = input.required<string>();
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly notices = inject(Notices);
  private readonly application = inject(ApplicationRef);
  readonly exchange = inject(KeyTableExchange);
  readonly sheets = inject(ShapeSheets);
  private readonly viewport = viewChild.required(CdkVirtualScrollViewport);
  readonly rowHeight = 24;
  readonly columns = COLUMNS;
  readonly heads = HEADS;
  readonly modes = optionsOf(SIDE_LABELS);
  readonly legs = optionsOf(LEG_LABELS);
  readonly reached = signal<{ readonly row: number; readonly column: Column }>({ row: 0, column: 'frame' });
  readonly editing = signal(false);
  readonly track = (index: number) => index;

  readonly keys = computed(() => {
    const project = this.stage.shown();
    return (project && curveOf(project, this.channel())?.keys) ?? [];
  });
  readonly unit = computed(() => {
    const project = this.studio.project();
    return project ? channelLabel(project, this.channel()).unit : '';
  });
  readonly chosen = computed(
    () =>
      new Set(
        this.studio
          .bench()
          .keys.filter(({ channel }) => channel === this.channel())
          .map(({ frame }) => frame),
      ),
  );
  readonly height = computed(() => Math.min(10, Math.max(1, this.keys().length)) * this.rowHeight);

  text(key: Key, column: Column): string {
    switch (column) {
      case 'frame':
        return shownFrame(key.frame);
      case 'value':
        return shownNumber(key.value, decimalsOf(this.unit()));
      case 'in':
      case 'out':
        return SIDE_LABELS[key[column].mode];
      case 'leg':
        return LEG_LABELS[key.leg.kind];
    }
  }

  isReached(row: number, column: Column): boolean {
    const at = this.reached();
    return at.row === Math.min(row, this.keys().length - 1) && at.column === column;
  }

  isEditing(row: number, column: Column): boolean {
    return this.editing() && this.isReached(row, column);
  }

  reach(row: number, column: Column): void {
    this.reached.set({ row, column });
    this.editing.set(false);
    const key = this.keys()[row];
    if (key) this.choose(key, false);
  }

  private choose(key: Key, adding: boolean): void {
    const ref: KeyRef = { channel: this.channel(), frame: key.frame };
    const others = this.studio.bench().keys;
    const same = others.find((other) => other.channel === ref.channel && other.frame === ref.frame);
    if (!adding) this.studio.pick({ keys: [ref], handles: [] });
    else this.studio.pick({ keys: same ? toggled(others, same) : [...others, ref], handles: [] });
  }

  onKey(event: KeyboardEvent, row: number, column: Column): void {
    if (this.editing()) return;
    const step = this.stepOf(event);
    const key = this.keys()[row];
    if (step) {
      const to = COLUMNS.indexOf(column) + step.columns;
      this.go(row + step.rows, COLUMNS[Math.min(COLUMNS.length - 1, Math.max(0, to))]!);
    } else if (event.key === 'Enter' || event.key === 'F2') this.edit(row, column);
    else if (beginsNumber(event) && (column === 'frame' || column === 'value'))
      this.edit(row, column, event.key);
    else if (event.key === ' ' && key) this.choose(key, true);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  private stepOf({ key, ctrlKey }: KeyboardEvent): { rows: number; columns: number } | null {
    const last = this.keys().length;
    switch (key) {
      case 'ArrowDown':
        return { rows: 1, columns: 0 };
      case 'ArrowUp':
        return { rows: -1, columns: 0 };
      case 'ArrowRight':
        return { rows: 0, columns: 1 };
      case 'ArrowLeft':
        return { rows: 0, columns: -1 };
      case 'PageDown':
        return { rows: 10, columns: 0 };
      case 'PageUp':
        return { rows: -10, columns: 0 };
      case 'Home':
        return ctrlKey ? { rows: -last, columns: 0 } : { rows: 0, columns: -COLUMNS.length };
      case 'End':
        return ctrlKey ? { rows: last, columns: 0 } : { rows: 0, columns: COLUMNS.length };
      default:
        return null;
    }
  }

  private go(row: number, column: Column): void {
    const to = Math.min(this.keys().length - 1, Math.max(0, row));
    this.reach(to, column);
    this.focusCell(to, column);
  }

  private focusCell(row: number, column: Column): void {
    focusRow(this.viewport(), row, this.rowHeight, `key-${row}-${column}`);
  }

  /** Begins to edit a cell: with its text chosen, or with the letter that was typed in place of it. */
  edit(row: number, column: Column, typed?: string): void {
    if (this.studio.readOnly()) return;
    this.reached.set({ row, column });
    this.editing.set(true);
    this.application.tick();
    const field = document.querySelector<HTMLElement>(`#key-${row}-${column} :is(input, select)`);
    field?.focus();
    if (!(field instanceof HTMLInputElement)) return;
    if (typed === undefined) field.select();
    else field.value = typed;
  }

  /** Ends the editing of a cell; the grid has the keyboard again. */
  private done(row: number, column: Column): void {
    this.editing.set(false);
    this.application.tick();
    this.focusCell(row, column);
  }

  onEditKey(event: KeyboardEvent, row: number, column: Column): void {
    event.stopPropagation();
    if (event.key === 'Escape') this.done(row, column);
    else if (event.key === 'Enter') {
      event.preventDefault();
      const box = event.target as HTMLInputElement;
      if (column === 'frame' || column === 'value') this.setNumber(row, column, box.value);
      else this.done(row, column);
    }
  }

  setNumber(row: number, column: 'frame' | 'value', text: string): void {
    const key = this.keys()[row];
    if (!key || !this.editing()) return;
    const unit = column === 'frame' ? 'f' : this.unit();
    const amount = readAmount(text, unit, this.studio.framesPerSecond());
    if (amount.kind === 'wrong') {
      this.notices.warn(amount.message);
      return;
    }
    const next = applyAmount(amount, key[column]);
    const ref = { channel: this.channel(), frame: key.frame };
    this.studio.edit(column === 'frame' ? 'Set frame' : 'Set value', (project) =>
      mapKeyPlaces(project, [ref], ({ frame, value }) => ({ frame, value, [column]: next })),
    );
    const now = this.keys().findIndex(({ frame }) => frame === (column === 'frame' ? next : key.frame));
    this.reached.set({ row: Math.max(0, now), column });
    this.done(Math.max(0, now), column);
  }

  setMode(row: number, side: 'in' | 'out', mode: string): void {
    const ref = this.refOf(row);
    this.studio.edit('Set sides', (project) => setSideMode(project, [ref], side, mode as SideMode));
    this.done(row, side);
  }

  setKind(row: number, kind: string): void {
    const ref = this.refOf(row);
    this.studio.edit(`Leg: ${LEG_LABELS[kind as LegKind]}`, (project) =>
      setLeg(project, [ref], legOfKind(kind as LegKind)),
    );
    this.done(row, 'leg');
  }

  private refOf(row: number): KeyRef {
    return { channel: this.channel(), frame: this.keys()[row]!.frame };
  }
}

function beginsNumber({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean {
  return /^[\d.-]$/.test(key) && !ctrlKey && !metaKey && !altKey;
}
