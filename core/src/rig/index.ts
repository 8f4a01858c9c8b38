export * from './affine';
export * from './hierarchy';
export * from './local-matrix';
export * from './pose';
