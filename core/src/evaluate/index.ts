export * from './program';
export * from './structure';
export * from './unsupported';
