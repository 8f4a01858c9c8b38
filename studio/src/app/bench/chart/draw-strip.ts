import { MONO, WORDS, type Ink } from '../plot/ink';
import { yOf, type Plot, type Strip } from '../plot/plot';
import type { CurvesScene } from './curves-scene';

/** What a strip shows, in its top left corner over all that it draws, and the limit of a rate beside it. */
export function drawStripName(
  pen: CanvasRenderingContext2D,
  { ink }: CurvesScene,
  strip: Strip,
  limit: string | null,
): void {
  const [only] = strip.labels;
  const names = shortNames(strip);
  const width = nameWidth(pen, strip);
  const whole = width + limitWidth(pen, limit);
  pen.font = `600 ${WORDS}`;
  pen.textAlign = 'left';
  pen.textBaseline = 'top';
  pen.fillStyle = `${ink.sheet}b0`;
  pen.fillRect(0, strip.top, whole, NAME_HEIGHT);
  pen.fillStyle = names.length === 1 && only ? ink.tones[only.tone] : ink.ink;
  pen.fillText(nameOf(strip), 6, strip.top + 3);
  if (limit === null) return;
  pen.font = WORDS;
  pen.fillStyle = ink.ok;
  pen.fillText(limit, width, strip.top + 3);
}

/** How high the name of a strip is, from its top. */
export const NAME_HEIGHT = 18;

function nameWidth(pen: CanvasRenderingContext2D, strip: Strip): number {
  pen.font = `600 ${WORDS}`;
  return pen.measureText(nameOf(strip)).width + 14;
}

function limitWidth(pen: CanvasRenderingContext2D, limit: string | null): number {
  pen.font = WORDS;
  return limit === null ? 0 : pen.measureText(limit).width + 8;
}

/** A strip whose name shows, and the limit beside it. */
export interface NamedStrip {
  readonly strip: Strip;
  readonly limit: () => string | null;
}

/** How far the name of a strip, with the limit beside it, reaches from the left edge. */
export function headWidth(pen: CanvasRenderingContext2D, { strip, limit }: NamedStrip): number {
  return nameWidth(pen, strip) + limitWidth(pen, limit());
}

function nameOf(strip: Strip): string {
  const names = shortNames(strip);
  const text = names.length <= 3 ? names.join(', ') : `${names.length} channels`;
  if (strip.order > 0) return strip.told;
  return strip.told ? `${text}, ${strip.told}` : text;
}

const namesOf = new WeakMap<Strip['labels'], readonly string[]>();
function shortNames({ labels }: Strip): readonly string[] {
  let names = namesOf.get(labels);
  if (!names) namesOf.set(labels, (names = [...new Set(labels.map((label) => label.short))]));
  return names;
}

/** A mark on the scale of values about every so many pixels. */
const PIXELS_A_MARK = 38;

/** Horizontal lines at round values, with their numbers; zero a little stronger. */
export function drawValueGrid(pen: CanvasRenderingContext2D, plot: Plot, ink: Ink, strip: Strip): void {
  pen.font = MONO;
  pen.textAlign = 'left';
  pen.textBaseline = 'bottom';
  for (const { value, text } of valueMarks(strip)) {
    const y = Math.round(yOf(strip, value)) + 0.5;
    pen.fillStyle = value === 0 ? ink.rule : ink.ruleSoft;
    pen.fillRect(0, y - 0.5, plot.width, 1);
    if (y < strip.top + 32) continue;
    pen.fillStyle = ink.soft;
    pen.fillText(text, 6, y - 1);
  }
}

const marksOf = new WeakMap<Strip, readonly { readonly value: number; readonly text: string }[]>();

/** The round values of a strip with their words; worked out once a strip, so that panning costs nothing. */
function valueMarks(strip: Strip) {
  let marks = marksOf.get(strip);
  if (!marks) {
    const count = strip.height / PIXELS_A_MARK;
    const text = strip.scale.tickFormat(count);
    marks = strip.scale.ticks(count).map((value) => ({ value, text: text(value) }));
    marksOf.set(strip, marks);
  }
  return marks;
}
