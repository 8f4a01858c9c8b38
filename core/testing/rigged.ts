import { FAILURES, TrackedPoints, type Program, type Project, type Vec3 } from '../src';
import { programOf, testProject } from './project';

/** A group with what is not as usual; its id is its name. */
export function partOfRig(id: string, more: object = {}): object {
  return { id, name: id, kind: 'group', ...more };
}

export function riggedProject(
  parts: readonly object[],
  constraints: readonly object[],
  curves: readonly object[] = [],
  more: object = {},
): Project {
  return testProject(
    { parts, constraints: constraints.map((each, i) => ({ id: `c${i}`, ...each })), ...more },
    curves,
  );
}

/** A curve with straight legs through `[frame, value]`. */
export function line(channel: string, ...points: readonly (readonly [number, number])[]): object {
  const keys = points.map(([frame, value]) => ({
    frame,
    value,
    in: { mode: 'linear' },
    out: { mode: 'linear' },
  }));
  return { channel, keys };
}

/** What can be read of a rig at a frame. */
export class Rig {
  readonly program: Program;
  constructor(project: Project) {
    this.program = programOf(project);
  }

  /** The finished world matrix, by a run of the whole frame. */
  world(id: string, frame: number): Float64Array {
    const out = this.program.createOutput();
    this.program.run(frame, out);
    return out.world[this.program.structure.partIndex.get(id)!]!.slice();
  }

  /** Where a point of a part's own space stands. */
  point(id: string, frame: number, at: Vec3 = [0, 0, 0]): number[] {
    const out = this.program.createOutput();
    this.program.run(frame, out);
    const places = new Float64Array(3);
    new TrackedPoints(this.program, [{ part: this.program.structure.partIndex.get(id)!, at }]).read(
      out,
      places,
    );
    return [...places];
  }

  /** The unit direction of an axis of a part. */
  axis(id: string, frame: number, axis: 0 | 1 | 2): number[] {
    const world = this.world(id, frame);
    const column = [0, 1, 2].map((row) => world[axis * 4 + row]!);
    const length = Math.hypot(...column);
    return column.map((value) => value / length);
  }

  /** Why constraints are not met at a frame, in words; met ones left out. */
  unmet(frame: number): string[] {
    const out = this.program.createOutput();
    this.program.run(frame, out);
    return [...out.unmet].flatMap((reason) => (reason === 0 ? [] : [FAILURES[reason]!]));
  }
}

export function expectNear(actual: readonly number[], expected: readonly number[], tolerance = 1e-12): void {
  expect(actual).toHaveLength(expected.length);
  actual.forEach((value, i) => expect(Math.abs(value - expected[i]!)).toBeLessThanOrEqual(tolerance));
}
