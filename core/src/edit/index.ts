export * from './bring-into';
export * from './build';
export * from './curve-context';
export { curveName, curveRef, ownerOf, weightChannel, type CurveRef } from './curve-ref';
export * from './curves';
export * from './drive';
export * from './insert-key';
export * from './interlocks';
export * from './links';
export * from './keys';
export {
  asEdited,
  followCurves,
  followKeys,
  frameAfter,
  NOTHING_MOVED,
  timeAfter,
  type Edit,
  type Edited,
  type Mapping,
} from './mapping';
export * from './markers';
export * from './new-part';
export * from './new-project';
export * from './parts';
export * from './paste';
export * from './pose';
export * from './remove-parts';
export * from './replace-model';
export * from './retime-rate';
export * from './select-keys';
export * from './shape';
export * from './squash-here';
export * from './table';
export * from './takes';
export * from './time';
export * from './trail';
