import { chartFields } from './chart';
import { chosenFields } from './chosen';
import type { Field, StateOf } from './field';
import { posingFields } from './posing';
import { shapingFields } from './shaping';
import { shellFields } from './shell';
import { timingFields } from './timing';
import { transportFields } from './transport';
import { viewFields } from './view';

export { ALL_KINDS, type Density, type RowFilter, type RowSet } from './chart';
export type { Capture } from './posing';
export type { NewKeys, Shaping } from './shaping';
export type { TimeSettings } from './timing';
export type { PlayMode } from './transport';
export type { Axes, Seeing, Tool } from './view';

/** The fields of the Bench's state, each described once, in the room it belongs to. One line a room. */
const fields = {
  ...chosenFields,
  ...transportFields,
  ...chartFields,
  ...viewFields,
  ...posingFields,
  ...timingFields,
  ...shapingFields,
  ...shellFields,
};

/** What is chosen and how it is looked at. Not history, kept with the project in this browser. */
export type BenchState = StateOf<typeof fields>;

export const benchFields: Readonly<Record<keyof BenchState, Field<unknown>>> = fields;

export const initialBench = Object.fromEntries(
  Object.entries(benchFields).map(([name, { initial }]) => [name, initial]),
) as unknown as BenchState;
