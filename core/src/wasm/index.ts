export * from './code';
export { Machine, type Imports } from './machine';
export type { ModuleFunction } from './module';
