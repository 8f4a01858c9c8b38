import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import {
  compileCurve,
  curveContext,
  curveOf,
  curveValue,
  DRIVERS,
  LINKAGES,
  partOf,
  restValue,
  splitChannel,
  type Driver,
  type DriverWish,
  type Field,
  type Fields,
  type KeyedCurve,
} from '@kaizen/core';
import { RunDirective } from '../../commands/run.directive';
import { Studio } from '../../state/studio';
import { decimalsOf, shownNumber } from '../../ui/amount';
import { NumberFieldComponent } from '../../ui/number-field.component';
import type { Option } from '../../ui/option';
import { SelectComponent } from '../../ui/select.component';
import { channelLabel } from '../stage/channel-label';
import { drivenBy, driverParts } from '../stage/driven-by';
import { nameOf } from '../stage/said';
import { namedApart } from '../stage/named-apart';
import { Stage } from '../stage/stage';
import { Standing } from '../stage/standing';
import { CamFormComponent } from './cam-form.component';
import { ChannelFieldComponent } from './channel-field.component';
import { DriveHands } from './drive-hands';
import { FormulaFieldComponent } from './formula-field.component';
import { choiceLabel, LINKAGE_WORDS, wordsFor } from './driver-words';
import { MapFormComponent } from './map-form.component';
import { ProgramFormComponent } from './program-form.component';
import { ResponseComponent } from './response.component';

/** A number, switch or choice of a driver as its card shows it. */
interface Shown {
  readonly name: string;
  readonly label: string;
  readonly tip: string;
  readonly as: 'number' | 'optional' | 'flag' | 'choice' | 'pair';
  readonly unit: string;
  readonly value: unknown;
  readonly options: readonly Option<unknown>[];
}

/** One driver: what it does, how it stands, and its numbers, read off the descriptions of its kind and its mechanism. */
@Component({
  selector: 'kz-driver-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CamFormComponent,
    ChannelFieldComponent,
    FormulaFieldComponent,
    MapFormComponent,
    MatTooltip,
    NumberFieldComponent,
    ProgramFormComponent,
    ResponseComponent,
    RunDirective,
    SelectComponent,
  ],
  templateUrl: './driver-card.component.html',
  styleUrl: '../links/card.scss',
})
export class DriverCardComponent {
  readonly driver = input.required<Driver>();
  readonly first = input(false);
  readonly last = input(false);
  readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly standing = inject(Standing);
  private readonly hands = inject(DriveHands);

  readonly title = computed(() => {
    const project = this.stage.shown();
    return project ? channelLabel(project, this.driver().target).short : this.driver().target;
  });
  readonly says = computed(() => {
    const project = this.stage.shown();
    return project ? drivenBy(project, this.driver()) : '';
  });
  readonly state = computed(() => this.standing.ofDriver(this.driver()));
  /** The first other part that it reads: where a jump leads. */
  readonly other = computed(() => {
    const own = splitChannel(this.driver().target).part;
    return driverParts(this.driver()).find((id) => id !== own) ?? null;
  });
  readonly value = computed(() => {
    const project = this.stage.shown();
    const value = this.stage.valueOf(this.driver().target);
    if (!project || value === null) return '';
    const { unit } = channelLabel(project, this.driver().target);
    return `${shownNumber(value, decimalsOf(unit))} ${unit}`.trim();
  });
  /** What the channel's keys say by themselves at the playhead: what it would be without drivers. */
  readonly alone = computed(() => {
    const [project, now] = [this.stage.shown(), this.stage.now()];
    const { target } = this.driver();
    if (!project || !now) return '';
    const { part: id, property } = splitChannel(target);
    const part = partOf(project, id);
    const rest = (part && restValue(part, property)) ?? 0;
    const curve = curveOf(project, target);
    const keyed =
      curve && !curve.muted ? curveValue(compileCurve(curve, rest, curveContext(project)), now.frame) : rest;
    const { unit } = channelLabel(project, target);
    return `${shownNumber(keyed, decimalsOf(unit))} ${unit}`.trim();
  });
  readonly combines: readonly Option<Driver['combine']>[] = [
    { value: 'replace', label: 'In place of its keys' },
    { value: 'add', label: 'Added to its keys' },
  ];
  readonly linkages: readonly Option<string>[] = [...LINKAGES.keys()].map((value) => ({
    value,
    label: LINKAGE_WORDS[value]?.label ?? value,
  }));

  /** Its own numbers; of a mechanism those of the mechanism. */
  readonly fields = computed((): readonly Shown[] => {
    const driver = this.driver();
    return driver.kind === 'linkage'
      ? this.shownOf(LINKAGES.get(driver.linkage)?.params ?? {}, driver.params)
      : this.shownOf(DRIVERS[driver.kind].fields, driver);
  });

  private shownOf(fields: Fields, described: object): readonly Shown[] {
    const values = new Map(Object.entries(described) as [string, unknown][]);
    return Object.entries(fields).flatMap(([name, field]) => {
      const shown = this.shownAs(field);
      const value = values.get(name) ?? (values.has(name) ? null : field.fallback);
      return shown ? [{ name, ...wordsFor(name), unit: field.unit ?? '', options: [], value, ...shown }] : [];
    });
  }

  private shownAs(field: Field): (Pick<Shown, 'as'> & Partial<Shown>) | null {
    if (field.names === 'part') return { as: 'choice', options: this.parts() };
    if (field.names !== undefined || field.inside !== undefined) return null;
    const { enum: values, type } = field.schema as { enum?: readonly unknown[]; type?: string };
    if (values) {
      const options = values.map((value) => ({ value, label: choiceLabel(value) }));
      return {
        as: 'choice',
        options: field.nullable ? [{ value: null, label: 'straight' }, ...options] : options,
      };
    }
    if (type === 'boolean') return { as: 'flag' };
    if (type === 'array') return { as: 'pair', unit: 'm' };
    if (type === 'number' || type === 'integer') return { as: field.nullable ? 'optional' : 'number' };
    return null;
  }

  private parts(): readonly Option<string>[] {
    return namedApart(this.stage.shown()?.parts ?? []).map(({ id, name }) => ({ value: id, label: name }));
  }

  /** The channels that it reads, each under the name it has for it. */
  readonly inputs = computed((): readonly { readonly name: string; readonly channel: string }[] => {
    const driver = this.driver();
    if (driver.kind === 'linkage')
      return (LINKAGES.get(driver.linkage)?.inputs ?? []).map((name) => ({
        name,
        channel: driver.inputs[name] ?? driver.target,
      }));
    if (driver.kind === 'expression')
      return Object.entries(driver.inputs).map(([name, channel]) => ({ name, channel }));
    return 'input' in driver ? [{ name: 'input', channel: driver.input }] : [];
  });
  readonly outputs = computed((): readonly Option<string>[] => {
    const driver = this.driver();
    const outputs = driver.kind === 'linkage' ? (LINKAGES.get(driver.linkage)?.outputs ?? []) : [];
    return outputs.map((value) => ({ value, label: value }));
  });

  nameOf(part: string): string {
    const project = this.stage.shown();
    return project ? nameOf(project, part) : part;
  }

  words(name: string): string {
    return this.driver().kind === 'expression' ? name : wordsFor(name).label;
  }

  private edit(wish: Readonly<Record<string, unknown>>): void {
    this.hands.change(this.driver().id, `Driver of ${this.title()}`, wish);
  }

  set(name: string, value: unknown): void {
    const driver = this.driver();
    if (driver.kind === 'linkage') this.edit({ params: { ...driver.params, [name]: value } });
    else this.edit({ [name]: value });
  }
  /** What is dragged is shown in the view and the drawing, and not kept. */
  private show(wish: DriverWish | null): void {
    this.hands.show(this.driver().id, `Driver of ${this.title()}`, wish);
  }
  showCurve(curve: KeyedCurve | null): void {
    this.show(curve && { curve });
  }
  showNumber({ name, value }: Shown, change: ((value: number) => number) | null): void {
    const driver = this.driver();
    if (!change) this.show(null);
    else {
      const next = change(typeof value === 'number' ? value : 0);
      this.show(
        driver.kind === 'linkage' ? { params: { ...driver.params, [name]: next } } : { [name]: next },
      );
    }
  }
  setNumber(field: Shown, change: (value: number) => number): void {
    this.set(field.name, change(typeof field.value === 'number' ? field.value : 0));
  }
  setPair(field: Shown, axis: number, change: (value: number) => number): void {
    this.set(
      field.name,
      (field.value as readonly number[]).map((value, i) => (i === axis ? change(value) : value)),
    );
  }
  /** On: what the playhead says, or the whole range for a loop; off: none. */
  toggle(field: Shown): void {
    const range = this.stage.shown()?.range;
    const length = range ? Math.max(1, Math.round(range.end - range.start)) : 1;
    this.set(field.name, field.value === null ? (field.name === 'loop' ? length : this.stage.frame()) : null);
  }

  setInput(name: string, channel: string): void {
    const driver = this.driver();
    if (driver.kind === 'linkage' || driver.kind === 'expression')
      this.edit({ inputs: { ...driver.inputs, [name]: channel } });
    else this.edit({ input: channel });
  }
  setCombine(combine: Driver['combine']): void {
    this.edit({ combine });
  }
  setOutput(output: string): void {
    this.edit({ output });
  }

  /** Another mechanism begins with dimensions of its own; inputs that it names alike stay. */
  setLinkage(name: string): void {
    const driver = this.driver();
    const linkage = LINKAGES.get(name);
    if (driver.kind !== 'linkage' || !linkage) return;
    const [any] = Object.values(driver.inputs);
    const inputs = Object.fromEntries(
      linkage.inputs.map((each) => [each, driver.inputs[each] ?? any ?? driver.target]),
    );
    this.edit({
      linkage: name,
      inputs,
      output: linkage.outputs[0],
      params: LINKAGE_WORDS[name]?.params ?? {},
    });
  }

  setFormula(text: string): void {
    this.edit({ expression: text });
  }

  numbers(value: unknown): readonly number[] {
    return typeof value === 'number' ? [value] : [];
  }
  pairOf(value: unknown): readonly number[] {
    return Array.isArray(value) ? (value as readonly number[]) : [];
  }
}
