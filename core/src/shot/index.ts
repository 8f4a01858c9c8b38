export * from './fit';
export * from './moved-mesh';
export * from './quaternion';
export * from './shot';
export * from './track';
export * from './track-errors';
