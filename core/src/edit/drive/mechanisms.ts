import { vec3 } from 'gl-matrix';
import { channelName, type Part, type Project, type Result, type Vec3 } from '../../project';
import { pivotAt, type Program } from '../../evaluate';
import { refused } from '../links/refused';
import { axleOf, directionIn, pivotInParent, sizeAcross, type Letter } from './axle';
import {
  Assembly,
  begun,
  DEGREES,
  LETTERS,
  metres,
  planeOf,
  radiusOf,
  turnsOnlyAbout,
  wayOf,
  type Assembled,
} from './assembly';

/**
 * A crank, a rod and what it pushes, as they stand at a frame: the crank turns about its pivot, the rod's pivot is its pin, the slider's
 * pivot is where the rod ends. Lengths are read off the places of the pivots; they stay together at every angle of the crank
 * (contract §8, slider-crank). All three ride on one part, or on nothing.
 */
export function assembleSliderCrank(
  project: Project,
  ids: { readonly crank: string; readonly rod: string; readonly slider: string },
  frame: number,
): Result<Assembled> {
  const start = begun(project, [ids.crank, ids.rod, ids.slider]);
  if (!start.ok) return start;
  const { program } = start.value;
  const [crank, rod, slider] = start.value.parts as [Part, Part, Part];
  if (rod.parent !== crank.parent || slider.parent !== crank.parent)
    return refused(
      'Crank, rod and slider must ride on the same part, or all on nothing: then they can stay together.',
    );
  const [centre, pin, end] = [crank, rod, slider].map((part) =>
    pivotInParent(program, part, frame),
  ) as unknown as readonly [Vec3, Vec3, Vec3];
  const normal = planeOf([centre, pin, end], crank, project);
  const [i, j] = [(normal + 1) % 3, (normal + 2) % 3] as const;
  for (const part of [crank, rod])
    if (!turnsOnlyAbout(program, part, frame, normal))
      return refused(
        `${part.name} is turned about another axis than ${LETTERS[normal]!.toUpperCase()}; a crank and its rod turn in one plane.`,
      );
  const flat = (p: readonly number[], from: readonly number[]) =>
    [p[i]! - from[i]!, p[j]! - from[j]!] as const;
  const arm = flat(pin, centre);
  const way = flat(end, centre);
  const reach = flat(end, pin);
  const [r, l] = [Math.hypot(...arm), Math.hypot(...reach)];
  if (r < 1e-6 || l < 1e-6)
    return refused(
      'The pivots lie on each other: put the rod’s pivot at the crank’s pin and the slider’s where the rod ends.',
    );
  const along = Math.abs(way[0]) >= Math.abs(way[1]) ? 0 : 1;
  const sign = way[along] >= 0 ? 1 : -1;
  // The frame of the linkage: x′ along the slide, y′ a quarter turn on.
  const axis = along === 0 ? ([sign, 0] as const) : ([0, sign] as const);
  const inFrame = ([x, y]: readonly [number, number]) =>
    [x * axis[0] + y * axis[1], y * axis[0] - x * axis[1]] as const;
  if (!(inFrame(reach)[0] > 0))
    return refused('The rod leans back past upright: put the slider further out than the crank’s pin.');
  const [px, py] = inFrame(arm);
  const turn = `rotate.${LETTERS[normal]}`;
  const now = (part: Part, property: string) =>
    program.channelValue(program.structure.slots.get(channelName(part.id, property))!, frame);
  const phase = Math.atan2(py, px) * DEGREES - now(crank, turn);
  const start0 = Math.atan2(arm[1], arm[0]) * DEGREES - now(crank, turn);
  const lean0 = Math.atan2(inFrame(reach)[1], inFrame(reach)[0]) * DEGREES;

  const assembly = new Assembly(project);
  const angle = assembly.number(crank.id, 'crank angle', '°');
  const slide = assembly.number(crank.id, 'slide', 'm');
  const lean = assembly.number(crank.id, 'rod lean', '°');
  assembly.drive('expression', angle, {
    inputs: { turn: channelName(crank.id, turn) },
    expression: `turn + ${phase}`,
  });
  const linkage = {
    linkage: 'slider-crank',
    inputs: { angle },
    params: { crank: r, rod: l, offset: inFrame(way)[1] },
  };
  assembly.drive('linkage', slide, { ...linkage, output: 'slide' });
  assembly.drive('linkage', lean, { ...linkage, output: 'rod' });
  const moved = along === 0 ? i : j;
  assembly.drive('expression', channelName(slider.id, `translate.${LETTERS[moved]}`), {
    inputs: { centre: channelName(crank.id, `translate.${LETTERS[moved]}`), slide },
    expression: `centre + ${crank.pivot[moved]! - slider.pivot[moved]!} ${sign > 0 ? '+' : '-'} slide`,
  });
  assembly.onPin({ crank, bar: rod }, [i, j], turn, { radius: r, start: start0 });
  assembly.drive('expression', channelName(rod.id, turn), {
    inputs: { lean },
    expression: `lean + ${now(rod, turn) - lean0}`,
  });
  return assembly.done(`crank ${metres(r)}, rod ${metres(l)}`);
}

/**
 * A wheel that rolls without slipping on the way its wagon goes along an axis: the radius is read off its shape, the side on which it
 * turns off its axle. It keeps the turn that it has at the frame.
 */
export function assembleWheel(
  project: Project,
  ids: { readonly wheel: string; readonly wagon: string },
  along: Letter,
  frame: number,
): Result<Assembled> {
  const start = begun(project, [ids.wheel, ids.wagon]);
  if (!start.ok) return start;
  const { program } = start.value;
  const [wheel, wagon] = start.value.parts as [Part, Part];
  const own = radiusOf(wheel);
  if (own === null)
    return refused(
      `${wheel.name} is no round shape: its radius can’t be read off. Build the wheel from a cylinder, ring or gear.`,
    );
  const axle = axleOf(program, wheel, frame);
  if (!axle)
    return refused(
      `${wheel.name} is turned about more than its axle; set its other turns to 0, or change its turn order.`,
    );
  const radius = own * sizeAcross(program, wheel.id, frame, axle.letter);
  const way = wayOf(program, wagon, along, frame);
  const side = vec3.dot(vec3.cross(vec3.create(), axle.direction, [0, 1, 0]), way);
  if (Math.abs(side) < 0.5)
    return refused(`The axle of ${wheel.name} lies along the way or upright; it must lie across the way.`);
  const distance = channelName(wagon.id, `translate.${along}`);
  const slot = program.structure.slots.get(distance)!;
  const direction = side > 0 ? 1 : -1;
  const rolled = direction * (program.channelValue(slot, frame) / radius) * DEGREES;
  const assembly = new Assembly(project);
  const rolling = assembly.number(wheel.id, 'rolled', '°');
  assembly.drive('linkage', rolling, {
    linkage: 'wheel',
    inputs: { distance },
    output: 'angle',
    params: { radius, direction },
  });
  assembly.drive('expression', axle.channel, {
    inputs: { rolled: rolling },
    expression: `rolled + ${axle.turn - rolled}`,
  });
  return assembly.done(`radius ${metres(radius)}`);
}

/** One gear that turns another: teeth are read off both, and the other is turned so that teeth meet gaps. */
export function assembleGears(
  project: Project,
  ids: { readonly driving: string; readonly driven: string },
  frame: number,
): Result<Assembled> {
  const start = begun(project, [ids.driving, ids.driven]);
  if (!start.ok) return start;
  const { program } = start.value;
  const [driving, driven] = start.value.parts as [Part, Part];
  const [a, b] = [gearOf(driving), gearOf(driven)];
  if (!a || !b)
    return refused(
      `${(a ? driven : driving).name} is no gear: its teeth can’t be counted. Both must be gears.`,
    );
  const [first, second] = [driving, driven].map((part) => axleOf(program, part, frame)) as [
    ReturnType<typeof axleOf>,
    ReturnType<typeof axleOf>,
  ];
  if (!first || !second)
    return refused(
      `${(first ? driven : driving).name} is turned about more than its axle; set its other turns to 0, or change its turn order.`,
    );
  const facing = vec3.dot(first.direction, second.direction);
  if (Math.abs(facing) < 0.999) return refused('The axles of the two gears must lie side by side.');
  const same = facing > 0;
  const [from, to] = [driving, driven].map(({ id }) =>
    pivotAt(program, project, id, frame),
  ) as unknown as readonly [Vec3, Vec3];
  const apart: Vec3 = [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
  const module = a.module * sizeAcross(program, driving.id, frame, first.letter);
  const other = b.module * sizeAcross(program, driven.id, frame, second.letter);
  const wanted = ((a.teeth + b.teeth) * module) / 2;
  // Of each gear: how far through a tooth the line to the other one passes, 0 in the middle of a tooth.
  const toward = toothAt(program, driving, frame, apart, a.teeth);
  const back = toothAt(program, driven, frame, apart.map((n) => -n) as unknown as typeof apart, b.teeth);
  const shift = same ? toward + back - 0.5 : 0.5 - toward + back;
  const turned = second.turn + ((shift - Math.round(shift)) * 360) / b.teeth;
  const ratio = ((same ? -1 : 1) * a.teeth) / b.teeth;
  const assembly = new Assembly(project);
  assembly.drive('linkage', second.channel, {
    linkage: 'gear',
    inputs: { angle: first.channel },
    output: 'angle',
    params: {
      teethIn: a.teeth,
      teethOut: b.teeth,
      mesh: same ? 'external' : 'internal',
      phase: turned - ratio * first.turn,
    },
  });
  const gap = Math.hypot(...apart) - wanted;
  const fits =
    Math.abs(module - other) > 1e-9
      ? '; their modules differ, so their teeth do not fit'
      : Math.abs(gap) > 0.02 * module
        ? `; they would mesh ${metres(wanted)} apart, and are ${metres(wanted + gap)}`
        : '';
  return assembly.done(`${a.teeth} : ${b.teeth} teeth${fits}`);
}

function gearOf(part: Part): { readonly teeth: number; readonly module: number } | null {
  return part.kind === 'mesh' && part.geometry.shape === 'gear' ? part.geometry : null;
}

/** How far through its teeth, in teeth, a direction of the world leaves a gear; teeth stand about its own Y, one along X. */
function toothAt(
  program: Program,
  part: Part,
  frame: number,
  [x, y, z]: readonly [number, number, number],
  teeth: number,
): number {
  const along = (letter: Letter) => vec3.dot(directionIn(program, part.id, frame, letter), [x, y, z]);
  return (Math.atan2(-along('z'), along('x')) * DEGREES * teeth) / 360;
}
