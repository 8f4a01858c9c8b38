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
