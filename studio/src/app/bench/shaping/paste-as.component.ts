import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  DestroyRef,
} from '@angular/core';
import { MatDialogRef } from '@angular/material/dialog';
import { MatTooltip } from '@angular/material/tooltip';
import type { Project } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { SegmentsComponent } from '../../ui/segments.component';
import { Proposals } from '../stage/proposals';
import { Paster } from './paster';

/** Copied keys put down scaled, negated, shifted, on other channels or parts; what it makes shows behind the sheet. */
@Component({
  selector: 'kz-paste-as',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatTooltip, NumberFieldComponent, SegmentsComponent],
  template: `
    <h2>Paste keys as…</h2>
    <kz-number-field
      label="Values times"
      [values]="[times()]"
      [decimals]="3"
      tip="1 as they are, −1 negated, 0.5 half"
      (changed)="times.set($event(times()))"
    />
    <div class="line">
      <span class="soft">First value</span>
      <kz-segments name="First value" [options]="starts" [value]="fromNow()" (chosen)="fromNow.set($event)" />
    </div>
    <div class="line">
      <span class="soft">Onto</span>
      <kz-segments name="Onto" [options]="targets" [value]="ontoParts()" (chosen)="ontoParts.set($event)" />
    </div>
    <p class="soft" role="status">{{ told() }}</p>
    <div class="line end">
      <button class="button bare" matTooltip="Leave all as it is (Esc)" (click)="dialog.close()">
        Cancel
      </button>
      <button class="button main" matTooltip="Put them down at the playhead" (click)="paste()">Paste</button>
    </div>
  `,
  styles: `
    :host {
      display: block;
      padding: 16px 20px;
    }
    h2 {
      margin: 0 0 10px;
      font-size: 16px;
    }
    .line {
      display: flex;
      align-items: center;
      gap: 8px;
      margin: 10px 0;
    }
    .line > .soft {
      width: 70px;
    }
    .end {
      justify-content: flex-end;
    }
  `,
})
export class PasteAsComponent {
  readonly dialog = inject(MatDialogRef);
  private readonly studio = inject(Studio);
  private readonly paster = inject(Paster);
  private readonly proposals = inject(Proposals);
  readonly times = signal(1);
  readonly fromNow = signal(false);
  readonly ontoParts = signal(false);
  readonly starts = [
    { value: false, label: 'as copied' },
    { value: true, label: 'the value now' },
  ];
  readonly targets = [
    { value: false, label: 'their own or the chosen channels' },
    { value: true, label: 'the chosen parts' },
  ];
  private readonly choice = computed(() => ({
    times: this.times(),
    fromNow: this.fromNow(),
    ontoParts: this.ontoParts(),
  }));
  readonly told = computed(() => {
    const project = this.studio.project();
    const refs = project ? (this.paster.pasted(project, this.choice())?.refs ?? []) : [];
    const channels = new Set(refs.map(({ channel }) => channel)).size;
    return refs.length === 0
      ? 'Choose the parts in the rows first'
      : `${refs.length} keys on ${channels} ${channels === 1 ? 'channel' : 'channels'}, shown behind`;
  });

  constructor() {
    effect(() => {
      const choice = this.choice();
      const edit = (project: Project) => this.paster.pasted(project, choice)?.project ?? project;
      this.proposals.show({ label: 'Paste keys', edit });
    });
    inject(DestroyRef).onDestroy(() => this.proposals.drop());
  }

  paste(): void {
    this.proposals.drop();
    this.paster.paste(this.choice());
    this.dialog.close();
  }
}
