import { newPart, newProject, type Curve, type Key, type Part, type Project } from '@kaizen/core';
import { steadyNumbers } from './measure';

const SIDE = { mode: 'smooth', slope: 0, reach: 1 / 3 } as const;
const OUTSIDE = { mode: 'hold', count: null, pin: null } as const;

/** A project of some parts with keys on the same frames of each of their channels; all legs are cubic. */
export function keyedProject(
  count: number,
  properties: readonly string[],
  last: number,
  framesOf: (random: () => number) => readonly number[],
): Project {
  const random = steadyNumbers();
  const parts: Part[] = [];
  const curves: Curve[] = [];
  for (let p = 0; p < count; p++) {
    const id = `part-${p}`;
    parts.push({ ...newPart('group', id), id });
    const frames = framesOf(random);
    for (const property of properties) {
      const keys = frames.map((frame): Key => ({
        frame,
        value: 1 + random(),
        in: SIDE,
        out: SIDE,
        joined: true,
        leg: { kind: 'curve' },
      }));
      curves.push({
        channel: `${id}/${property}`,
        keys,
        before: OUTSIDE,
        after: OUTSIDE,
        treatments: [],
        muted: false,
        locked: false,
      });
    }
  }
  const project = newProject('many', 'Many');
  return {
    ...project,
    range: { start: 0, end: last, loop: false },
    parts,
    clips: [{ id: 'main', name: 'Main', curves }],
  };
}
