import type { Ink } from '../../studio/src/app/bench/plot/ink';

/** A canvas that takes every stroke and draws nothing: what is measured is the script's share of a frame. */
export function silentPen(): CanvasRenderingContext2D {
  const methods =
    'save restore beginPath rect clip fillRect moveTo lineTo quadraticCurveTo bezierCurveTo closePath fill stroke fillText setLineDash strokeRect arc translate rotate roundRect';
  const nothing = () => undefined;
  const pen: Record<string, unknown> = Object.fromEntries(methods.split(' ').map((name) => [name, nothing]));
  pen['measureText'] = () => ({ width: 40 });
  return pen as unknown as CanvasRenderingContext2D;
}

const NAMES = 'paper sheet ink soft rule ruleSoft now select selectGround loose ok warn caution'.split(' ');

/** Inks that are all black. */
export const BLACK_INK = {
  tones: {},
  hatch: '',
  ...Object.fromEntries(NAMES.map((name) => [name, '#000000'])),
} as unknown as Ink;
