import { mat4 } from 'gl-matrix';
import { partOf, TRANSFORM_PROPERTIES, type Part, type Project, type Vec3 } from '../project';
import { compile } from '../evaluate';
import { anglesNear, unitAxes } from '../rig';
import { changePart } from './parts';

/** How a change of parent ended: the place in the world stayed, or why it did not. */
export interface Reparented {
  readonly project: Project;
  readonly stayed: boolean;
  /** Why the place could not stay: the part moves by keys or drivers, or it would have to be sheared. */
  readonly because: 'moves' | 'shear' | 'not-asked' | null;
}

/** Columns whose cosine is more than this are no longer square to each other. */
const SHEARED = 1e-6;

/**
 * Hangs a part below another (or below none). Its place, turn and size in the world at a frame stay, as new rest values, where
 * that is asked for and can be: a part whose transform is keyed or driven keeps its numbers, and a matrix that would need shear
 * is no matrix of a part.
 */
export function changeParent(
  project: Project,
  id: string,
  parent: string | null,
  keepsPlace: boolean,
  frame: number,
): Reparented {
  const hung = changePart(project, id, (part) => (part.parent === parent ? part : { ...part, parent }));
  const part = partOf(project, id);
  if (!part || hung === project || !keepsPlace) return { project: hung, stayed: false, because: 'not-asked' };
  const compiled = compile(project);
  if (!compiled.ok || transformMoves(project, id)) return { project: hung, stayed: false, because: 'moves' };
  const { value: program } = compiled;
  const place = (of: string) => program.structure.parts.findIndex((each) => each.id === of);
  const world = new Float64Array(16);
  program.worldMatrix(place(id), frame, world);
  const above = new Float64Array(16);
  if (parent === null) mat4.identity(above);
  else program.worldMatrix(place(parent), frame, above);
  const inverse = mat4.invert(new Float64Array(16), above);
  if (!inverse) return { project: hung, stayed: false, because: 'shear' };
  const local = mat4.multiply(new Float64Array(16), inverse, world) as unknown as Float64Array;
  const rest = restOf(part, local);
  if (!rest) return { project: hung, stayed: false, because: 'shear' };
  return { project: changePart(hung, id, (each) => ({ ...each, rest })), stayed: true, because: null };
}

function transformMoves(project: Project, id: string): boolean {
  const channels = new Set(
    TRANSFORM_PROPERTIES.filter((name) => name !== 'visible').map((name) => `${id}/${name}`),
  );
  return (
    project.clips.some((clip) => clip.curves.some(({ channel }) => channels.has(channel))) ||
    project.drivers.some(({ target, muted }) => !muted && channels.has(target))
  );
}

/** The rest values that give a part a local matrix, its pivot and turn order as they are; null where it is sheared. */
function restOf(part: Part, local: Float64Array): Part['rest'] | null {
  const column = (i: number) => [local[i * 4]!, local[i * 4 + 1]!, local[i * 4 + 2]!] as const;
  const dot = (a: readonly number[], b: readonly number[]) => a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!;
  const columns = [column(0), column(1), column(2)] as const;
  const lengths = columns.map((each) => Math.hypot(...each)) as [number, number, number];
  if (lengths.some((length) => !(length > 0))) return null;
  for (const [a, b] of [
    [0, 1],
    [0, 2],
    [1, 2],
  ] as const)
    if (Math.abs(dot(columns[a], columns[b])) > SHEARED * lengths[a] * lengths[b]) return null;
  const axes = unitAxes(local);
  if (mat4.determinant(local) < 0) {
    lengths[0] = -lengths[0];
    for (let row = 0; row < 3; row++) axes[row] = -axes[row]!;
  }
  const turned = [0, 1, 2].map((row) =>
    columns.reduce((sum, each, i) => sum + each[row]! * part.pivot[i]!, 0),
  );
  const translate = [0, 1, 2].map((row) => local[12 + row]! - part.pivot[row]! + turned[row]!);
  return {
    translate: translate as unknown as Vec3,
    rotate: anglesNear(part.turnOrder, axes, part.rest.rotate),
    scale: lengths,
  };
}
