import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import { Studio } from '../../state/studio';
import { PoseSheetComponent } from '../pose/pose-sheet.component';
import { RulerSheetComponent } from '../ruler/ruler-sheet.component';
import { TimeSheetComponent } from '../time/time-sheet.component';
import { CurveSheetComponent } from '../shape/curve-sheet.component';
import { KeySheetComponent } from './key-sheet.component';
import { PartSheetComponent } from './part-sheet.component';
import { ShotSheetComponent } from './shot-sheet.component';

/** The side sheet: a tab each for the chosen keys, the chosen part (or the shot), time, and poses. */
@Component({
  selector: 'kz-side-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    MatTooltip,
    CurveSheetComponent,
    KeySheetComponent,
    PartSheetComponent,
    PoseSheetComponent,
    RulerSheetComponent,
    ShotSheetComponent,
    TimeSheetComponent,
  ],
  template: `
    <div class="tabs" role="tablist" aria-label="Side sheet">
      @for (tab of tabs; track tab.id) {
        <button
          role="tab"
          [id]="'sheet-tab-' + tab.id"
          [attr.aria-selected]="studio.bench().sheet === tab.id"
          [attr.tabindex]="studio.bench().sheet === tab.id ? 0 : -1"
          aria-controls="sheet-panel"
          [matTooltip]="tab.tip"
          (click)="studio.set({ sheet: tab.id })"
          (keydown)="onKey($event)"
        >
          {{ tab.id === 'part' && !hasPart() ? 'Shot' : tab.label }}
          @if (tab.id === 'key' && studio.bench().keys.length > 0) {
            <span class="numbers">{{ studio.bench().keys.length }}</span>
          }
        </button>
      }
    </div>
    <div
      class="body"
      id="sheet-panel"
      role="tabpanel"
      [attr.aria-labelledby]="'sheet-tab-' + studio.bench().sheet"
      tabindex="0"
    >
      @if (studio.bench().sheet === 'key') {
        <kz-key-sheet />
      } @else if (studio.bench().sheet === 'curve') {
        <kz-curve-sheet />
      } @else if (studio.bench().sheet === 'time') {
        <kz-time-sheet />
      } @else if (studio.bench().sheet === 'pose') {
        <kz-pose-sheet />
      } @else if (studio.bench().sheet === 'ruler') {
        <kz-ruler-sheet />
      } @else if (hasPart()) {
        <kz-part-sheet />
      } @else {
        <kz-shot-sheet />
      }
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      height: 100%;
      background: var(--sheet);
    }
    .tabs {
      display: flex;
      flex: none;
      gap: 2px;
      height: 40px;
      padding: 0 6px;
      border-bottom: 1px solid var(--rule);
    }
    .tabs button {
      display: flex;
      align-items: center;
      gap: 6px;
      padding: 0 9px;
      border: 0;
      border-bottom: 3px solid transparent;
      background: none;
      color: var(--ink);
      font: inherit;
      cursor: pointer;
    }
    .tabs button[aria-selected='true'] {
      border-bottom-color: var(--select);
      color: var(--select);
      font-weight: 600;
    }
    .tabs button:focus-visible {
      outline-offset: -2px;
    }
    .numbers {
      font-size: 12px;
    }
    .body {
      flex: 1;
      min-height: 0;
      padding-bottom: 16px;
      overflow-y: auto;
    }
    .body:focus-visible {
      outline-offset: -2px;
    }
  `,
})
export class SideSheetComponent {
  readonly studio = inject(Studio);
  readonly tabs = [
    { id: 'key', label: 'Key', tip: 'The chosen keys' },
    {
      id: 'curve',
      label: 'Curve',
      tip: 'The chosen channels: treatments, takes, simplify, bake, the table of keys',
    },
    { id: 'part', label: 'Part', tip: 'The chosen part, or the shot' },
    { id: 'time', label: 'Time', tip: 'Pushes, gaps, stretching, Stakes, waits and loops' },
    { id: 'pose', label: 'Pose', tip: 'Poses copied, mirrored and kept; poses held' },
    { id: 'ruler', label: 'Ruler', tip: 'Markers and notes, sound, and what things snap to' },
  ] as const;
  readonly hasPart = computed(() => {
    const id = this.studio.bench().parts.at(-1);
    return this.studio.project()?.parts.some((part) => part.id === id) ?? false;
  });

  onKey(event: KeyboardEvent): void {
    if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
    event.preventDefault();
    event.stopPropagation();
    const ids = this.tabs.map(({ id }) => id);
    const way = event.key === 'ArrowRight' ? 1 : -1;
    const next = ids[(ids.indexOf(this.studio.bench().sheet) + way + ids.length) % ids.length]!;
    this.studio.set({ sheet: next });
    document.getElementById(`sheet-tab-${next}`)?.focus();
  }
}
