export * from './lanes';
