import type { Eye } from '../grip-math';

/** A place of the view in pixels. */
export interface At {
  readonly x: number;
  readonly y: number;
}

/** One drag in the view from its press on: the words that `move` gives show beside the pointer. */
export interface ViewDrag {
  move(at: At): string;
  end(at: At): void;
  cancel(): void;
}

/** What was found under the pointer: its name among all that can be dragged, and what a drag of it does. */
export interface Found<T> {
  readonly target: T;
  readonly name: string;
  readonly hint: string;
}

/** A line over the view as an SVG path, and how it is drawn. */
export interface Mark {
  readonly path: string;
  readonly look: 'line' | 'thin' | 'ghost' | 'solid' | 'hollow' | 'glass';
}

/** What is drawn of a thing over the view; with `found`, a press takes hold of it so near to the line through some places. */
export interface Drawn<T> {
  readonly tone: 'x' | 'y' | 'z' | 'ink' | 'select' | 'loose';
  readonly marks: readonly Mark[];
  readonly letter?: At & { readonly text: string };
  readonly found?: Found<T> & { readonly line: readonly At[]; readonly within: number };
}

/**
 * A thing in the view that can be dragged: how it is drawn and found, how the pointer looks over it, and what a drag of it does. One file
 * holds all of it, and one line in the index enters it.
 */
export abstract class ViewDraggable<T> {
  abstract readonly cursor: string;

  abstract draw(eye: Eye): readonly Drawn<T>[];

  /** What of it lies at a place: the nearest of what is drawn, unless it is found otherwise. */
  hit(eye: Eye, at: At): Found<T> | null {
    let best: { readonly found: Found<T>; readonly off: number } | null = null;
    for (const { found } of this.draw(eye)) {
      if (!found) continue;
      const off = distanceTo(found.line, at);
      if (off <= found.within && off < (best?.off ?? Infinity)) best = { found, off };
    }
    return best?.found ?? null;
  }

  /** Takes hold of it at a press; null where it can't be held. */
  abstract begin(eye: Eye, at: At, target: T): ViewDrag | null;
}

/** The distance in pixels from a place to a line through places, or to the only one. */
function distanceTo(line: readonly At[], at: At): number {
  if (line.length === 1) return Math.hypot(line[0]!.x - at.x, line[0]!.y - at.y);
  return line.slice(1).reduce((least, to, i) => Math.min(least, distanceToPiece(line[i]!, to, at)), Infinity);
}

function distanceToPiece(from: At, to: At, at: At): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const long = dx * dx + dy * dy;
  const share = long === 0 ? 0 : ((at.x - from.x) * dx + (at.y - from.y) * dy) / long;
  const t = Math.min(1, Math.max(0, share));
  return Math.hypot(from.x + t * dx - at.x, from.y + t * dy - at.y);
}
