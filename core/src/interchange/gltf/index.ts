export * from './bring';
export { readGlb, writeGlb, writeGltfText } from './container';
export * from './document';
export * from './export';
export { findAssetNode } from './asset-node';
export { MOST_MODEL_BYTES, safePath, type ModelFiles } from './open-model';
export type { ModelProblem } from './model-problem';
