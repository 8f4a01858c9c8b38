import { channelName, encodeName, partOf, type CustomChannel, type Project } from '../../project';
import { NOTHING_MOVED, type Edited } from '../mapping';
import { changePart } from '../parts';
import { channelRemoved, channelRenamed } from './free-channel';

/** Adds a number of its own to a part, a channel like any other, under a name that the part has not yet. */
export function addOwnNumber(
  project: Project,
  id: string,
  number: CustomChannel,
): { readonly project: Project; readonly name: string } {
  let { name } = number;
  const taken = new Set(partOf(project, id)?.custom.map((each) => each.name));
  for (let n = 2; taken.has(name); n++) name = `${number.name} ${n}`;
  const made = changePart(project, id, (part) => ({
    ...part,
    custom: [...part.custom, { ...number, name }],
  }));
  return { project: made, name };
}

/** Changes what an own number rests at, its range or its unit. The very project where its least would be more than its greatest. */
export function changeOwnNumber(
  project: Project,
  id: string,
  name: string,
  change: Partial<Omit<CustomChannel, 'name'>>,
): Project {
  return changePart(project, id, (part) => {
    const custom = part.custom.map((each) => (each.name === name ? { ...each, ...change } : each));
    const isAskew = custom.some(({ min, max }) => (min ?? -Infinity) > (max ?? Infinity));
    return isAskew ? part : { ...part, custom };
  });
}

/** Gives an own number another name; its keys, drivers and poses go along. The very project where the name is taken or empty. */
export function renameOwnNumber(project: Project, id: string, name: string, next: string): Edited {
  const custom = partOf(project, id)?.custom ?? [];
  if (next === '' || custom.some((each) => each.name === next)) return { project, mapping: NOTHING_MOVED };
  const renamed = changePart(project, id, (part) => ({
    ...part,
    custom: part.custom.map((each) => (each.name === name ? { ...each, name: next } : each)),
    limits: Object.fromEntries(
      Object.entries(part.limits).map(([of, limit]) => [
        of === propertyOf(name) ? propertyOf(next) : of,
        limit,
      ]),
    ),
  }));
  return channelRenamed(renamed, channelName(id, propertyOf(name)), channelName(id, propertyOf(next)));
}

/** Removes an own number with its keys, the drivers that give or read it, and its values in poses. */
export function removeOwnNumber(project: Project, id: string, name: string): Edited {
  const made = changePart(project, id, (part) => ({
    ...part,
    custom: part.custom.filter((each) => each.name !== name),
    limits: Object.fromEntries(Object.entries(part.limits).filter(([of]) => of !== propertyOf(name))),
  }));
  if (made === project) return { project, mapping: NOTHING_MOVED };
  return channelRemoved(made, channelName(id, propertyOf(name)));
}

function propertyOf(name: string): string {
  return `custom.${encodeName(name)}`;
}
