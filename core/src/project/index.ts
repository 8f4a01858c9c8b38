export * from './types';
export * from './channel';
export * from './defaults';
export * from './json-pointer';
export * from './read';
export * from './references';
export * from './timing';
