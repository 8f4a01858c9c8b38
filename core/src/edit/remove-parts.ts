import { splitChannel, type Naming, type Part, type Placement, type Pose, type Project } from '../project';
import { driverReads } from '../drive';
import { constraintReads, withDescendants } from '../rig';

/** Removes parts with all below them, and what names them: curves, drivers, constraints, values in poses, and models nothing shows any more. */
export function removeParts(project: Project, ids: readonly string[]): Project {
  const gone = new Set(ids.flatMap((id) => withDescendants(project.parts, id)));
  const kept = project.parts.filter((part) => !gone.has(part.id));
  if (kept.length === project.parts.length) return project;
  const parts = kept.map((part) => withoutLostJoints(part, gone));
  const lost = (channel: string) => gone.has(splitChannel(channel).part);
  const clips = project.clips.map((clip) => {
    const curves = clip.curves.filter((curve) => !lost(curve.channel));
    return curves.length === clip.curves.length ? clip : { ...clip, curves };
  });
  const named = (namings: readonly Naming[]) =>
    namings.some(({ names, id }) => (names === 'channel' ? lost(id) : names === 'part' && gone.has(id)));
  const drivers = project.drivers.filter((driver) => !lost(driver.target) && !named(driverReads(driver)));
  const constraints = project.constraints.filter(
    (constraint) => !gone.has(constraint.part) && !named(constraintReads(constraint)),
  );
  const interlocks = project.interlocks.filter(
    ({ channel, after }) => !lost(channel) && !lost(after.channel),
  );
  const arrangement = project.arrangement.map((placement) => withoutParts(placement, gone));
  const shown = parts.flatMap((part) =>
    part.kind === 'mesh' && part.geometry.shape === 'asset' ? [part.geometry.asset] : [],
  );
  const used = new Set([...shown, ...project.sounds.map(({ asset }) => asset)]);
  const assets = project.assets.filter((asset) => used.has(asset.id));
  const poses = project.poses.flatMap((pose) => withoutChannels(pose, lost));
  return { ...project, parts, clips, drivers, constraints, interlocks, arrangement, assets, poses };
}

/** A skinned mesh that has lost one of its joints stands as it was modelled. */
function withoutLostJoints(part: Part, gone: ReadonlySet<string>): Part {
  if (part.kind !== 'mesh' || part.geometry.shape !== 'asset') return part;
  const { skin, ...geometry } = part.geometry;
  return skin?.some((joint) => gone.has(joint)) ? { ...part, geometry } : part;
}

/** A placement that renames no part to, or from, one that is gone. */
function withoutParts(placement: Placement, gone: ReadonlySet<string>): Placement {
  const kept = Object.entries(placement.partMap).filter(([from, to]) => !gone.has(from) && !gone.has(to));
  return kept.length === Object.keys(placement.partMap).length
    ? placement
    : { ...placement, partMap: Object.fromEntries(kept) };
}

/** A pose without some channels, as a list that is empty where none are left. */
function withoutChannels(pose: Pose, lost: (channel: string) => boolean): Pose[] {
  const kept = Object.entries(pose.values).filter(([channel]) => !lost(channel));
  if (kept.length === 0) return [];
  return [
    kept.length === Object.keys(pose.values).length ? pose : { ...pose, values: Object.fromEntries(kept) },
  ];
}
