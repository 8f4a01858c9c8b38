import { channelName, type Part, type Project, type Result, type Vec3 } from '../../project';
import { LINKAGES } from '../../drive';
import { pivotAt, seenFrom } from '../../evaluate';
import { refused } from '../links/refused';
import { pivotInParent } from './axle';
import {
  Assembly,
  begun,
  DEGREES,
  LETTERS,
  metres,
  planeOf,
  turnsOnlyAbout,
  type Assembled,
} from './assembly';

/** The pieces of a four-bar linkage: what turns, what hangs on its pin, what rocks about a pivot of its own, and the pin between these two. */
export interface FourBars {
  readonly crank: string;
  readonly coupler: string;
  readonly rocker: string;
  readonly pin: string;
}

/**
 * Four bars as they stand at a frame: the crank turns about its pivot, the coupler's pivot is the crank's pin, the rocker turns about
 * its own pivot, and the pivot of a fourth part is the pin that joins coupler and rocker. Lengths are read off the places of the
 * pivots; they stay together at every angle that the crank can have (contract §8, four-bar). Crank, coupler and rocker ride on one
 * part, or on nothing.
 */
export function assembleFourBar(project: Project, ids: FourBars, frame: number): Result<Assembled> {
  const start = begun(project, [ids.crank, ids.coupler, ids.rocker, ids.pin]);
  if (!start.ok) return start;
  const { program } = start.value;
  const [crank, coupler, rocker] = start.value.parts as [Part, Part, Part, Part];
  if (coupler.parent !== crank.parent || rocker.parent !== crank.parent)
    return refused(
      'Crank, coupler and rocker must ride on the same part, or all on nothing: then they can stay together.',
    );
  const [o, a, d] = [crank, coupler, rocker].map((part) =>
    pivotInParent(program, part, frame),
  ) as unknown as readonly [Vec3, Vec3, Vec3];
  const c = seenFrom(program, crank.parent, frame, pivotAt(program, project, ids.pin, frame));
  if (!c) return refused(`${crank.name} rides on what has no size; give it one first.`);
  const normal = planeOf([o, a, d, c], crank, project);
  const [i, j] = [(normal + 1) % 3, (normal + 2) % 3] as const;
  for (const part of [crank, coupler, rocker])
    if (!turnsOnlyAbout(program, part, frame, normal))
      return refused(
        `${part.name} is turned about another axis than ${LETTERS[normal]!.toUpperCase()}; four bars turn in one plane.`,
      );
  const between = (from: Vec3, to: Vec3) => [to[i]! - from[i]!, to[j]! - from[j]!] as const;
  const [ground, arm, rod, swing] = [between(o, d), between(o, a), between(a, c), between(d, c)];
  const lengths = [ground, arm, rod, swing].map((way) => Math.hypot(...way));
  if (lengths.some((length) => length < 1e-6))
    return refused(
      'Two of the pivots lie on each other: put the coupler’s pivot at the crank’s pin, and the fourth part where coupler and rocker meet.',
    );
  const heading = ([x, y]: readonly [number, number]) => Math.atan2(y, x) * DEGREES;
  const across = between(a, d);
  const params = {
    ground: lengths[0]!,
    crank: lengths[1]!,
    coupler: lengths[2]!,
    rocker: lengths[3]!,
    branch: across[0] * rod[1] - across[1] * rod[0] >= 0 ? 1 : -1,
  };
  const angleNow = heading(arm) - heading(ground);
  const dimensions = LINKAGES.get('four-bar')!.read(params);
  if ('message' in dimensions) return refused(dimensions.message);
  const now = new Float64Array(4);
  dimensions.make().solve(Float64Array.of(angleNow), now, 0);
  const turn = `rotate.${LETTERS[normal]}`;
  const turned = (part: Part) =>
    program.channelValue(program.structure.slots.get(channelName(part.id, turn))!, frame);

  const assembly = new Assembly(project);
  const angle = assembly.number(crank.id, 'crank angle', '°');
  const rocks = assembly.number(crank.id, 'rocker', '°');
  const leans = assembly.number(crank.id, 'coupler', '°');
  assembly.drive('expression', angle, {
    inputs: { turn: channelName(crank.id, turn) },
    expression: `turn + ${angleNow - turned(crank)}`,
  });
  const linkage = { linkage: 'four-bar', inputs: { angle }, params };
  assembly.drive('linkage', rocks, { ...linkage, output: 'rocker' });
  assembly.drive('linkage', leans, { ...linkage, output: 'coupler' });
  const start0 = heading(arm) - turned(crank);
  assembly.onPin({ crank, bar: coupler }, [i, j], turn, { radius: params.crank, start: start0 });
  assembly.drive('expression', channelName(coupler.id, turn), {
    inputs: { leans },
    expression: `leans + ${turned(coupler) - now[1]!}`,
  });
  assembly.drive('expression', channelName(rocker.id, turn), {
    inputs: { rocks },
    expression: `rocks + ${turned(rocker) - now[0]!}`,
  });
  const { ground: g, crank: r, coupler: l, rocker: w } = params;
  const read = `ground ${metres(g)}, crank ${metres(r)}, coupler ${metres(l)}, rocker ${metres(w)}`;
  const [short, long] = [Math.min(g, r, l, w), Math.max(g, r, l, w)];
  const turnsRound = short + long <= g + r + l + w - short - long && (short === r || short === g);
  return assembly.done(turnsRound ? read : `${read}; the crank can’t turn all the way round (Grashof)`);
}
