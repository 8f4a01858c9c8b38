import { mat4 } from 'gl-matrix';
import { channelName, partOf, type Part, type Project, type Result } from '../../project';
import { compile, type Program } from '../../evaluate';
import { unbakedCurves, withBaked } from '../baked';
import {
  framesOf,
  isStill,
  movedChannels,
  TRANSFORM_CHANNELS,
  transformAt,
  transformOf,
  type Transform,
} from './transform-motion';
import { refused } from './refused';

/**
 * Makes what constraints do to a part keys of its own, one on every whole frame, and mutes them; a reach takes the part that it bends
 * along. What was keyed before is kept as second takes, for `unbakeConstraints`. Refused where a driver gives a number that would
 * have to be another, and where place, turn and size can't say what the constraints make.
 */
export function bakeConstraints(project: Project, id: string): Result<Project> {
  const compiled = compile(project);
  if (!compiled.ok) return compiled;
  const held = heldTogether(project, id, false);
  if (held.size === 0) return refused('Nothing holds this part: there is nothing to bake.');
  let baked = project;
  for (const each of held) {
    const made = bakePart(project, baked, compiled.value, partOf(project, each)!);
    if (!made.ok) return made;
    baked = made.value;
  }
  return { ok: true, value: muted(baked, held, true) };
}

/** Lets the constraints of a part act again, with the keys that were there before they were baked. */
export function unbakeConstraints(project: Project, id: string): Project {
  const held = heldTogether(project, id, true);
  const channels = new Set(
    [...held].flatMap((each) => TRANSFORM_CHANNELS.map((name) => channelName(each, name))),
  );
  return muted(unbakedCurves(project, channels), held, false);
}

/** Whether a part's constraints were baked and can be brought back. */
export function isBaked(project: Project, id: string): boolean {
  return heldTogether(project, id, true).size > 0;
}

/** The part, where constraints hold it that are muted or not, and the parts that its reaches bend. */
function heldTogether(project: Project, id: string, areMuted: boolean): ReadonlySet<string> {
  const own = project.constraints.filter((each) => each.part === id && each.muted === areMuted);
  return new Set(own.flatMap((each) => (each.kind === 'reach' ? [id, each.middle] : [id])));
}

function bakePart(project: Project, written: Project, program: Program, part: Part): Result<Project> {
  const place = (of: string) => program.structure.partIndex.get(of)!;
  const [own, above] = [place(part.id), part.parent === null ? -1 : place(part.parent)];
  const squash = program.structure.slots.get(channelName(part.id, 'squash'))!;
  const { first, last } = framesOf(project, part.id);
  const world = new Float64Array(16);
  const parent = new Float64Array(16);
  const before: Transform[] = [];
  const after: Transform[] = [];
  for (let frame = first; frame <= last; frame++) {
    program.worldMatrix(own, frame, world);
    mat4.identity(parent);
    if (above >= 0) program.worldMatrix(above, frame, parent);
    const local = mat4.invert(new Float64Array(16), parent);
    if (local) mat4.multiply(local, local, world);
    const numbers = transformAt(program, part, frame);
    const plain = part.squash?.round !== undefined || program.channelValue(squash, frame) === 0;
    const next =
      local && plain ? transformOf(part.pivot, part.turnOrder, local, after.at(-1) ?? numbers) : null;
    if (!next)
      return refused(
        `On frame ${frame} ${part.name} is squashed or leans, which place, turn and size can’t say; it stays held.`,
      );
    before.push(numbers);
    after.push(next);
  }
  return keyed(written, part, first, before, after);
}

function keyed(
  project: Project,
  part: Part,
  first: number,
  own: readonly Transform[],
  after: readonly Transform[],
): Result<Project> {
  const { driven } = movedChannels(project, part.id);
  let written = project;
  for (const property of TRANSFORM_CHANNELS) {
    const [group, axis] = property.split('.') as ['translate' | 'rotate' | 'scale', string];
    const n = 'xyz'.indexOf(axis);
    const values = after.map((each) => each[group][n]!);
    if (values.every((value, i) => isStill(value, own[i]![group][n]!))) continue;
    if (driven.has(property))
      return refused(`${part.name}, ${property} is driven; mute its driver or bake it first.`);
    const channel = channelName(part.id, property);
    written = withBaked(written, channel, first, values);
  }
  return { ok: true, value: written };
}

function muted(project: Project, parts: ReadonlySet<string>, on: boolean): Project {
  const constraints = project.constraints.map((each) =>
    parts.has(each.part) && each.muted !== on ? { ...each, muted: on } : each,
  );
  return { ...project, constraints };
}
