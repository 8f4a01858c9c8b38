import type { Fields, Treatment } from '../../project';
import type { Jet } from '../../law';

/**
 * A treatment makes from a function of time another (contract §5). It reads the function below it at any
 * frame, so that a delay or a step can look elsewhere.
 */
export interface FrameFunction {
  readonly value: (frame: number) => number;
  readonly jet: (frame: number) => Jet;
}
export type TreatmentMaker<T> = (treatment: T, below: FrameFunction) => FrameFunction;

/** All there is to say of a kind of treatment. */
export interface TreatmentKind<T extends Treatment> {
  /** Its own fields; every treatment has a weight and may be muted. */
  readonly fields: Fields;
  readonly refuse?: (treatment: T) => { readonly at: string; readonly message: string } | null;
  readonly make: TreatmentMaker<T>;
}
