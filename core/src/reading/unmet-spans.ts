import { FAILURES } from '../project';
import type { Program } from '../evaluate';

/** Frames between which a constraint is not met, both included, and why in words. */
export interface UnmetSpan {
  readonly first: number;
  readonly last: number;
  readonly why: string;
}

const known = new WeakMap<Program, Map<string, readonly UnmetSpan[]>>();
/** No more frames than this are looked at in one span; wider spans are looked at in steps. */
const MOST_FRAMES = 400;

/** Where between two frames a constraint, by its place in the program, is not met, read on whole frames. */
export function unmetSpans(
  program: Program,
  constraint: number,
  first: number,
  last: number,
): readonly UnmetSpan[] {
  let ofProgram = known.get(program);
  if (!ofProgram) known.set(program, (ofProgram = new Map<string, readonly UnmetSpan[]>()));
  const key = `${constraint} ${first} ${last}`;
  let spans = ofProgram.get(key);
  if (!spans) ofProgram.set(key, (spans = readSpans(program, constraint, first, last)));
  return spans;
}

function readSpans(program: Program, constraint: number, first: number, last: number): readonly UnmetSpan[] {
  const step = Math.max(1, Math.ceil((last - first) / MOST_FRAMES));
  const spans: { first: number; last: number; reason: number }[] = [];
  for (let frame = first; frame <= last; frame += step) {
    const reason = program.unmetAt(constraint, frame);
    const before = spans.at(-1);
    if (reason === 0) continue;
    if (before?.reason === reason && before.last >= frame - step) before.last = frame;
    else spans.push({ first: frame, last: frame, reason });
  }
  return spans.map(({ first: from, last: to, reason }) => ({
    first: from,
    last: to,
    why: FAILURES[reason]!,
  }));
}
