import { vec3 } from 'gl-matrix';
import {
  partOf,
  splitChannel,
  type MeshPart,
  type Part,
  type Project,
  type Result,
  type Vec3,
} from '../../project';
import { camProfile, LINKAGES, type Mechanism } from '../../drive';
import { compile, pivotAt, worldAt } from '../../evaluate';
import { fromWorld } from '../../rig';
import { addParts } from '../bring-into';
import { newPart } from '../new-part';
import { refused } from '../links/refused';
import { axleOf, type Letter } from './axle';
import { metres } from './assembly';

/** The size of a cam's roller, and how thick the disc is, in metres. */
export interface CamSize {
  readonly roller: number;
  readonly width: number;
}

/** Points of the outline. */
const COUNT = 240;
/** So that the drawn-out outline, which lies across Z, lies across the axis that the shaft turns about. */
const ACROSS: Readonly<Record<Letter, Vec3>> = { x: [0, 90, 0], y: [-90, 0, 0], z: [0, 0, 0] };

/** A cam as its parts stand: the mechanism, its base circle, and how the outline lies on the shaft. */
interface ReadCam {
  readonly cam: Mechanism;
  readonly base: number;
  readonly shaft: Part;
  readonly letter: Letter;
  /** How far along the axle the follower is from the shaft's pivot, in metres. */
  readonly aside: number;
  /** The direction in which the follower is at angle 0, seen from the shaft, in radians. */
  readonly toward: number;
}

/** How large the base circle of a cam is, as its parts stand at a frame, and its mechanism; or why it can't be read off. */
export function readCam(
  project: Project,
  driverId: string,
  roller: number,
  frame: number,
): Result<Pick<ReadCam, 'cam' | 'base'>> {
  return read(project, driverId, roller, frame);
}

function read(project: Project, driverId: string, roller: number, frame: number): Result<ReadCam> {
  const driver = project.drivers.find(({ id }) => id === driverId);
  if (driver?.kind !== 'linkage' || driver.linkage !== 'cam') return refused(`there is no cam ${driverId}`);
  const dimensions = LINKAGES.get('cam')!.read(driver.params);
  if ('message' in dimensions) return refused(dimensions.message);
  const { part, property } = splitChannel(driver.inputs['angle'] ?? '');
  const letter = /^rotate\.([xyz])$/.exec(property)?.[1] as Letter | undefined;
  const shaft = partOf(project, part);
  if (!letter || !shaft)
    return refused('The cam must read the turn of a part, its shaft: then its disc can stand on that.');
  const compiled = compile(project);
  if (!compiled.ok) return compiled;
  const program = compiled.value;
  const axle = axleOf(program, shaft, frame, letter);
  if (!axle)
    return refused(
      `${shaft.name} is turned about more than its axle; set its other turns to 0, or change its turn order.`,
    );
  const cam = dimensions.make();
  const lift = new Float64Array(1);
  cam.solve(Float64Array.of(axle.turn), lift, 0);
  const axis = [...axle.direction] as vec3;
  const [centre, follower] = [shaft.id, splitChannel(driver.target).part].map((id) => [
    ...pivotAt(program, project, id, frame),
  ]) as [vec3, vec3];
  const way = vec3.sub([0, 0, 0], follower, centre);
  const aside = vec3.dot(way, axis);
  const across = vec3.scaleAndAdd([0, 0, 0], way, axis, -aside);
  const base = vec3.length(across) - roller - lift[0]!;
  if (!(base > 0))
    return refused(
      `The follower stands ${metres(vec3.length(across))} from the axle with a lift of ${metres(lift[0]!)}: no room for a cam under a roller of ${metres(roller)}. Move the follower further out.`,
    );
  const foot = vec3.add([0, 0, 0], centre, across) as unknown as Vec3;
  const seen = fromWorld(worldAt(program, shaft.id, frame), foot);
  if (!seen) return refused(`${shaft.name} has no size; give it one first.`);
  const [i, j] = planeAxes(letter);
  const along = ([sign, place]: readonly [number, number]) => sign * (seen[place]! - shaft.pivot[place]!);
  const toward = Math.atan2(along(j), along(i)) + (axle.turn * Math.PI) / 180;
  return { ok: true, value: { cam, base, shaft, letter, aside, toward } };
}

/**
 * The disc of a cam as a part on its shaft: its edge runs under a roller of the given size about the follower's pivot, wherever the
 * shaft stands. The base circle is read off: how far the follower's pivot is from the axle at the frame, less its lift and the roller.
 */
export function addCamPart(
  project: Project,
  driverId: string,
  { roller, width }: CamSize,
  frame: number,
): Result<{ readonly project: Project; readonly id: string; readonly read: string }> {
  const standing = read(project, driverId, roller, frame);
  if (!standing.ok) return standing;
  const { cam, base, shaft, letter, aside, toward } = standing.value;
  const [cos, sin] = [Math.cos(toward), Math.sin(toward)];
  const outline = camProfile(cam, base, roller, COUNT).profile.map(([x, y]): readonly [number, number] => [
    x * cos - y * sin,
    x * sin + y * cos,
  ]);
  const along = 'xyz'.indexOf(letter);
  const box = newPart('box', 'Cam') as MeshPart;
  const part: MeshPart = {
    ...box,
    id: `cam-${shaft.id}`,
    rest: {
      ...box.rest,
      translate: shaft.pivot.map((each, n) => (n === along ? each + aside : each)) as unknown as Vec3,
      rotate: ACROSS[letter],
    },
    geometry: { shape: 'extrude', outline, depth: width },
  };
  const added = addParts(project, { parts: [part], assets: [] }, shaft.id);
  return {
    ok: true,
    value: { project: added.project, id: added.added[0]!, read: `base circle of radius ${metres(base)}` },
  };
}

/** The shaft's own axes along the outline's X and Y, each with its sign and its place among X, Y, Z. */
function planeAxes(letter: Letter): readonly [readonly [number, number], readonly [number, number]] {
  switch (letter) {
    case 'x':
      return [
        [-1, 2],
        [1, 1],
      ];
    case 'y':
      return [
        [1, 0],
        [-1, 2],
      ];
    case 'z':
      return [
        [1, 0],
        [1, 1],
      ];
  }
}
