import type { Treatment, TreatmentKind } from '@kaizen/core';
import { shownFrame, shownNumber } from '../../ui/amount';

/** A number of a treatment as a field: its label, unit and bounds. `unit` value: the channel's. */
export interface TreatmentField {
  readonly name: string;
  readonly label: string;
  readonly unit: 'value' | 'f' | 'times' | '';
  readonly fallback: number;
  readonly least: number;
  readonly most?: number;
  readonly whole?: boolean;
  /** May be left out: no bound, no closing. */
  readonly optional?: boolean;
  readonly tip: string;
}

/** More octaves no file may ask for (kaizen.schema.json); the last of so many moves nothing that is seen. */
const MOST_OCTAVES = 24;

const FIELDS: Readonly<Record<TreatmentKind, readonly TreatmentField[]>> = {
  noise: [
    {
      name: 'amplitude',
      label: 'Amount',
      unit: 'value',
      fallback: 0,
      least: -Infinity,
      tip: 'The most it adds or takes',
    },
    {
      name: 'period',
      label: 'Period',
      unit: 'f',
      fallback: 12,
      least: 0.01,
      tip: 'Frames from one turn to the next: longer is calmer',
    },
    {
      name: 'seed',
      label: 'Seed',
      unit: '',
      fallback: 1,
      least: 0,
      whole: true,
      tip: 'Another number, another course',
    },
    {
      name: 'octaves',
      label: 'Octaves',
      unit: '',
      fallback: 1,
      least: 1,
      most: MOST_OCTAVES,
      whole: true,
      tip: 'How many finer ones lie over it, each half as strong',
    },
    {
      name: 'loop',
      label: 'Closes over',
      unit: 'f',
      fallback: 48,
      least: 1,
      optional: true,
      tip: 'Frames after which it starts again without a seam',
    },
  ],
  clamp: [
    {
      name: 'min',
      label: 'At least',
      unit: 'value',
      fallback: 0,
      least: -Infinity,
      optional: true,
      tip: 'The value goes no lower',
    },
    {
      name: 'max',
      label: 'At most',
      unit: 'value',
      fallback: 1,
      least: -Infinity,
      optional: true,
      tip: 'The value goes no higher',
    },
  ],
  gain: [
    {
      name: 'factor',
      label: 'Factor',
      unit: 'times',
      fallback: 1,
      least: -Infinity,
      tip: 'How much farther from its centre',
    },
    {
      name: 'about',
      label: 'About',
      unit: 'value',
      fallback: 0,
      least: -Infinity,
      tip: 'The centre that stays where it is',
    },
  ],
  delay: [
    {
      name: 'frames',
      label: 'Later by',
      unit: 'f',
      fallback: 0,
      least: -Infinity,
      tip: 'Frames; below 0: earlier',
    },
  ],
  every: [
    {
      name: 'frames',
      label: 'Seen every',
      unit: 'f',
      fallback: 2,
      least: 0.01,
      tip: 'Seen only every so many frames, still between',
    },
    {
      name: 'offset',
      label: 'From',
      unit: 'f',
      fallback: 0,
      least: -Infinity,
      tip: 'The frame it counts from',
    },
  ],
};

export const TREATMENT_LABELS: Readonly<Record<TreatmentKind, string>> = {
  noise: 'Noise',
  clamp: 'Clamp',
  gain: 'Gain',
  delay: 'Delay',
  every: 'Every n-th frame',
};

export function treatmentFields(treatment: Treatment): readonly TreatmentField[] {
  return FIELDS[treatment.kind];
}

/** The number a field shows; null where it may be left out and is. */
export function fieldNumber(treatment: Treatment, field: TreatmentField): number | null {
  const value = (treatment as unknown as Record<string, number | null | undefined>)[field.name];
  return value ?? (field.optional ? null : field.fallback);
}

/** A treatment with one of its numbers set within what it may be; null leaves it out. */
export function withField(treatment: Treatment, field: TreatmentField, value: number | null): Treatment {
  return { ...treatment, [field.name]: value === null ? null : withinField(field, value) };
}

function withinField({ least, most = Infinity, whole }: TreatmentField, value: number): number {
  return Math.min(most, Math.max(least, whole ? Math.round(value) : value));
}

/** What is said where a number is beyond what its field may hold; null where it is not. */
export function beyondText(field: TreatmentField, value: number): string | null {
  const { label, least, most = Infinity } = field;
  if (value >= least && value <= most) return null;
  if (value > most) return `${label}: at most ${shownNumber(most, 0)}`;
  return `${label}: at least ${shownNumber(least, Number.isInteger(least) ? 0 : 2)}`;
}

/** Whether a clamp's bounds are the wrong way round, which a file may not say. */
export function isRefused(treatment: Treatment): boolean {
  return (
    treatment.kind === 'clamp' &&
    typeof treatment.min === 'number' &&
    typeof treatment.max === 'number' &&
    treatment.min > treatment.max
  );
}

/** What a treatment does in a few characters: `3.20 °`, `−6.0 to 6.0 °`, `3 f`. `shown` writes a value of the channel. */
export function treatmentAmount(
  treatment: Treatment,
  unit: string,
  shown: (value: number) => string,
): string {
  const value = (number: number) => `${shown(number)}${unit ? ` ${unit}` : ''}`;
  switch (treatment.kind) {
    case 'noise':
      return value(treatment.amplitude);
    case 'clamp':
      return clampAmount(treatment.min ?? null, treatment.max ?? null, value, shown);
    case 'gain':
      return `× ${shownNumber(treatment.factor, 2)}`;
    case 'delay':
    case 'every':
      return `${shownFrame(treatment.frames)} f`;
  }
}

function clampAmount(
  min: number | null,
  max: number | null,
  value: (number: number) => string,
  shown: (value: number) => string,
): string {
  if (min !== null && max !== null) return `${shown(min)} to ${value(max)}`;
  if (min !== null) return `≥ ${value(min)}`;
  return max === null ? 'no bound' : `≤ ${value(max)}`;
}
