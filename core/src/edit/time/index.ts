export * from './mirror-values';
export * from './push';
export { openChannels, retime, type SlopesKeep, type TimeEdit } from './retime';
export { backwards, hasNoBackwards, reverseTime } from './reverse-time';
export * from './stretch';
export { cutFrame, mapFrame, shiftFrame, type TimeKnot } from './time-map';
export * from './whole-frames';
export * from './waits';
export * from './close-loop';
