import { driverInputs, splitChannel, type Project } from '../project';
import { withDescendants } from '../rig';

/** Removes parts with all below them, and what names them: curves, drivers, constraints, and models nothing shows any more. */
export function removeParts(project: Project, ids: readonly string[]): Project {
  const gone = new Set(ids.flatMap((id) => withDescendants(project.parts, id)));
  const parts = project.parts.filter((part) => !gone.has(part.id));
  if (parts.length === project.parts.length) return project;
  const lost = (channel: string) => gone.has(splitChannel(channel).part);
  const clips = project.clips.map((clip) => {
    const curves = clip.curves.filter((curve) => !lost(curve.channel));
    return curves.length === clip.curves.length ? clip : { ...clip, curves };
  });
  const drivers = project.drivers.filter((driver) => ![driver.target, ...driverInputs(driver)].some(lost));
  const constraints = project.constraints.filter(
    ({ part, target, middle, tip, path, distance }) =>
      ![part, target, middle, tip, path].some((id) => id !== undefined && gone.has(id)) &&
      !(distance !== undefined && lost(distance)),
  );
  const shown = new Set(
    parts.flatMap((part) =>
      part.kind === 'mesh' && part.geometry.shape === 'asset' ? [part.geometry.asset] : [],
    ),
  );
  const assets = project.assets.filter((asset) => shown.has(asset.id));
  return { ...project, parts, clips, drivers, constraints, assets };
}
