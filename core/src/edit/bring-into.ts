import { activeClip, renameIn, withMore, type Clip, type Project } from '../project';
import { PROJECT } from '../file';
import { changeRateKeepingSeconds } from './retime-rate';

type Brought = Pick<Project, 'parts' | 'assets'>;

/** What came into a project: the ids of the new parts, and the new clips by name. */
export interface BroughtInto {
  readonly project: Project;
  readonly added: readonly string[];
  readonly clips: readonly string[];
  /** Whether the first new clip is the one that plays now: the one before had nothing in it. */
  readonly plays: boolean;
}

/**
 * Adds brought parts and assets after the project's own, ids made unique; a model that is there already is kept once. What rides on
 * nothing that is brought comes to ride on `under`, a part of the project.
 */
export function addParts(
  project: Project,
  brought: Brought,
  under: string | null = null,
): { readonly project: Project; readonly added: readonly string[] } {
  const renamed = renamedFor(project, brought);
  const parts = renamed.parts.map((part) => (part.parent === null ? { ...part, parent: under } : part));
  return { project: withParts(project, { ...renamed, parts }), added: parts.map(({ id }) => id) };
}

function withParts(project: Project, renamed: Brought): Project {
  const known = new Set(project.assets.map(({ id }) => id));
  return {
    ...project,
    parts: withMore(project.parts, ...renamed.parts),
    assets: [...project.assets, ...renamed.assets.filter(({ id }) => !known.has(id))],
  };
}

/**
 * Brings a whole project beside what is there: its parts and models, its drivers and constraints, and its motions as clips. Seconds
 * stay seconds where the rates differ. Its placements, markers, sounds and poses stay where they are.
 */
export function bringInto(project: Project, brought: Project): BroughtInto {
  const renamed = renamedFor(project, changeRateKeepingSeconds(brought, project.rate).project);
  const moving = renamed.clips.filter(({ curves }) => curves.length > 0);
  const clips = newClips(project, moving);
  const active = activeClip(project);
  const plays = clips.length > 0 && project.arrangement.length === 0 && active?.curves.length === 0;
  const idOf = (taken: readonly { readonly id: string }[]) =>
    freeNames(
      taken.map(({ id }) => id),
      '-',
    );
  const [driverId, constraintId] = [idOf(project.drivers), idOf(project.constraints)];
  const interlockId = idOf(project.interlocks);
  const clipNow = new Map(moving.map(({ id }, i) => [id, clips[i]!.id]));
  return {
    project: {
      ...withParts(project, renamed),
      drivers: [...project.drivers, ...renamed.drivers.map((each) => ({ ...each, id: driverId(each.id) }))],
      constraints: [
        ...project.constraints,
        ...renamed.constraints.map((each) => ({ ...each, id: constraintId(each.id) })),
      ],
      interlocks: [
        ...project.interlocks,
        ...renamed.interlocks.flatMap((each) => {
          const clip = clipNow.get(each.clip);
          return clip === undefined ? [] : [{ ...each, id: interlockId(each.id), clip }];
        }),
      ],
      clips: [...project.clips, ...clips],
      activeClip: plays ? clips[0]!.id : project.activeClip,
      range: plays
        ? { ...project.range, end: Math.max(project.range.end, renamed.range.end) }
        : project.range,
    },
    added: renamed.parts.map(({ id }) => id),
    clips: clips.map(({ name }) => name),
    plays,
  };
}

/** Clips under ids and names that the project has not yet. */
function newClips(project: Project, clips: readonly Clip[]): readonly Clip[] {
  const id = freeNames(
    project.clips.map((clip) => clip.id),
    '-',
  );
  const name = freeNames(
    project.clips.map((clip) => clip.name),
    ' ',
  );
  return clips.map((clip) => ({ ...clip, id: id(clip.id), name: name(clip.name) }));
}

/** A brought project with ids of parts that are free, and models that are there already under their id. */
function renamedFor<T extends Brought>(project: Project, brought: T): T {
  const partId = freeNames(
    project.parts.map(({ id }) => id),
    '-',
  );
  const parts = new Map(brought.parts.map(({ id }) => [id, partId(id)]));
  const assetId = freeNames(
    project.assets.map(({ id }) => id),
    '-',
  );
  const known = new Map(project.assets.map((asset) => [asset.sha256, asset.id]));
  const assets = new Map(brought.assets.map(({ id, sha256 }) => [id, known.get(sha256) ?? assetId(id)]));
  const called = renameIn(PROJECT, brought, {
    part: (id) => parts.get(id) ?? id,
    asset: (id) => assets.get(id) ?? id,
  });
  return {
    ...called,
    parts: called.parts.map((part) => ({ ...part, id: parts.get(part.id)! })),
    assets: called.assets.map((asset) => ({ ...asset, id: assets.get(asset.id)! })),
  };
}

/** Gives each name that is asked for as it is while it is free, else with the next number; it is taken then. */
function freeNames(names: readonly string[], between: string): (name: string) => string {
  const taken = new Set(names);
  return (name) => {
    let free = name;
    for (let n = 2; taken.has(free); n++) free = `${name}${between}${n}`;
    taken.add(free);
    return free;
  };
}
