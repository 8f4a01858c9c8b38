export * from './corners';
export * from './held';
export * from './moment';
export * from './points';
export * from './program';
export * from './structure';
export * from './places';
export * from './awaited-moment';
