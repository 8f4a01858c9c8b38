export * from './driver';
export * from './order';
export { compileExpression, type CompiledExpression } from './expression/compile';
export { LINKAGES } from './linkage';
