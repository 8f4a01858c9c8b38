import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { MatTooltip } from '@angular/material/tooltip';
import {
  channelName,
  CONSTRAINTS,
  constraintGap,
  constraintSays,
  encodeName,
  partOf,
  type Constraint,
  type Field,
  type Spring,
} from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { shownNumber } from '../../ui/amount';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SelectComponent } from '../../ui/select.component';
import { VectorFieldComponent, type VectorChange } from '../../ui/vector-field.component';
import { namedApart } from '../stage/named-apart';
import { Stage } from '../stage/stage';
import { Standing } from '../stage/standing';
import { FIELD_WORDS, NEW_LAG } from './field-words';
import { HoldHands } from './hold-hands';

/** A field of a constraint as the form shows it. */
interface Shown {
  readonly name: string;
  readonly label: string;
  readonly tip: string;
  readonly as: 'number' | 'end' | 'flag' | 'choice' | 'axes' | 'vector' | 'lag';
  readonly unit: string;
  readonly options: readonly Option<unknown>[];
}

/** One constraint: what it does, how it stands, and its numbers, read off the description of its kind. */
@Component({
  selector: 'kz-constraint-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatIcon, MatTooltip, NumberFieldComponent, RunDirective, SelectComponent, VectorFieldComponent],
  templateUrl: './constraint-card.component.html',
  styleUrl: './card.scss',
})
export class ConstraintCardComponent {
  readonly constraint = input.required<Constraint>();
  readonly first = input(false);
  readonly last = input(false);
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly standing = inject(Standing);
  private readonly hands = inject(HoldHands);

  readonly says = computed(() => {
    const project = this.stage.shown();
    return project ? constraintSays(project, this.constraint()) : '';
  });
  readonly state = computed(() => this.standing.ofConstraint(this.constraint()));
  /** How far it is from what it wants at the playhead. */
  readonly gap = computed(() => {
    const project = this.stage.shown();
    const now = this.stage.now();
    const gap = project && now && constraintGap(now.program, project, this.constraint(), now.frame);
    if (!gap) return null;
    return gap.unit === 'm'
      ? `off ${shownNumber(gap.amount * 1000, 1)} mm`
      : `off ${shownNumber(gap.amount, 1)}°`;
  });

  readonly fields = computed((): readonly Shown[] => {
    const constraint = this.constraint();
    return Object.entries(CONSTRAINTS[constraint.kind].fields).flatMap(([name, field]) => {
      const words = FIELD_WORDS[name] ?? { label: name, tip: '' };
      const shown = this.shownAs(name, field);
      return shown ? [{ name, ...words, unit: field.unit ?? '', options: [], ...shown }] : [];
    });
  });

  private shownAs(name: string, field: Field): (Pick<Shown, 'as'> & Partial<Shown>) | null {
    if (name === 'lag') return { as: 'lag' };
    if (name === 'axes') return { as: 'axes' };
    if (field.names === 'part') return { as: 'choice', options: this.parts(field.partKind) };
    if (field.names === 'channel') return { as: 'choice', options: this.ownNumbers() };
    const { enum: values, type } = field.schema as {
      enum?: readonly unknown[];
      type?: string | readonly string[];
    };
    if (values)
      return { as: 'choice', options: values.map((value) => ({ value, label: choiceLabel(name, value) })) };
    if (type === 'boolean') return { as: 'flag' };
    if (type === 'array') return { as: 'vector', unit: 'm' };
    return name === 'end' ? { as: 'end' } : { as: 'number' };
  }

  private parts(kind: string | undefined): readonly Option<string>[] {
    const parts = this.stage.shown()?.parts ?? [];
    const fit = parts.filter((part) => part.id !== this.constraint().part && (!kind || part.kind === kind));
    return namedApart(fit).map(({ id, name }) => ({ value: id, label: name }));
  }

  /** Numbers of the part’s own that can say how far along a path it is. */
  private ownNumbers(): readonly Option<string>[] {
    const project = this.stage.shown();
    const constraint = this.constraint();
    const now = constraint.kind === 'along' ? constraint.distance : '';
    const own = (project && partOf(project, constraint.part)?.custom) ?? [];
    const options = own.map(({ name }) => ({
      value: channelName(constraint.part, `custom.${encodeName(name)}`),
      label: name,
    }));
    return options.some(({ value }) => value === now) ? options : [...options, { value: now, label: now }];
  }

  value(name: string): unknown {
    return (this.constraint() as unknown as Readonly<Record<string, unknown>>)[name];
  }
  numbers(name: string): readonly number[] {
    const value = this.value(name);
    return typeof value === 'number' ? [value] : Array.isArray(value) ? (value as number[]) : [];
  }
  lag(): Spring | null {
    return this.value('lag') as Spring | null;
  }
  hasAxis(axis: string): boolean {
    return String(this.value('axes')).includes(axis);
  }

  set(name: string, value: unknown): void {
    const label = `${FIELD_WORDS[name]?.label ?? name} of ${this.constraint().kind}`;
    this.hands.change(this.constraint().id, label, { [name]: value });
  }
  setNumber(name: string, change: (value: number) => number): void {
    this.set(name, change(this.numbers(name)[0] ?? 0));
  }
  setVector(name: string, { axis, change }: VectorChange): void {
    this.set(
      name,
      this.numbers(name).map((value, i) => (i === axis ? change(value) : value)),
    );
  }
  setLag(name: 'frequency' | 'damping', change: (value: number) => number): void {
    const lag = this.lag();
    if (lag) this.set('lag', { ...lag, [name]: change(lag[name]) });
  }
  toggleLag(): void {
    this.set('lag', this.lag() ? null : NEW_LAG);
  }
  toggleAxis(axis: string): void {
    const next = [...'xyz'].filter((each) => (each === axis) !== this.hasAxis(each)).join('');
    if (next !== '') this.set('axes', next);
  }
  toggleEnd(): void {
    const start = this.numbers('start')[0] ?? 0;
    this.set('end', this.value('end') === null ? Math.max(start, this.stage.frame()) : null);
  }
}

const SIDES: Readonly<Record<string, string>> = { '1': 'one side', '-1': 'other side' };

function choiceLabel(name: string, value: unknown): string {
  const text = String(value);
  return name === 'bend' ? (SIDES[text] ?? text) : text.replace('-', '−').toUpperCase();
}
