import { channelName, type DistanceDriver, type Project, type Result } from '../../project';
import { compileAfter } from '../../evaluate';
import { refused } from '../links/refused';

/** The driver that gives a camera's focus, or null: the distance to a part. */
export function focusDriver(project: Project, camera: string): DistanceDriver | null {
  const target = channelName(camera, 'camera.focusDistance');
  const found = project.drivers.find((driver) => driver.target === target && driver.kind === 'distance');
  return found?.kind === 'distance' ? found : null;
}

/** Keeps a camera's focus on a part: its focus is driven by the distance of their pivots, in place of a driver before. */
export function keepFocusOn(project: Project, camera: string, part: string): Result<Project> {
  const target = channelName(camera, 'camera.focusDistance');
  const others = project.drivers.filter((driver) => driver.target !== target);
  const taken = new Set(others.map(({ id }) => id));
  let id = `focus-${camera}`;
  for (let n = 2; taken.has(id); n++) id = `focus-${camera}-${n}`;
  const driver: DistanceDriver = {
    id,
    kind: 'distance',
    target,
    of: camera,
    to: part,
    axis: null,
    combine: 'replace',
    muted: false,
  };
  const next = { ...project, drivers: [...others, driver] };
  const compiled = compileAfter(project, next);
  return compiled.ok ? { ok: true, value: next } : compiled;
}

/** Lets a camera's focus go again: its keys count. */
export function letFocusGo(project: Project, camera: string): Result<Project> {
  const driver = focusDriver(project, camera);
  if (!driver) return refused('nothing keeps the focus of this camera');
  return { ok: true, value: { ...project, drivers: project.drivers.filter((each) => each !== driver) } };
}
