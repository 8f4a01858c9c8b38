import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { greatestOf, keyAtFrame, leastOf, curveOf, scaleBox, shiftFrame, type Project } from '@kaizen/core';
import { chosenFrames } from '../plot/chosen';
import { CommandRegistry } from '../../commands/registry';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { SelectComponent } from '../../ui/select.component';
import { valueOfChannel } from '../plot/chart-lines';
import { Stage } from '../stage/stage';

type About = 'first' | 'last' | 'playhead' | 'middle';

/** Several chosen keys scaled in time and value by number, about their first, last, the playhead or their middle. */
@Component({
  selector: 'kz-scale-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberFieldComponent, SelectComponent, RunDirective],
  template: `
    <div class="form">
      <kz-number-field
        label="Time ×"
        [values]="[1]"
        [decimals]="2"
        tip="Scales the chosen keys in time by this"
        (changed)="scale('time', $event)"
      />
      <kz-number-field
        label="Value ×"
        [values]="[1]"
        [decimals]="2"
        tip="Scales the chosen keys in value by this; −1 turns them round"
        (changed)="scale('value', $event)"
      />
      <kz-select
        label="about"
        tip="What stays where it is"
        [options]="abouts"
        [value]="about()"
        (chosen)="about.set($event)"
      />
      <button class="button toggle" kzRun="chart.box" kzTip="A box with handles around the chosen keys">
        Box
      </button>
    </div>
  `,
  styles: `
    .form {
      display: grid;
      grid-template-columns: 1fr 1fr 1.1fr auto;
      align-items: end;
      gap: 6px;
      margin-bottom: 8px;
    }
  `,
})
export class ScaleFormComponent {
  readonly studio = inject(Studio);
  readonly registry = inject(CommandRegistry);
  private readonly stage = inject(Stage);
  readonly about = signal<About>('first');
  readonly abouts = [
    { value: 'first' as const, label: 'first' },
    { value: 'last' as const, label: 'last' },
    { value: 'playhead' as const, label: 'playhead' },
    { value: 'middle' as const, label: 'middle' },
  ];

  private readonly span = computed(() => {
    const frames = this.studio.bench().keys.map(({ frame }) => frame);
    return { first: leastOf(frames), last: greatestOf(frames) };
  });

  private frame(): number {
    const { first, last } = this.span();
    return { first, last, playhead: this.stage.frame(), middle: (first + last) / 2 }[this.about()];
  }

  /** The value of a channel that stays where it is. */
  private valueOf(project: Project, channel: string): number {
    const curve = curveOf(project, channel);
    const values = [...chosenFrames(this.studio.bench().keys, channel)].map(
      (frame) => (curve && keyAtFrame(curve, frame)?.value) ?? 0,
    );
    const program = this.stage.program();
    switch (this.about()) {
      case 'first':
        return values[0] ?? 0;
      case 'last':
        return values.at(-1) ?? 0;
      case 'playhead':
        return program ? valueOfChannel(program, project, channel, this.stage.frame()) : 0;
      case 'middle':
        return (leastOf(values) + greatestOf(values)) / 2;
    }
  }

  scale(what: 'time' | 'value', change: (value: number) => number): void {
    const factor = change(1);
    const { keys } = this.studio.bench();
    if (factor === 1 || (what === 'time' && !(factor > 0))) return;
    const frame = this.frame();
    const frames = what === 'time' ? factor : 1;
    this.studio.edit(`Scale ${keys.length} keys in ${what}`, (project) =>
      scaleBox(project, keys, {
        frame,
        frames,
        values: what === 'value' ? factor : 1,
        value: (channel) => this.valueOf(project, channel),
      }),
    );
    if (what === 'time')
      this.studio.pick({
        keys: keys.map((key) => ({ ...key, frame: shiftFrame(frame, (key.frame - frame) * factor) })),
      });
  }
}
