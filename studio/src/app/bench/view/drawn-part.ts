import { Matrix4 } from 'three';
import { SLOT_VISIBLE, type Part } from '@kaizen/core';
import type { PartLines } from './part-lines';
import type { DeformedSolid } from './solids/deformed-solid';
import type { ModelSolid } from './solids/model-solid';
import type { Look } from './solids/solid-batch';
import type { Solid } from './solids/solids';

/** Where what joints move is placed: it lies in the world already. */
export const UNMOVED = Float64Array.from(new Matrix4().elements);

/** Everything drawn for one part, and where it is. */
export interface DrawnPart {
  readonly part: Part;
  /** Its solids; the first one follows the part's material, others keep what their model says. */
  readonly solids: Solid[];
  readonly ownLooks: Look[];
  readonly lines: PartLines | null;
  /** What deforms its mesh; null where nothing does. */
  readonly deformed: DeformedSolid | null;
  /** Its meshes from a model that change their shape. */
  readonly bending: ModelSolid[];
  /** What its solids are placed by: its world matrix, or no matrix where the joints of a skin place them. */
  readonly placement: Float64Array;
  /** Its world matrix, column-major. */
  readonly matrix: Float64Array;
  hidden: boolean;
  chosen: boolean;
}

/** What the channels of a part say of its look at a frame; `first` is the slot of its first channel. */
export function lookAt(channels: Float64Array, first: number): Look {
  const at = first + SLOT_VISIBLE + 1;
  const [r, g, b, a, roughness, metallic, glowR, glowG, glowB] = Array.from({ length: 9 }, (_, i) =>
    Math.min(1, Math.max(0, channels[at + i]!)),
  ) as [number, number, number, number, number, number, number, number, number];
  return [r, g, b, a, glowR, glowG, glowB, roughness, metallic];
}

/** Puts a part's drawing where its matrix says, or hides it. */
export function placePart({ solids, lines, matrix, placement, hidden }: DrawnPart): void {
  for (const { batch, slot } of solids) batch.place(slot, hidden ? null : placement);
  if (!lines) return;
  lines.object.matrix.fromArray(matrix);
  lines.object.matrixWorld.copy(lines.object.matrix);
  lines.object.visible = !hidden;
}

/** The look of a part's lines by its channels at a frame. */
export function showLines({ part, lines, chosen }: DrawnPart, channels: Float64Array, first: number): void {
  if (!lines) return;
  const at = first + SLOT_VISIBLE + 1;
  if (part.kind === 'camera')
    lines.show({ lens: [channels[at]! / part.camera.sensorHeight, channels[at + 1]!], chosen });
  if (part.kind === 'light')
    lines.show({ light: [channels[at + 1]!, channels[at + 2]!, channels[at + 3]!, channels[at]!] });
}

/** Whether the joints of a skin place its meshes. */
export function isSkinned({ bending }: DrawnPart): boolean {
  return bending.some(({ joints }) => joints.length > 0);
}
