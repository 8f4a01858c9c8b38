export * from './curves';
export * from './insert-key';
export * from './keys';
export * from './new-part';
export * from './new-project';
export * from './parts';
export * from './remove-parts';
export * from './retime-rate';
