import { channelName, type Part, type Project, type Result, type Vec3 } from '../../project';
import { pivotAt } from '../../evaluate';
import { refused } from '../links/refused';
import { axleOf, sizeAcross, type Letter } from './axle';
import { Assembly, begun, metres, radiusOf, wayOf, type Assembled } from './assembly';

/**
 * A rope wound on a drum that pulls a load along an axis: the radius is read off the drum's shape, and turning the drum forwards
 * brings the load nearer to it. Both keep the place that they have at the frame.
 */
export function assembleRope(
  project: Project,
  ids: { readonly drum: string; readonly load: string },
  along: Letter,
  frame: number,
): Result<Assembled> {
  const start = begun(project, [ids.drum, ids.load]);
  if (!start.ok) return start;
  const { program } = start.value;
  const [drum, load] = start.value.parts as [Part, Part];
  const own = radiusOf(drum);
  if (own === null)
    return refused(
      `${drum.name} is no round shape: its radius can’t be read off. Build the drum from a cylinder, ring or gear.`,
    );
  const axle = axleOf(program, drum, frame);
  if (!axle)
    return refused(
      `${drum.name} is turned about more than its axle; set its other turns to 0, or change its turn order.`,
    );
  const radius = own * sizeAcross(program, drum.id, frame, axle.letter);
  const way = wayOf(program, load, along, frame);
  const [from, to] = [load, drum].map(({ id }) => pivotAt(program, project, id, frame)) as unknown as [
    Vec3,
    Vec3,
  ];
  const toDrum = way[0] * (to[0] - from[0]) + way[1] * (to[1] - from[1]) + way[2] * (to[2] - from[2]);
  const sign = toDrum >= 0 ? '+' : '-';
  const place = channelName(load.id, `translate.${along}`);
  const wound = radius * axle.turn * (Math.PI / 180);
  const now = program.channelValue(program.structure.slots.get(place)!, frame);
  const assembly = new Assembly(project);
  const rope = assembly.number(drum.id, 'rope wound', 'm');
  assembly.drive('linkage', rope, {
    linkage: 'rack',
    inputs: { angle: axle.channel },
    output: 'distance',
    params: { radius },
  });
  assembly.drive('expression', place, {
    inputs: { rope },
    expression: `${toDrum >= 0 ? now - wound : now + wound} ${sign} rope`,
  });
  return assembly.done(`drum of radius ${metres(radius)}`);
}
