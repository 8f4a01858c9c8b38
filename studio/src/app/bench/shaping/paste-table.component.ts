import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogRef } from '@angular/material/dialog';
import { MatTooltip } from '@angular/material/tooltip';
import { greatestOf, leastOf, keyTable, readKeyTable, type KeyRef } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { SegmentsComponent } from '../../ui/segments.component';
import { channelLabel } from '../stage/channel-label';
import { namedChannels } from '../stage/picking';

/** Rows shown of what was read. */
const SHOWN_ROWS = 6;

/** A table from a spreadsheet becomes keys of the chosen channels: how it was read shows before anything happens. */
@Component({
  selector: 'kz-paste-table',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, SegmentsComponent],
  template: `
    <h2>Paste a table of keys</h2>
    <p class="soft">
      Two columns: frame or seconds, and the value. A first line of words is taken as the heading.
    </p>
    <textarea
      class="input numbers"
      rows="8"
      spellcheck="false"
      aria-label="The table"
      placeholder="0&#9;0.00&#10;24&#9;1.50&#10;48&#9;1.20"
      cdkFocusInitial
      (input)="text.set($any($event.target).value)"
    ></textarea>
    <div class="line">
      <span class="soft">Times are</span>
      <kz-segments
        name="What the times are"
        [options]="units"
        [value]="table().seconds"
        (chosen)="seconds.set($event)"
      />
      <span class="soft target">onto {{ target() }}</span>
    </div>
    <p class="read" role="status">{{ told() }}</p>
    @if (table().rows.length > 0) {
      <table>
        <tr>
          <th>frame</th>
          <th>value</th>
        </tr>
        @for (row of firstRows(); track $index) {
          <tr class="numbers">
            <td>{{ frame(row.frame) }}</td>
            <td>{{ row.value }}</td>
          </tr>
        }
      </table>
    }
    <div class="line end">
      <button class="button bare" matTooltip="Leave all as it is (Esc)" (click)="dialog.close()">
        Cancel
      </button>
      <button
        class="button main"
        matTooltip="Rows take the place of keys on their frames; all other keys stay"
        [disabled]="table().rows.length === 0 || channels().length === 0"
        (click)="key()"
      >
        Key them
      </button>
    </div>
  `,
  styles: `
    :host {
      display: block;
      padding: 16px 20px;
    }
    h2 {
      margin: 0 0 4px;
      font-size: 16px;
    }
    p {
      margin: 0 0 8px;
    }
    textarea {
      width: 100%;
      height: auto;
      resize: vertical;
    }
    .line {
      display: flex;
      align-items: center;
      gap: 8px;
      margin: 8px 0;
    }
    .end {
      justify-content: flex-end;
    }
    .target {
      margin-left: auto;
    }
    .read {
      min-height: 18px;
    }
    table {
      border-collapse: collapse;
    }
    th {
      font-weight: 600;
    }
    th,
    td {
      padding: 1px 16px 1px 0;
      text-align: right;
    }
  `,
})
export class PasteTableComponent {
  private readonly studio = inject(Studio);
  readonly dialog = inject(MatDialogRef);
  readonly text = signal('');
  readonly seconds = signal<boolean | undefined>(undefined);
  readonly units = [
    { value: false, label: 'frames' },
    { value: true, label: 'seconds' },
  ];
  readonly frame = shownFrame;

  readonly table = computed(() => {
    const project = this.studio.project();
    return project
      ? readKeyTable(this.text(), project.rate, this.seconds())
      : { rows: [], seconds: false, wrong: [] };
  });
  readonly firstRows = computed(() => this.table().rows.slice(0, SHOWN_ROWS));
  readonly channels = computed(() => namedChannels(this.studio.bench()));
  readonly target = computed(() => {
    const project = this.studio.project();
    const [only, ...more] = this.channels();
    if (!project || only === undefined) return 'no channel: choose one in the rows first';
    return more.length > 0 ? `${more.length + 1} channels` : channelLabel(project, only).full;
  });
  readonly told = computed(() => {
    const { rows, wrong } = this.table();
    if (this.text().trim() === '') return '';
    const left =
      wrong.length > 0
        ? ` Line ${wrong.slice(0, 3).join(', ')}${wrong.length > 3 ? ' …' : ''} ${wrong.length === 1 ? 'is' : 'are'} not two numbers and will be left out.`
        : '';
    if (rows.length === 0) return `No row has two numbers.${left}`;
    const frames = rows.map(({ frame }) => frame);
    return `${rows.length} keys from f ${shownFrame(leastOf(frames))} to ${shownFrame(greatestOf(frames))}.${left}`;
  });

  key(): void {
    const { rows } = this.table();
    const channels = this.channels();
    this.studio.edit(`Paste a table of ${rows.length} keys`, (project) => keyTable(project, channels, rows));
    const keys = channels.flatMap((channel) => rows.map(({ frame }): KeyRef => ({ channel, frame })));
    this.studio.pick({ keys, handles: [] });
    this.dialog.close();
  }
}
