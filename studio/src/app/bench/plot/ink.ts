import { token } from '../../ui/theme';
import type { ChannelLabel } from '../stage/channel-label';

/** The colours the canvas draws with, read from the theme's tokens once a theme. */
export interface Ink {
  readonly paper: string;
  readonly sheet: string;
  readonly ink: string;
  readonly soft: string;
  readonly rule: string;
  readonly ruleSoft: string;
  readonly now: string;
  readonly select: string;
  readonly selectGround: string;
  readonly loose: string;
  readonly ok: string;
  readonly warn: string;
  readonly caution: string;
  readonly tones: Readonly<Record<ChannelLabel['tone'], string>>;
  readonly hatch: CanvasPattern | string;
}

export function readInk(): Ink {
  const hatchColor = token('rule');
  return {
    paper: token('paper'),
    sheet: token('sheet'),
    ink: token('ink'),
    soft: token('ink-soft'),
    rule: hatchColor,
    ruleSoft: token('rule-soft'),
    now: token('now'),
    select: token('select'),
    selectGround: token('select-ground'),
    loose: token('loose'),
    ok: token('ok'),
    warn: token('warn'),
    caution: token('caution'),
    tones: {
      x: token('axis-x'),
      y: token('axis-y'),
      z: token('axis-z'),
      q: token('other-1'),
      f: token('other-2'),
      c: token('other-3'),
    },
    hatch: hatchPattern(hatchColor),
  };
}

function hatchPattern(color: string): CanvasPattern | string {
  const tile = new OffscreenCanvas(8, 8);
  const pen = tile.getContext('2d');
  if (!pen) return 'transparent';
  pen.strokeStyle = color;
  pen.lineWidth = 1;
  pen.beginPath();
  for (const shift of [-8, 0, 8]) {
    pen.moveTo(shift, 8);
    pen.lineTo(shift + 8, 0);
  }
  pen.stroke();
  return pen.createPattern(tile, 'repeat') ?? 'transparent';
}

export const MONO = "11px 'IBM Plex Mono', monospace";
export const WORDS = "12.5px 'Barlow Semi Condensed', sans-serif";

/** The pen of a canvas, in pixels of the page whatever the screen's are. */
export function penOf(canvas: HTMLCanvasElement): CanvasRenderingContext2D | null {
  const pen = canvas.getContext('2d');
  if (pen) {
    pen.setTransform(devicePixelRatio, 0, 0, devicePixelRatio, 0, 0);
    pen.textRendering = 'geometricPrecision';
  }
  return pen;
}
