import type { Project, Range, Rate } from './types';

/** Seconds in one frame: `per / frames`, contract §1. */
export function secondsPerFrame(rate: Rate): number {
  return rate.per / rate.frames;
}

/** Frames in one second: `frames / per`. */
export function framesPerSecond(rate: Rate): number {
  return rate.frames / rate.per;
}

/** Within this, a number of frames a second is meant as one of 1000/1001. */
const NEAR_NTSC = 0.005;

/**
 * The rate for a number of frames a second as people type it: whole ones as they are, 23.976, 29.97, 59.94 and their like as
 * thousands over 1001, others to a thousandth.
 */
export function rateOf(perSecond: number): Rate {
  if (Number.isInteger(perSecond)) return { frames: perSecond, per: 1 };
  const thousands = Math.round(perSecond * 1.001) * 1000;
  if (Math.abs(thousands / 1001 - perSecond) < NEAR_NTSC) return { frames: thousands, per: 1001 };
  return { frames: Math.round(perSecond * 1000), per: 1000 };
}

/** `seconds = f·per/frames`, so frame 0 is second 0. */
export function frameToSeconds(frame: number, rate: Rate): number {
  return (frame * rate.per) / rate.frames;
}

export function secondsToFrame(seconds: number, rate: Rate): number {
  return (seconds * rate.frames) / rate.per;
}

/** The last frame that playing and films show: a looping range leaves its end out, as it shows what the start shows. */
export function lastShownFrame(range: Range): number {
  return range.loop && range.end - range.start >= 1 ? range.end - 1 : range.end;
}

/** A rate as people say it: `24 fps`, `29.97 fps`. */
export function rateLabel(rate: Rate): string {
  const fps = framesPerSecond(rate);
  return `${Number.isInteger(fps) ? fps : fps.toFixed(2)} fps`;
}

/** The clip whose curves give the base values while no arrangement is laid. */
export function activeClip(project: Project): Project['clips'][number] | undefined {
  return project.clips.find((clip) => clip.id === project.activeClip);
}
