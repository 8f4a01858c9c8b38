export * from './law';
export * from './jet';
export { easeLaw } from './ease';
export { easeExcess, withExcess } from './ease/excess';
export { camLaw } from './cam';
export * from './peaks';
