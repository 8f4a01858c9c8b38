export * from './constraint-gap';
export * from './extent';
export * from './lanes';
export * from './limit-band';
export * from './polyline';
export * from './rate-line';
export * from './speed-marks';
export * from './unmet-spans';
