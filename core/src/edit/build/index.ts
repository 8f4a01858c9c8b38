export { copyAlong, copyAround, mirrorCopy, MOST_COPIES, type Copied } from './copies';
export { groupParts } from './group';
export { addMove, addTargetShape, changeMove, removeTargetShape, renameTargetShape } from './target-shapes';
export { addOwnNumber, changeOwnNumber, removeOwnNumber, renameOwnNumber } from './own-numbers';
export { cutsOf, cutTo, removeCut, type Cut } from './cuts';
export { addSun } from './sun';
export { focusDriver, keepFocusOn, letFocusGo } from './focus';
