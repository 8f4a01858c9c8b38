export * from './program';
export * from './structure';
export * from './unsupported';
export * from './held';
export * from './channel-corners';
