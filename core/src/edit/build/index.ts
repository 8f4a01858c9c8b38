export { copyAlong, copyAround, mirrorCopy, MOST_COPIES, type Copied } from './copies';
export { groupParts } from './group';
export { addMove, addTargetShape, changeMove, removeTargetShape, renameTargetShape } from './target-shapes';
export { focusDriver, keepFocusOn, letFocusGo } from './focus';
