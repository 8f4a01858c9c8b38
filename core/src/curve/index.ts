export * from './bezier';
export * from './compile';
export * from './keyed';
export * from './legs';
export { repeats } from './outside';
export * from './slopes';
export { noiseJet } from './treatment/noise';
