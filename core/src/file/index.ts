export * from './defaults';
export * from './edition';
export * from './in-pieces';
export * from './limits';
export * from './project-fields';
export * from './read';
export * from './references';
export * from './schema';
