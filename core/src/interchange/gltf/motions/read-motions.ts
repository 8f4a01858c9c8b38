import {
  channelName,
  encodeName,
  restValue,
  type Clip,
  type Curve,
  type Part,
  type Vec3,
} from '../../../project';
import { LIMITS } from '../../../file';
import { anglesNear, turnOf } from '../../../rig';
import type { GltfAnimationChannel, GltfDocument, GltfJson } from '../document';
import { gltfProblem } from '../model-problem';
import { plural } from '../model-words';
import { readAccessors, type AccessorNumbers } from '../read-accessors';
import { approximate, hermite } from './approximate';
import { componentKeys, curveOfKeys, type CurveKey } from './leg-curves';
import { pointerTarget, type NumberTarget } from './pointer-targets';
import { rateOfTimes, readSampler, type Keyed } from './sampler';
import { isOneAngle, tidyAngle } from './tidy';
import { turnKeys, TURN_TOLERANCE } from './turn-curves';

/** The motions of a model as clips, on parts that stand for its nodes. */
export interface Motions {
  readonly clips: readonly Clip[];
  /** The parts, those in another turn order whose turning is truer to the file in it. */
  readonly parts: readonly Part[];
  readonly framesPerSecond: number;
  /** The last frame on which a key lies, counted from `start`. */
  readonly last: number;
  readonly report: readonly string[];
}

/** Numbers that are no channel as they stand (a lens from an angle) may be off by this share of themselves. */
const CONVERTED_TOLERANCE = 1e-5;

interface Moved {
  readonly clip: number;
  readonly keyed: Keyed;
}

/**
 * Reads the animations of a document. `parts` are the parts of its nodes, in order; `rate` its frames a second where that is known
 * (else the usual one on which all its times lie), `start` the frame that its second 0 is. Straight, held and cubic keys of places,
 * sizes, shapes and looks are exact; turns are within TURN_TOLERANCE. What can't be read is told, and the rest is there.
 */
export async function readMotions(
  document: GltfDocument,
  parts: readonly Part[],
  rate: number | null,
  start: number,
): Promise<Motions> {
  const { json } = document;
  const animations = json.animations ?? [];
  const numbers = await numbersOf(document);
  const times = animations.flatMap(({ samplers }) => samplers.map(({ input }) => numbers.get(input)!.array));
  const framesPerSecond = rate ?? rateOfTimes(times);
  const reader = new MotionReader(json, parts, numbers, framesPerSecond, start);
  animations.forEach((_, clip) => reader.read(clip));
  reader.turns();
  return { ...reader.motions(), framesPerSecond };
}

/** The numbers of all accessors that samplers name. */
async function numbersOf({ json, bin }: GltfDocument): Promise<ReadonlyMap<number, AccessorNumbers>> {
  const samplers = (json.animations ?? []).flatMap((animation) => animation.samplers);
  const used = [...new Set(samplers.flatMap(({ input, output }) => [input, output]))];
  const total = used.reduce((sum, i) => sum + json.accessors![i]!.count, 0);
  if (total > MOST_ELEMENTS)
    throw gltfProblem('/animations', `they have ${total} keys; a project may have at most ${LIMITS.keys}`);
  const accessors = used.map((i) => json.accessors![i]!);
  const read = await readAccessors({ json: { ...json, meshes: [], accessors }, bin });
  return new Map(used.map((i, k) => [i, read[k]!]));
}

/** Times and cubic values, three a key, for as many keys as a project may have. */
const MOST_ELEMENTS = 4 * LIMITS.keys;

class MotionReader {
  private readonly clips: { id: string; name: string; curves: Curve[] }[] = [];
  private readonly parts: Part[];
  private readonly left = new Map<string, number>();
  private readonly turning = new Map<number, Moved[]>();
  private readonly taken = new Set<string>();
  private approximated = 0;
  private last = 0;

  constructor(
    private readonly json: GltfJson,
    parts: readonly Part[],
    private readonly numbers: ReadonlyMap<number, AccessorNumbers>,
    private readonly framesPerSecond: number,
    private readonly start: number,
  ) {
    this.parts = [...parts];
    const names = new Set<string>();
    this.json.animations!.forEach((animation, i) => {
      const said =
        typeof animation.name === 'string' && animation.name.trim() !== ''
          ? animation.name
          : `Motion ${i + 1}`;
      let name = said;
      for (let n = 2; names.has(name); n++) name = `${said} ${n}`;
      names.add(name);
      this.clips.push({ id: i === 0 ? 'main' : `motion-${i + 1}`, name, curves: [] });
    });
  }

  read(clip: number): void {
    const animation = this.json.animations![clip]!;
    for (const channel of animation.channels) {
      const why = this.channel(clip, channel);
      if (why !== null) this.left.set(why, (this.left.get(why) ?? 0) + 1);
    }
  }

  /** Takes one channel over; says why where it can't. */
  private channel(clip: number, channel: GltfAnimationChannel): string | null {
    const target = this.targetOf(channel);
    if ('why' in target) return target.why;
    const {
      interpolation = 'LINEAR',
      input,
      output,
    } = this.json.animations![clip]!.samplers[channel.sampler]!;
    if (!['LINEAR', 'STEP', 'CUBICSPLINE'].includes(interpolation))
      return `it goes from key to key by ${interpolation}`;
    const times = this.numbers.get(input)!;
    const size = 'turns' in target ? 4 : target.size;
    const keyed = readSampler(
      interpolation,
      times,
      this.numbers.get(output)!,
      size,
      this.framesPerSecond,
      this.start,
    );
    if (typeof keyed === 'string') return keyed;
    const name = `${clip} ${channel.target.node ?? ''} ${channel.target.path} ${pointerOf(channel) ?? ''}`;
    if (this.taken.has(name)) return 'another one moves the same';
    this.taken.add(name);
    this.last = Math.max(this.last, keyed.frames.at(-1)!);
    if ('turns' in target) {
      const node = target.turns;
      const list = this.turning.get(node) ?? [];
      this.turning.set(node, [...list, { clip, keyed }]);
      return null;
    }
    for (const { part, property, n } of target.channels)
      this.number(clip, keyed, part, property, n, target.convert);
    return null;
  }

  private targetOf(
    channel: GltfAnimationChannel,
  ): NumberTarget | { readonly turns: number } | { readonly why: string } {
    const { node, path } = channel.target;
    const pointer = pointerOf(channel);
    if (pointer !== null)
      return (
        pointerTarget(pointer, this.json, this.parts) ?? {
          why: `nothing here is ${pointer.replace(/\d+/g, '…')}`,
        }
      );
    if (node === undefined) return { why: 'it moves nothing that is known' };
    if (this.json.nodes![node]!.matrix && path !== 'weights')
      return { why: 'its node has a matrix, which glTF does not let move' };
    const each = (properties: readonly string[]) => ({
      size: properties.length,
      channels: properties.map((property, n) => ({ part: node, property, n })),
    });
    const part = this.parts[node]!;
    if (path === 'rotation') return { turns: node };
    if (path === 'translation') return each(['translate.x', 'translate.y', 'translate.z']);
    if (path === 'scale') return each(['scale.x', 'scale.y', 'scale.z']);
    if (path !== 'weights') return { why: `it moves "${path}"` };
    if (part.kind !== 'mesh' || part.morphs.length === 0) return { why: 'its mesh has no target shapes' };
    return each(part.morphs.map((morph) => `morph.${encodeName(morph.name)}`));
  }

  private number(
    clip: number,
    keyed: Keyed,
    index: number,
    property: string,
    n: number,
    convert: NumberTarget['convert'],
  ): void {
    const part = this.parts[index]!;
    const keys = convert ? converted(keyed, n, (value) => convert(value, part)) : componentKeys(keyed, n);
    this.add(clip, part, property, keys);
  }

  private add(clip: number, part: Part, property: string, keys: readonly CurveKey[]): void {
    const curve = curveOfKeys(channelName(part.id, property), keys, restValue(part, property) ?? 0);
    if (curve) this.clips[clip]!.curves.push(curve);
  }

  /** Turns come last: a node has one turn order for all motions. */
  turns(): void {
    for (const [node, moved] of this.turning) {
      const part = this.parts[node]!;
      const { order, motions, error } = turnKeys(
        moved.map(({ keyed }) => keyed),
        part.rest.rotate,
      );
      if (error > TURN_TOLERANCE / 10) this.approximated++;
      const rotate =
        order === part.turnOrder
          ? part.rest.rotate
          : anglesNear(order, turnOf('XYZ', part.rest.rotate), part.rest.rotate);
      const rest = { ...part.rest, rotate: rotate.map(tidyAngle) as unknown as Vec3 };
      const turned = { ...part, turnOrder: order, rest };
      this.parts[node] = turned;
      motions.forEach((keys, i) =>
        keys.forEach((list, n) =>
          this.add(moved[i]!.clip, turned, `rotate.${'xyz'.charAt(n)}`, tidied(list)),
        ),
      );
    }
  }

  motions(): Omit<Motions, 'framesPerSecond'> {
    const report: string[] = [];
    if (this.approximated > 0)
      report.push(
        `the turns of ${plural(this.approximated, 'node')} are kept within ${TURN_TOLERANCE}°: the shortest way from key to key is no straight line in angles`,
      );
    for (const [why, count] of this.left)
      report.push(`${count === 1 ? 'one motion' : `${count} motions`} left out: ${why}`);
    return { clips: this.clips, parts: this.parts, last: this.last, report };
  }
}

function pointerOf({ target }: GltfAnimationChannel): string | null {
  const pointer = (target.extensions?.['KHR_animation_pointer'] as { pointer?: unknown } | undefined)
    ?.pointer;
  return typeof pointer === 'string' ? pointer : null;
}

/** Angles without the noise of single precision: a turn about one axis leaves the others still. */
function tidied(keys: readonly CurveKey[]): readonly CurveKey[] {
  const values = keys.map(({ value }) => value);
  if (!isOneAngle(values)) return keys.map((key) => ({ ...key, value: tidyAngle(key.value) }));
  const slopes = keys.flatMap(({ before, after }) => [before, after]);
  const gentle = slopes.every((slope) => typeof slope === 'string' || Math.abs(slope) < 1e-4);
  if (!gentle) return keys;
  return keys.map((key) => ({ ...key, value: tidyAngle(values[0]!), before: 'straight', after: 'straight' }));
}

/** The keys of one number that means something else in the file, between its keys within CONVERTED_TOLERANCE. */
function converted(keyed: Keyed, n: number, convert: (value: number) => number): readonly CurveKey[] {
  const own = componentKeys(keyed, n);
  if (keyed.interpolation === 'STEP' || own.length === 1)
    return own.map((key) => ({ ...key, value: convert(key.value) }));
  const legs = own.slice(1).map((b, i) => {
    const a = own[i]!;
    const length = b.frame - a.frame;
    const chord = b.value - a.value;
    const slope = (side: CurveKey['after']) => (typeof side === 'number' ? side * length : chord);
    const value = (u: number) => convert(hermite(a.value, slope(a.after), b.value, slope(b.before), u));
    return {
      from: a.frame,
      to: b.frame,
      steps: 8,
      read: (u: number) => [value(u)],
      error: (u: number, shown: readonly number[]) =>
        Math.abs(shown[0]! - value(u)) / (CONVERTED_TOLERANCE * Math.abs(value(u))),
    };
  });
  return approximate(legs, [convert(own[0]!.value)]).keys[0]!;
}
