import {
  channelName,
  encodeName,
  type MeshPart,
  type Morph,
  type MorphMove,
  type Project,
} from '../../project';
import { NOTHING_MOVED, type Edited } from '../mapping';
import { changePart } from '../parts';
import { channelRemoved, channelRenamed } from './free-channel';

/** Adds a target shape made of one move, under a name that the part has not yet; its channel rests at 0. */
export function addTargetShape(
  project: Project,
  id: string,
  name: string,
  move: MorphMove,
): { readonly project: Project; readonly name: string } {
  let free = name;
  const made = changeMesh(project, id, (part) => {
    const taken = new Set(part.morphs.map((morph) => morph.name));
    for (let n = 2; taken.has(free); n++) free = `${name} ${n}`;
    return { ...part, morphs: [...part.morphs, { name: free, value: 0, moves: [move] }] };
  });
  return { project: made, name: free };
}

/** Changes one move of a shape that was made here. */
export function changeMove(
  project: Project,
  id: string,
  name: string,
  at: number,
  change: Partial<MorphMove>,
): Project {
  return changeShape(project, id, name, (shape) =>
    shape.moves
      ? { ...shape, moves: shape.moves.map((move, i) => (i === at ? { ...move, ...change } : move)) }
      : shape,
  );
}

/** One more move for a shape that was made here: what they do adds up. */
export function addMove(project: Project, id: string, name: string, move: MorphMove): Project {
  return changeShape(project, id, name, (shape) => ({ ...shape, moves: [...(shape.moves ?? []), move] }));
}

/** Gives a shape another name; its keys, drivers and poses go along. The very project where the name is taken or empty. */
export function renameTargetShape(project: Project, id: string, name: string, next: string): Edited {
  const part = project.parts.find((each) => each.id === id);
  const isTaken = part?.kind !== 'mesh' || part.morphs.some((morph) => morph.name === next);
  if (next === '' || isTaken) return { project, mapping: NOTHING_MOVED };
  const renamed = changeShape(project, id, name, (shape) => ({ ...shape, name: next }));
  const [before, after] = [name, next].map((each) => channelName(id, `morph.${encodeName(each)}`));
  return channelRenamed(renamed, before!, after!);
}

/** Removes a shape with its keys, the drivers that give it, and its values in poses. */
export function removeTargetShape(project: Project, id: string, name: string): Edited {
  const channel = channelName(id, `morph.${encodeName(name)}`);
  const made = changeMesh(project, id, (part) => ({
    ...part,
    morphs: part.morphs.filter((morph) => morph.name !== name),
  }));
  if (made === project) return { project, mapping: NOTHING_MOVED };
  return channelRemoved(made, channel);
}

function changeShape(project: Project, id: string, name: string, change: (shape: Morph) => Morph): Project {
  return changeMesh(project, id, (part) => ({
    ...part,
    morphs: part.morphs.map((morph) => (morph.name === name ? change(morph) : morph)),
  }));
}

function changeMesh(project: Project, id: string, change: (part: MeshPart) => MeshPart): Project {
  return changePart(project, id, (part) => (part.kind === 'mesh' ? change(part) : part));
}
