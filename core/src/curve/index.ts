export * from './bezier';
export * from './compile';
export * from './keyed';
export * from './placement';
export * from './legs';
export { repeats } from './outside';
export * from './slopes';
export {
  applyTreatment,
  TREATMENT,
  treatmentRefusal,
  WEIGHT,
  weightFunction,
  type FrameFunction,
} from './treatment';
export { hash, noiseJet } from './treatment/noise';
export * from './corners';
export { hiddenCorners, type JetSample } from './hidden-corners';
export * from './seam';
export * from './repeated-keys';
