import { drawTag, tagLook } from '../../plot/draw-tag';
import { WORDS, type Ink } from '../../plot/ink';
import type { TimeAxis } from '../../plot/time-axis';
import type { LaneShown } from './lanes';

/** What the lanes are drawn by. */
export interface LanesScene {
  readonly width: number;
  readonly axis: TimeAxis;
  readonly ink: Ink;
  readonly lanes: readonly LaneShown[];
  readonly frame: number;
  /** The frames of the chosen keys of a weight. */
  chosenOf(weight: string): ReadonlySet<number>;
  change(lane: LaneShown, frame: number): string;
}

/** Room between a lane's top line and its upper edge, in pixels; its foot stands on the lower edge. */
const HEAD = 5;
/** A hair is so wide, and no nearer to the next than this. */
const HAIR = 1.7;
const HAIR_STEP = 3;

/** The height at which a weight lies in a lane: the foot is 0, the top line 1. */
export function weightY({ top, height }: Pick<LaneShown, 'top' | 'height'>, weight: number): number {
  return top + height - 1 - weight * (height - 1 - HEAD);
}

export function weightAt({ top, height }: Pick<LaneShown, 'top' | 'height'>, y: number): number {
  return (top + height - 1 - y) / (height - 1 - HEAD);
}

/** The frames at which hairs stand: one a frame, fewer where frames are nearer than hairs may be. */
export function hairFrames({ first, last }: TimeAxis, width: number): readonly number[] {
  const pixels = width / (last - first);
  const step = Math.max(1, 2 ** Math.ceil(Math.log2(HAIR_STEP / pixels)));
  const from = Math.ceil(first / step) * step;
  return Array.from({ length: Math.max(0, Math.floor((last - from) / step) + 1) }, (_, i) => from + i * step);
}

/** Treatments as lanes: the body as high as the weight, in it one hair a frame for how much changes there, and at the playhead a tag. */
export function drawLanes(pen: CanvasRenderingContext2D, scene: LanesScene): void {
  for (const lane of scene.lanes) drawLane(pen, scene, lane);
  const { ink, width } = scene;
  const x = xOf(scene, scene.frame);
  const bottom = scene.lanes.reduce((sum, { height }) => sum + height, 0);
  pen.fillStyle = ink.now;
  pen.fillRect(Math.round(x) - 1, 0, 2, bottom);
  for (const lane of scene.lanes) {
    const at = { x, y: lane.top + lane.height / 2 + 14 };
    const within = { top: lane.top, height: lane.height, width };
    if (!lane.treatment.muted) drawTag(pen, at, within, scene.change(lane, scene.frame), look(ink, lane));
  }
}

function look(ink: Ink, lane: LaneShown) {
  return lane.isChosen
    ? { ground: ink.select, line: ink.select, letters: ink.sheet }
    : { ...tagLook(ink, 'value'), ground: ink.sheet, letters: ink.ink };
}

function xOf({ axis, width }: LanesScene, frame: number): number {
  return ((frame - axis.first) / (axis.last - axis.first)) * width;
}

function drawLane(pen: CanvasRenderingContext2D, scene: LanesScene, shown: LaneShown): void {
  const { ink, width } = scene;
  const { top, height, treatment, isChosen } = shown;
  pen.fillStyle = isChosen && !treatment.muted ? ink.selectGround : ink.sheet;
  pen.fillRect(0, top, width, height);
  if (treatment.muted) drawMuted(pen, scene, shown);
  else drawBody(pen, scene, shown);
  pen.fillStyle = ink.ruleSoft;
  pen.fillRect(0, top + height - 1, width, 1);
}

function drawMuted(
  pen: CanvasRenderingContext2D,
  { ink, width, axis, frame }: LanesScene,
  shown: LaneShown,
): void {
  const { top, height } = shown;
  pen.strokeStyle = ink.soft;
  pen.lineWidth = 1;
  pen.setLineDash([3, 3]);
  pen.strokeRect(0.5, top + HEAD - 0.5, width - 1, height - HEAD - 3);
  pen.setLineDash([]);
  pen.fillStyle = ink.soft;
  pen.font = WORDS;
  pen.textAlign = 'left';
  pen.textBaseline = 'middle';
  const x = ((frame - axis.first) / (axis.last - axis.first)) * width;
  pen.fillText('muted: passed by', Math.max(8, Math.min(width - 110, x + 9)), top + height / 2 + 1);
}

function drawBody(pen: CanvasRenderingContext2D, scene: LanesScene, shown: LaneShown): void {
  const { ink, width, axis } = scene;
  const { lane, isChosen } = shown;
  const foot = weightY(shown, 0);
  const perPixel = (axis.last - axis.first) / width;
  const outline = () => {
    pen.beginPath();
    for (let x = 0; x <= width; x += 2) {
      const y = weightY(shown, lane.weight(axis.first + x * perPixel));
      if (x === 0) pen.moveTo(x, y);
      else pen.lineTo(x, y);
    }
  };
  outline();
  pen.lineTo(width, foot);
  pen.lineTo(0, foot);
  pen.fillStyle = isChosen ? `${ink.select}1c` : ink.ruleSoft;
  pen.fill();
  drawHairs(pen, scene, shown);
  outline();
  pen.strokeStyle = isChosen ? ink.select : ink.soft;
  pen.lineWidth = isChosen ? 1.8 : 1.2;
  pen.stroke();
  if (isChosen) drawWeightKeys(pen, scene, shown);
}

function drawHairs(pen: CanvasRenderingContext2D, scene: LanesScene, shown: LaneShown): void {
  const { ink, width, axis } = scene;
  const { lane, isChosen, most } = shown;
  if (most === 0) return;
  const foot = weightY(shown, 0);
  pen.fillStyle = isChosen ? ink.select : ink.soft;
  for (const frame of hairFrames(axis, width)) {
    const share = Math.min(1, Math.abs(lane.fullChange(frame)) / most) * lane.weight(frame);
    const y = weightY(shown, share);
    if (foot - y > 0.3) pen.fillRect(xOf(scene, frame) - HAIR / 2, y, HAIR, foot - y);
  }
}

function drawWeightKeys(pen: CanvasRenderingContext2D, scene: LanesScene, shown: LaneShown): void {
  const { ink } = scene;
  const { weight } = shown.treatment;
  if (typeof weight === 'number') return;
  const chosen = scene.chosenOf(shown.weight);
  for (const key of weight.keys) {
    pen.beginPath();
    pen.arc(xOf(scene, key.frame), weightY(shown, key.value), 4, 0, Math.PI * 2);
    pen.fillStyle = chosen.has(key.frame) ? ink.select : ink.sheet;
    pen.strokeStyle = ink.select;
    pen.lineWidth = 1.6;
    pen.fill();
    pen.stroke();
  }
}
