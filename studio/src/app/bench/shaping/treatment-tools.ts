import { Injectable, inject } from '@angular/core';
import {
  addTreatment,
  bake,
  curveOf,
  curveRef,
  cycleOf,
  moveTreatment,
  newTreatment,
  removeTreatment,
  repeatingEnd,
  setTreatment,
  weightChannel,
  weightCurve,
  type Edit,
  type Treatment,
  type TreatmentKind,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { shownFrame, shownNumber } from '../../ui/amount';
import { Notices } from '../../ui/notices';
import { channelLabel } from '../stage/channel-label';
import {
  beyondText,
  fieldNumber,
  isRefused,
  TREATMENT_LABELS,
  withField,
  type TreatmentField,
} from './treatment-fields';

/** A treatment by the channel it lies over and its place there, from 0. */
export interface TreatmentRef {
  readonly channel: string;
  readonly index: number;
}

/** Edits of the treatments that lie over a channel's curve, for their lanes, their cards and the commands. */
@Injectable({ providedIn: 'root' })
export class TreatmentTools {
  private readonly studio = inject(Studio);
  private readonly notices = inject(Notices);

  private curve(channel: string) {
    const project = this.studio.project();
    return project ? curveOf(project, channel) : undefined;
  }

  /** Whether the treatments of a channel can't be changed. */
  locked(channel: string): boolean {
    return this.studio.readOnly() || (this.curve(channel)?.locked ?? false);
  }

  /** The treatment whose lane is chosen. */
  chosen(): TreatmentRef | null {
    const { lane } = this.studio.bench();
    const ref = lane === null ? null : curveRef(lane);
    if (ref?.of !== 'weight' || !this.treatment(ref.channel, ref.treatment)) return null;
    return { channel: ref.channel, index: ref.treatment };
  }

  treatment(channel: string, index: number): Treatment | undefined {
    return this.curve(channel)?.treatments[index];
  }

  private unit(channel: string): string {
    const project = this.studio.project();
    return project ? channelLabel(project, channel).unit : '';
  }

  /** Lays a treatment over all that are there; its lane is the chosen one then. */
  add(channel: string, kind: TreatmentKind): void {
    const height = { '°': 5, m: 0.05, mm: 5 }[this.unit(channel)] ?? 0.1;
    const place = this.curve(channel)?.treatments.length ?? 0;
    this.studio.edit(`Lay ${TREATMENT_LABELS[kind].toLowerCase()} over`, (project) =>
      addTreatment(project, channel, newTreatment(kind, height)),
    );
    this.studio.set({ lane: weightChannel(channel, place), sheet: 'curve' });
  }

  set(channel: string, index: number, treatment: Treatment, label = 'Set a treatment'): void {
    if (isRefused(treatment)) {
      this.notices.warn('“At least” is above “At most”: raise the upper bound or lower the other one first');
      return;
    }
    this.studio.edit(label, (project) => setTreatment(project, channel, index, treatment));
  }

  setField(channel: string, index: number, field: TreatmentField, change: (value: number) => number): void {
    const treatment = this.treatment(channel, index);
    if (!treatment) return;
    const value = change(fieldNumber(treatment, field) ?? field.fallback);
    const beyond = beyondText(field, value);
    if (beyond !== null) this.notices.warn(beyond);
    this.set(channel, index, withField(treatment, field, value), field.label);
  }

  /**
   * Puts an optional number in, or leaves it out. A noise closes over the loop's round, else over the range; a bound begins at the
   * keys' own least or greatest value, where it changes nothing yet.
   */
  toggleField(channel: string, index: number, field: TreatmentField): void {
    const treatment = this.treatment(channel, index);
    if (!treatment) return;
    const first = fieldNumber(treatment, field) === null ? this.firstNumber(channel, field) : null;
    this.set(channel, index, withField(treatment, field, first), field.label);
  }

  private firstNumber(channel: string, field: TreatmentField): number {
    const project = this.studio.project();
    const curve = this.curve(channel);
    const values = curve?.keys.map(({ value }) => value) ?? [];
    if (field.name === 'min' && values.length > 0) return values.reduce((a, b) => Math.min(a, b));
    if (field.name === 'max' && values.length > 0) return values.reduce((a, b) => Math.max(a, b));
    if (field.name !== 'loop' || !project) return field.fallback;
    const end = curve && repeatingEnd(curve);
    const cycle = curve && end ? cycleOf(curve, end) : null;
    return cycle?.period ?? project.range.end - project.range.start;
  }

  setWeight(channel: string, index: number, change: (value: number) => number): void {
    const treatment = this.treatment(channel, index);
    if (treatment && typeof treatment.weight === 'number')
      this.set(channel, index, { ...treatment, weight: change(treatment.weight) }, 'Weight');
  }

  /** Makes the weight a curve over the range, or a number again. */
  toggleWeight(channel: string, index: number): void {
    const project = this.studio.project();
    const treatment = this.treatment(channel, index);
    if (!project || !treatment) return;
    const { start, end } = project.range;
    const isNumber = typeof treatment.weight === 'number';
    const weight =
      typeof treatment.weight === 'number'
        ? weightCurve(treatment.weight, start, end)
        : (treatment.weight.keys[0]?.value ?? 1);
    this.set(channel, index, { ...treatment, weight }, isNumber ? 'Weight as a curve' : 'Weight as a number');
    this.studio.set({ lane: weightChannel(channel, index) });
  }

  /** Draws a weight in the Chart too, over a scale of its own. */
  plotWeight(channel: string, index: number): void {
    this.studio.pick({ channels: [channel, weightChannel(channel, index)], keys: [], handles: [] });
    if (this.studio.bench().density === 'ticks') this.studio.set({ density: 'curves' });
  }

  mute(channel: string, index: number): void {
    const treatment = this.treatment(channel, index);
    if (!treatment) return;
    const label = treatment.muted ? 'Unmute a treatment' : 'Mute a treatment';
    this.set(channel, index, { ...treatment, muted: !treatment.muted }, label);
  }

  remove(channel: string, index: number): void {
    this.studio.edit('Remove a treatment', (project) => removeTreatment(project, channel, index));
  }

  /** Laying a treatment at another place of the order, as an edit with its label. */
  moving(channel: string, from: number, to: number): { readonly label: string; readonly edit: Edit } {
    return {
      label: 'Order of treatments',
      edit: (project) => moveTreatment(project, channel, from, to),
    };
  }

  move(channel: string, from: number, to: number): void {
    const { label, edit } = this.moving(channel, from, to);
    this.studio.edit(label, edit);
  }

  /** Keys on every frame of what shows, in place of keys and treatments. */
  bake(channel: string): void {
    const project = this.studio.project();
    if (!project) return;
    const made = bake(project, [channel], 1, project.range);
    this.studio.edit('Bake treatments to keys', () => made.project);
    const where = made.at ? ` at f ${shownFrame(made.at.frame)}` : '';
    this.notices.tell(
      `Baked to ${made.keysAfter} keys, one a frame; at most ${shownNumber(made.error, 5)} ${this.unit(channel)} off between them${where}`,
      { label: 'Undo', run: () => this.studio.undo() },
    );
  }
}
