export * from './law';
export * from './jet';
export { easeLaw } from './ease';
export { camLaw } from './cam';
export * from './peaks';
