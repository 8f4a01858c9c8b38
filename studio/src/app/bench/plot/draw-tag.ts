import { MONO, type Ink } from './ink';

/** A tag's ground, line and letters. */
export interface TagLook {
  readonly ground: string;
  readonly line: string;
  readonly letters: string;
}

/** What a tag tells, by its look: a value, a gap that closes or does not, what breaks a limit. */
export function tagLook(ink: Ink, tells: 'value' | 'closed' | 'open' | 'breach'): TagLook {
  switch (tells) {
    case 'value':
      return { ground: ink.now, line: ink.now, letters: ink.paper };
    case 'closed':
      return { ground: ink.sheet, line: ink.ok, letters: ink.ok };
    case 'open':
      return { ground: ink.sheet, line: ink.caution, letters: ink.caution };
    case 'breach':
      return { ground: ink.warn, line: ink.warn, letters: ink.paper };
  }
}

const HEIGHT = 20;
/** Between a place and its tag, in pixels. */
const BESIDE = 8;
/** In its top left corner a strip has its name, which no tag covers. */
const NAME = { width: 90, height: 16 };

/** A tag right of a place on the plot, left of it where there is no room; above it, within a strip. */
export function drawTag(
  pen: CanvasRenderingContext2D,
  at: { readonly x: number; readonly y: number },
  within: { readonly top: number; readonly height: number; readonly width: number },
  text: string,
  look: TagLook,
): void {
  pen.font = MONO.replace('11px', '12px');
  const width = pen.measureText(text).width + 12;
  const left = at.x + BESIDE + width > within.width ? at.x - BESIDE - width : at.x + BESIDE;
  const lowest = within.top + within.height - HEIGHT - 2;
  const highest = within.top + 2 + (left < NAME.width ? NAME.height : 0);
  const top = Math.min(lowest, Math.max(highest, at.y - HEIGHT - 4));
  pen.fillStyle = look.ground;
  pen.strokeStyle = look.line;
  pen.lineWidth = 1;
  pen.beginPath();
  pen.roundRect(Math.round(left) + 0.5, Math.round(top) + 0.5, Math.round(width), HEIGHT - 1, 3);
  pen.fill();
  pen.stroke();
  pen.fillStyle = look.letters;
  pen.textAlign = 'left';
  pen.textBaseline = 'middle';
  pen.fillText(text, Math.round(left) + 6.5, Math.round(top) + HEIGHT / 2 + 0.5);
}
