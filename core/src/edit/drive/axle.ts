import { channelName, type Part, type Vec3 } from '../../project';
import { worldAt, type Program } from '../../evaluate';

const LETTERS = ['x', 'y', 'z'] as const;
export type Letter = (typeof LETTERS)[number];

/** What a part turns about: the axis of its own that is its axle, the channel that turns it, and where that lies in the world. */
export interface Axle {
  readonly letter: Letter;
  readonly channel: string;
  /** Its unit direction in the world, at a frame. */
  readonly direction: Vec3;
  /** Degrees that its channel gives at that frame. */
  readonly turn: number;
}

/** Round shapes stand about their own Y; what is drawn and drawn out, and all else, turns about its own Z. */
function letterOf(part: Part): Letter {
  if (part.kind !== 'mesh') return 'z';
  return part.geometry.shape === 'extrude' || part.geometry.shape === 'box' || part.geometry.shape === 'asset'
    ? 'z'
    : 'y';
}

/**
 * The axle of a part at a frame; null where no single channel turns it about its axle alone: another of its turns comes after it and is
 * not zero.
 */
export function axleOf(
  program: Program,
  part: Part,
  frame: number,
  letter: Letter = letterOf(part),
): Axle | null {
  const value = (axis: string) =>
    program.channelValue(program.structure.slots.get(channelName(part.id, `rotate.${axis}`))!, frame);
  const after = part.turnOrder.slice(part.turnOrder.indexOf(letter.toUpperCase()) + 1);
  if ([...after].some((each) => Math.abs(value(each.toLowerCase())) > 1e-9)) return null;
  return {
    letter,
    channel: channelName(part.id, `rotate.${letter}`),
    direction: directionIn(program, part.id, frame, letter),
    turn: value(letter),
  };
}

/** The unit direction of an own axis of a part in the world. */
export function directionIn(program: Program, id: string, frame: number, letter: Letter): Vec3 {
  const world = worldAt(program, id, frame);
  const at = LETTERS.indexOf(letter) * 4;
  const length = Math.hypot(world[at]!, world[at + 1]!, world[at + 2]!) || 1;
  return [world[at]! / length, world[at + 1]! / length, world[at + 2]! / length];
}

/** Where a part's pivot is in the space of what it rides on: its place and its pivot's own together. */
export function pivotInParent(program: Program, part: Part, frame: number): Vec3 {
  const slot = (axis: string) => program.structure.slots.get(channelName(part.id, `translate.${axis}`))!;
  return LETTERS.map(
    (axis, i) => program.channelValue(slot(axis), frame) + part.pivot[i]!,
  ) as unknown as Vec3;
}

/** How long an own metre across an axle is in the world: what a radius is multiplied by. */
export function sizeAcross(program: Program, id: string, frame: number, letter: Letter): number {
  const world = worldAt(program, id, frame);
  const at = ((LETTERS.indexOf(letter) + 1) % 3) * 4;
  return Math.hypot(world[at]!, world[at + 1]!, world[at + 2]!);
}
