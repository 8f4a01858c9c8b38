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
  pen.font = `600 ${WORDS}`;
  pen.textAlign = 'left';
  pen.textBaseline = 'top';
  const [only] = strip.labels;
  const names = shortNames(strip);
  const text = names.length <= 3 ? names.join(', ') : `${names.length} channels`;
  const shown = strip.order > 0 ? strip.told : strip.told ? `${text}, ${strip.told}` : text;
  const width = pen.measureText(shown).width + 14;
  const more = limit === null ? 0 : pen.measureText(limit).width + 8;
  pen.fillStyle = `${ink.sheet}b0`;
  pen.fillRect(0, strip.top, width + more, 18);
  pen.fillStyle = names.length === 1 && only ? ink.tones[only.tone] : ink.ink;
  pen.fillText(shown, 6, strip.top + 3);
  if (limit === null) return;
  pen.font = WORDS;
  pen.fillStyle = ink.ok;
  pen.fillText(limit, width, strip.top + 3);
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
