import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { MatTooltip } from '@angular/material/tooltip';
import type { Part } from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { focusRow } from '../../ui/focus-row';
import { DriveDrag } from '../drive/drive-drag';
import { InterlockHands } from '../interlock/interlock-hands';
import { RideDrag } from '../links/ride-drag';
import { PartPicker } from '../stage/picker';
import { partSheetFor, sheetFor, toggled } from '../stage/picking';
import { ChartModel } from '../plot/chart-model';
import { ROW } from '../plot/plot';
import { scrolledToChosen } from '../plot/row-in-sight';
import type { ChannelRow, KindRow, PartRow, Row } from '../plot/rows';
import { SpanStateComponent } from './span-state.component';
import { ThreadStateComponent } from './thread-state.component';
import { ValueCellComponent } from './value-cell.component';

interface Mark {
  readonly command: string;
  readonly icon: string;
  readonly label: string;
  readonly tip: string;
}
const HIDDEN = { command: 'view.hide', icon: 'eye-off', tip: 'Hidden while working: show it again' };
const LOCKED = { command: 'view.lock', icon: 'lock', tip: 'Can’t be picked in the view: unlock it' };

/** The Chart's rows: parts and their channels, with the value at the playhead. */
@Component({
  selector: 'kz-rows-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CdkVirtualScrollViewport,
    MatIcon,
    MatTooltip,
    RunDirective,
    SpanStateComponent,
    ThreadStateComponent,
    ValueCellComponent,
  ],
  templateUrl: './rows-panel.component.html',
  styleUrl: './rows-panel.component.scss',
})
export class RowsPanelComponent {
  readonly studio = inject(Studio);
  readonly model = inject(ChartModel);
  private readonly picker = inject(PartPicker);
  private readonly drag = inject(RideDrag);
  readonly driving = inject(DriveDrag);
  private readonly hands = inject(InterlockHands);
  private readonly viewport = viewChild.required(CdkVirtualScrollViewport);
  readonly rowHeight = ROW;
  /** The row that the keyboard was in last. */
  readonly reached = signal('');
  private readonly reachedIndex = computed(() => {
    const reached = this.reached();
    return reached === '' ? -1 : this.model.rows().findIndex((row) => row.kind + row.id === reached);
  });
  /** The one row that Tab comes to: where the keyboard was last, or, where that is out of sight, the first in sight. */
  readonly stop = computed(() => {
    const first = Math.ceil(this.model.scrollTop() / ROW);
    const last = first + Math.floor(this.model.size().height / ROW);
    const reached = this.reachedIndex();
    return reached >= first && reached <= last ? reached : Math.min(first, this.model.rows().length - 1);
  });
  readonly track = (_: number, row: Row) => row.kind + row.id;

  constructor() {
    effect(() => {
      const top = this.model.scrollTop();
      const viewport = this.viewport();
      untracked(() => {
        if (Math.abs(viewport.measureScrollOffset() - top) > 0.5) viewport.scrollToOffset(top);
      });
    });
    this.keepChosenInSight();
  }

  /** Shows the row of what is chosen elsewhere: in the view, by its curve, or as a part is made. */
  private keepChosenInSight(): void {
    const chosen = computed(
      () => {
        const { parts, channels } = this.studio.bench();
        return { parts, channels };
      },
      { equal: (a, b) => a.parts === b.parts && a.channels === b.channels },
    );
    effect(() => {
      const now = chosen();
      // in the frame that draws it a new row is there
      requestAnimationFrame(() => {
        const height = this.viewport().getViewportSize();
        const parts = this.studio.project()?.parts ?? [];
        this.model.scrollTop.update((top) =>
          scrolledToChosen(this.model.rows(), parts, now, { top, height }),
        );
      });
    });
  }

  onScroll(): void {
    this.model.scrollTop.set(this.viewport().measureScrollOffset());
  }

  /** A row of a part may be dragged onto another, to ride on it; a row of a channel, to follow it. */
  onPress(down: PointerEvent, row: Row): void {
    if (down.target instanceof Element && down.target.closest('button')) return;
    if (row.kind === 'part') this.drag.press(down, row.part.id);
    else if (row.kind === 'channel') this.driving.press(down, row.id);
  }

  /** The menu of a channel: in which ways another can drive it. */
  onMenu(event: MouseEvent, row: Row): void {
    if (row.kind !== 'channel' || this.studio.readOnly()) return;
    event.preventDefault();
    this.driving.ask(row.id, event);
  }

  /** Whether a dragged row would ride on a part (on the scene: `''`) if it were let go now. */
  isSeat(part: string): boolean {
    const landing = this.drag.shown()?.landing;
    return landing !== null && landing !== undefined && !landing.beside && (landing.on ?? '') === part;
  }
  isBeside(part: string, after: boolean): boolean {
    const beside = this.drag.shown()?.landing?.beside;
    return beside?.part === part && beside.after === after;
  }

  /** What is set aside of a part while one works: it is hidden, or can't be picked. */
  marksOf({ id, name }: Part): readonly Mark[] {
    const { hidden, locked } = this.studio.bench().seeing;
    return [
      ...(hidden.includes(id) ? [{ ...HIDDEN, label: `Show ${name} again` }] : []),
      ...(locked.includes(id) ? [{ ...LOCKED, label: `Unlock ${name}` }] : []),
    ];
  }

  isPicked(row: Row): boolean {
    const { parts, channels } = this.studio.bench();
    if (row.kind === 'part') return parts.includes(row.id);
    if (row.kind === 'span') return false;
    if (row.kind === 'thread') return this.hands.isPicked(row.lock);
    return row.kind === 'kind'
      ? row.channels.every((channel) => channels.includes(channel))
      : channels.includes(row.id);
  }

  /** Whether a channel is muted, locked, pinned or alone in the plot: its buttons then always show. */
  isSet({ id, curve }: ChannelRow): boolean {
    const { only, pinned } = this.studio.bench();
    return curve?.muted === true || curve?.locked === true || only === id || pinned.includes(id);
  }

  /** Buttons are made only for the rows that show them: they take more time than all the rest of a row. */
  showsTools(row: ChannelRow): boolean {
    return this.isSet(row) || this.isPicked(row) || this.reached() === row.kind + row.id;
  }

  pick(row: Row, event: Event): void {
    // a press on one of the row's buttons is about the button
    if (event.target instanceof Element && event.target.closest('.tools')) return;
    if (this.picker.answer(row.part.id, null, row.kind === 'channel' ? row.id : undefined)) return;
    if (row.kind === 'thread') {
      this.hands.pick(row.lock);
      return;
    }
    const adding = event instanceof MouseEvent && (event.ctrlKey || event.metaKey);
    const { parts, channels } = this.studio.bench();
    if (row.kind === 'part' || row.kind === 'span') {
      this.studio.pick({
        parts: adding ? toggled(parts, row.part.id) : [row.part.id],
        channels: adding ? channels : [],
        ...(adding ? {} : { keys: [], handles: [] }),
      });
      this.studio.set({ sheet: partSheetFor(this.studio.bench().sheet) });
      return;
    }
    const named = row.kind === 'kind' ? row.channels : [row.id];
    const next = adding ? named.reduce((list, channel) => toggled(list, channel), channels) : named;
    this.studio.pick({ parts: [row.part.id], channels: next, ...(adding ? {} : { keys: [], handles: [] }) });
    if (row.kind === 'channel' && row.curve) this.studio.set({ sheet: sheetFor(this.studio.bench().sheet) });
  }

  /** Arrow keys walk the rows, left and right close and open a part. */
  onKey(event: KeyboardEvent, row: Row, index: number): void {
    if (event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) return;
    const rows = this.model.rows();
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      const next = rows[index + (event.key === 'ArrowDown' ? 1 : -1)];
      if (next) this.focusRow(next, index + (event.key === 'ArrowDown' ? 1 : -1));
    } else if (event.key === 'Enter' && !this.isAlone(row)) this.pick(row, event);
    else if (canOpen(row) && event.key === 'ArrowRight' && !row.open) this.toggleOpen(row);
    else if (canOpen(row) && event.key === 'ArrowLeft' && row.open) this.toggleOpen(row);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Enter on the one part that is chosen already is about the tool in hand. */
  private isAlone(row: Row): boolean {
    const { parts, tool } = this.studio.bench();
    return row.kind === 'part' && tool !== 'select' && parts.length === 1 && parts[0] === row.id;
  }

  private focusRow(row: Row, index: number): void {
    focusRow(this.viewport(), index, ROW, this.idOf(row));
  }

  idOf(row: Row): string {
    return `${this.model.half}-row-${row.kind}-${row.id}`;
  }

  toggleOpen(row: PartRow | KindRow): void {
    const { collapsed } = this.studio.bench();
    this.studio.set({ collapsed: toggled(collapsed, row.id) });
  }
}

function canOpen(row: Row): row is PartRow | KindRow {
  return (row.kind === 'part' || row.kind === 'kind') && row.opens;
}
