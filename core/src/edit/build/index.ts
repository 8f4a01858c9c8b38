export { copyAlong, copyAround, mirrorCopy, MOST_COPIES, type Copied } from './copies';
export { groupParts } from './group';
