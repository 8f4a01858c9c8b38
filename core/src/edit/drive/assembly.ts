import { channelName, partOf, type Part, type Project, type Result } from '../../project';
import { compile, type Program } from '../../evaluate';
import { addOwnNumber } from '../build/own-numbers';
import { refused } from '../links/refused';
import { addDriver, type DriverName, type DriverWish } from './drivers';
import { directionIn, type Letter } from './axle';

/** A mechanism put together of parts, and what was read off them, in words. */
export interface Assembled {
  readonly project: Project;
  /** `crank 0.35 m, rod 1.2 m`. */
  readonly read: string;
}

export const LETTERS = ['x', 'y', 'z'] as const;
export const DEGREES = 180 / Math.PI;

/** Collects the drivers of a mechanism; the first that is refused ends it. Drivers that its channels have already give way. */
export class Assembly {
  private problem: Extract<Result<never>, { ok: false }> | null = null;

  constructor(public project: Project) {}

  /** A number of a part's own with a free name; its channel. */
  number(part: string, name: string, unit: string): string {
    const made = addOwnNumber(this.project, part, { name, value: 0, min: null, max: null, unit });
    this.project = made.project;
    return channelName(part, `custom.${made.name}`);
  }

  drive(kind: DriverName, target: string, wish: DriverWish): void {
    if (this.problem) return;
    const drivers = this.project.drivers.filter((driver) => driver.target !== target);
    const made = addDriver({ ...this.project, drivers }, kind, target, wish);
    if (made.ok) this.project = made.value.project;
    else this.problem = made;
  }

  /** Puts a bar on the pin of a crank: its place goes round the crank's pivot. `start`: where the pin is with the crank at 0, in degrees. */
  onPin(
    { crank, bar }: { readonly crank: Part; readonly bar: Part },
    axes: readonly [number, number],
    turn: string,
    { radius, start }: { readonly radius: number; readonly start: number },
  ): void {
    for (const [n, wave] of ['cos', 'sin'].entries()) {
      const axis = axes[n]!;
      const place = `translate.${LETTERS[axis]!}`;
      this.drive('expression', channelName(bar.id, place), {
        inputs: { centre: channelName(crank.id, place), turn: channelName(crank.id, turn) },
        expression: `centre + ${crank.pivot[axis]! - bar.pivot[axis]!} + ${radius} * ${wave}(turn + ${start})`,
      });
    }
  }

  done(read: string): Result<Assembled> {
    return this.problem ?? { ok: true, value: { project: this.project, read } };
  }
}

/** The parts of a mechanism by their ids, and the project compiled; or why there are none. */
export function begun(
  project: Project,
  ids: readonly string[],
): Result<{ readonly parts: readonly Part[]; readonly program: Program }> {
  if (new Set(ids).size < ids.length) return refused('Each part can be one piece of a mechanism only.');
  const parts = ids.flatMap((id) => partOf(project, id) ?? []);
  if (parts.length < ids.length) return refused('One of these parts is not there any more.');
  const program = compile(project);
  return program.ok ? { ok: true, value: { parts, program: program.value } } : program;
}

/** The axis of the plane in which a crank works: the one that keys or drivers turn it about, else the one along which its points differ least. */
export function planeOf(points: readonly (readonly number[])[], crank: Part, project: Project): number {
  const driven = new Set(project.drivers.map(({ target }) => target));
  const keyed = new Set(project.clips.flatMap(({ curves }) => curves.map(({ channel }) => channel)));
  const turned = LETTERS.findIndex((letter) => {
    const channel = channelName(crank.id, `rotate.${letter}`);
    return keyed.has(channel) || driven.has(channel);
  });
  if (turned >= 0) return turned;
  const spread = LETTERS.map((_, n) => {
    const values = points.map((point) => point[n]!);
    return Math.max(...values) - Math.min(...values);
  });
  return [2, 0, 1].reduce((best, n) => (spread[n]! < spread[best]! - 1e-9 ? n : best));
}

export function turnsOnlyAbout(program: Program, part: Part, frame: number, axis: number): boolean {
  return LETTERS.every((letter, n) => {
    const slot = program.structure.slots.get(channelName(part.id, `rotate.${letter}`))!;
    return n === axis || Math.abs(program.channelValue(slot, frame)) < 1e-9;
  });
}

/** The unit direction in the world in which an axis of what a part rides on leads it. */
export function wayOf(
  program: Program,
  part: Part,
  along: Letter,
  frame: number,
): readonly [number, number, number] {
  if (part.parent !== null) return directionIn(program, part.parent, frame, along);
  return LETTERS.map((letter) => (letter === along ? 1 : 0)) as unknown as readonly [number, number, number];
}

export function radiusOf(part: Part): number | null {
  if (part.kind !== 'mesh') return null;
  const { geometry } = part;
  switch (geometry.shape) {
    case 'cylinder':
      return Math.max(geometry.radius, geometry.topRadius ?? 0);
    case 'sphere':
      return geometry.radius;
    case 'torus':
      return geometry.radius + geometry.tube;
    case 'gear':
      return (geometry.teeth * geometry.module) / 2;
    case 'lathe':
      return Math.max(...geometry.profile.map(([r]) => r));
    case 'box':
    case 'plane':
    case 'extrude':
    case 'asset':
      return null;
  }
}

export function metres(value: number): string {
  return `${Number(value.toFixed(3))} m`;
}
