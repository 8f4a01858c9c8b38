import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import type { SideSheet } from '../stage/side-sheet';
import { partSheet } from './part-sheet';
import { SHEETS } from './sheets';

/** The side sheet: a tab each for the chosen keys, the chosen part (or the shot), time, and poses. */
@Component({
  selector: 'kz-side-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgComponentOutlet, RunDirective],
  template: `
    <div class="tabs" role="tablist" aria-label="Side sheet">
      @for (tab of tabs; track tab.id) {
        <button
          role="tab"
          [id]="'sheet-tab-' + tab.id"
          [attr.aria-selected]="open() === tab"
          [attr.tabindex]="open() === tab ? 0 : -1"
          aria-controls="sheet-panel"
          [kzRun]="'sheet.' + tab.id"
          [kzTip]="tab.tip"
          (keydown)="onKey($event)"
        >
          {{ meant(tab).label }}
          @if (tab.countsKeys && studio.bench().keys.length > 0) {
            <span class="numbers">{{ studio.bench().keys.length }}</span>
          }
        </button>
      }
    </div>
    <div
      class="body"
      id="sheet-panel"
      role="tabpanel"
      [attr.aria-labelledby]="'sheet-tab-' + open().id"
      tabindex="0"
    >
      <ng-container [ngComponentOutlet]="meant(open()).component" />
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
      padding: 0 7px;
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
  readonly tabs = SHEETS;
  readonly open = computed(() => SHEETS.find(({ id }) => id === this.studio.bench().sheet) ?? partSheet);
  private readonly hasPart = computed(() => {
    const id = this.studio.bench().parts.at(-1);
    return this.studio.project()?.parts.some((part) => part.id === id) ?? false;
  });

  /** What a tab says and shows, by whether a part is chosen. */
  meant(tab: SideSheet): Pick<SideSheet, 'label' | 'component'> {
    return this.hasPart() ? tab : (tab.withoutPart ?? tab);
  }

  onKey(event: KeyboardEvent): void {
    if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
    event.preventDefault();
    event.stopPropagation();
    const way = event.key === 'ArrowRight' ? 1 : -1;
    const next = SHEETS[(SHEETS.indexOf(this.open()) + way + SHEETS.length) % SHEETS.length]!;
    this.studio.set({ sheet: next.id });
    document.getElementById(`sheet-tab-${next.id}`)?.focus();
  }
}
