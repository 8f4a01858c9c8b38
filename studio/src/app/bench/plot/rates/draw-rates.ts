import {
  curveOf,
  greatestOf,
  type Limit,
  RATE_STRIDE,
  rateSteps,
  type RateLine,
  type SpeedMark,
  limitBand,
} from '@kaizen/core';
import { drawTag, tagLook } from '../draw-tag';
import type { Ink } from '../ink';
import { xOf, yOf, type Plot, type Strip } from '../plot';

/** A step smaller than this share of the strip's height is none. */
const LEAST_STEP = 2e-3;

/** Draws one channel's rate of the strip's order: pieces, steps dotted, and points where a lower order steps. */
export function drawRate(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  strip: Strip,
  line: RateLine,
  look: { readonly color: string; readonly keys: { readonly first: number; readonly last: number } | null },
): void {
  const { color, keys } = look;
  pen.strokeStyle = color;
  pen.lineJoin = 'round';
  for (const piece of line.pieces) {
    const inside = keys !== null && piece[0]! >= keys.first - 1e-6 && piece[0]! < keys.last - 1e-6;
    pen.lineWidth = inside ? 2 : 1.2;
    strokePiece(pen, plot, strip, piece);
  }
  const least = (strip.high - strip.low) * LEAST_STEP;
  pen.lineWidth = 1;
  pen.setLineDash([1.5, 2.5]);
  for (const { frame, before, after } of rateSteps(line, strip.order, least)) {
    const x = xOf(plot, frame);
    pen.beginPath();
    pen.moveTo(x, clampedY(strip, before));
    pen.lineTo(x, clampedY(strip, after));
    pen.stroke();
  }
  pen.setLineDash([]);
  if (strip.order > 1) drawPoints(pen, plot, ink, strip, line, color);
}

function clampedY(strip: Strip, value: number): number {
  if (Number.isNaN(value)) return yOf(strip, 0);
  return Math.min(strip.top + strip.height + 2, Math.max(strip.top - 2, yOf(strip, value)));
}

function strokePiece(pen: CanvasRenderingContext2D, plot: Plot, strip: Strip, piece: Float64Array): void {
  let down = false;
  pen.beginPath();
  for (let i = 0; i < piece.length; i += RATE_STRIDE) {
    const value = piece[i + 1 + strip.order]!;
    if (!Number.isFinite(value)) {
      down = false;
      continue;
    }
    const x = xOf(plot, piece[i]!);
    if (down) pen.lineTo(x, yOf(strip, value));
    else pen.moveTo(x, yOf(strip, value));
    down = true;
  }
  pen.stroke();
}

/** Where speed steps, acceleration is for one moment without bound: an open diamond on the zero line with a stroke the way it goes. */
function drawPoints(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  strip: Strip,
  line: RateLine,
  color: string,
): void {
  const below = (strip.order - 1) as 1 | 2;
  const size = Math.max(1e-9, greatestOf(line.pieces.map((piece) => Math.abs(piece[1 + below] ?? 0))));
  const y = Math.min(strip.top + strip.height - 8, Math.max(strip.top + 8, yOf(strip, 0)));
  for (const { frame, before, after } of rateSteps(line, below, size * 1e-3)) {
    const x = xOf(plot, frame);
    const up = after > before ? -1 : 1;
    pen.strokeStyle = color;
    pen.fillStyle = ink.sheet;
    pen.lineWidth = 1.4;
    pen.beginPath();
    pen.moveTo(x, y + up * 5);
    pen.lineTo(x, y + up * 13);
    pen.stroke();
    pen.beginPath();
    pen.moveTo(x - 4, y);
    pen.lineTo(x, y - 5);
    pen.lineTo(x + 4, y);
    pen.lineTo(x, y + 5);
    pen.closePath();
    pen.fill();
    pen.stroke();
  }
}

/** The band within a part's limit for this order, under the rates. */
export function drawLimit(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  strip: Strip,
  limits: Limit | undefined,
): void {
  const band = limitBand(strip.order, limits);
  if (!band) return;
  const [top, bottom] = [yOf(strip, band.high), yOf(strip, band.low)];
  const inside = { top: Math.max(strip.top, top), bottom: Math.min(strip.top + strip.height, bottom) };
  if (strip.order > 0 && inside.bottom > inside.top) {
    pen.fillStyle = `${ink.ok}14`;
    pen.fillRect(0, inside.top, plot.width, inside.bottom - inside.top);
  }
  pen.strokeStyle = ink.ok;
  pen.lineWidth = 1;
  pen.setLineDash([6, 4]);
  pen.beginPath();
  for (const y of [top, bottom].filter(Number.isFinite)) {
    pen.moveTo(0, Math.round(y) + 0.5);
    pen.lineTo(plot.width, Math.round(y) + 0.5);
  }
  pen.stroke();
  pen.setLineDash([]);
}

/** Where what a strip draws breaks its limit, the curve again in vermilion. */
export function drawBreach(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  strip: Strip,
  limits: Limit | undefined,
  draw: (color: string) => void,
): void {
  const band = limitBand(strip.order, limits);
  if (!band) return;
  for (const [top, bottom] of [
    [strip.top, yOf(strip, band.high) - 1],
    [yOf(strip, band.low) + 1, strip.top + strip.height],
  ] as const) {
    if (bottom <= top) continue;
    pen.save();
    pen.beginPath();
    pen.rect(0, top, plot.width, bottom - top);
    pen.clip();
    draw(ink.warn);
    pen.restore();
  }
}

/** The limit of a rate in words, as a strip's name tells it; null where there is none. */
export function limitText(strip: Pick<Strip, 'order' | 'told'>, limits: Limit | undefined): string | null {
  const band = strip.order > 0 ? limitBand(strip.order, limits) : null;
  return band && `limit ${shown(band.high)} ${strip.told}`;
}

function shown(value: number): string {
  return value.toFixed(2);
}

/** What can be dragged in the speed strip: round marks at keys, square ones where ramps end. */
export function drawSpeedMarks(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  strip: Strip,
  marks: readonly SpeedMark[],
  color: string,
): void {
  pen.lineWidth = 1.4;
  for (const mark of marks) {
    const [x, y] = [xOf(plot, mark.frame), yOf(strip, mark.speed)];
    if (x < -10 || x > plot.width + 10) continue;
    pen.strokeStyle = mark.chosen ? ink.select : color;
    pen.fillStyle = mark.chosen ? ink.select : ink.sheet;
    pen.beginPath();
    if (mark.kind === 'key') pen.arc(x, y, 3.2, 0, Math.PI * 2);
    else pen.rect(x - 3, y - 3, 6, 6);
    pen.fill();
    pen.stroke();
  }
}

/** The values at the playhead as tags, where few channels are drawn. */
export function drawTags(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  frame: number,
  tags: readonly { readonly strip: Strip; readonly value: number; readonly text: string }[],
): void {
  const x = xOf(plot, frame);
  if (x < 0 || x > plot.width) return;
  for (const { strip, value, text } of tags) {
    const y = yOf(strip, value);
    if (!(y > strip.top && y < strip.top + strip.height)) continue;
    pen.fillStyle = ink.now;
    pen.beginPath();
    pen.arc(x, y, 3, 0, Math.PI * 2);
    pen.fill();
    const within = { top: strip.top, height: strip.height, width: plot.width };
    drawTag(pen, { x, y }, within, text, tagLook(ink, 'value'));
  }
}

/** The first and last key of a channel, between which its curve is drawn strong. */
export function keySpan(project: Parameters<typeof curveOf>[0], channel: string) {
  const keys = curveOf(project, channel)?.keys;
  return keys && keys.length > 0 ? { first: keys[0]!.frame, last: keys.at(-1)!.frame } : null;
}
