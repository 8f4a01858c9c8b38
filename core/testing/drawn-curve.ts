import fc from 'fast-check';
import { curveOf } from '../src/edit';
import { CAM_LAWS, EASE_FAMILIES, type Leg, type Project } from '../src/project';
import { deepFreeze, programOf, slotOf, testProject } from './project';

/** The channel that is drawn, and the one that is locked. */
export const X = 'wagon/translate.x';
export const Y = 'wagon/translate.y';

/** Every kind of leg, with its parameters. */
export const legs: fc.Arbitrary<Leg> = fc.oneof(
  fc.constant<Leg>({ kind: 'curve' }),
  fc.constant<Leg>({ kind: 'hold' }),
  fc
    .constantFrom(...EASE_FAMILIES)
    .chain((family) =>
      fc
        .constantFrom('start' as const, 'end' as const, 'both' as const)
        .map((slow): Leg => ({ kind: 'ease', family, slow })),
    ),
  fc.constantFrom(...CAM_LAWS).map((law): Leg => ({ kind: 'law', law })),
  fc.constant<Leg>({ kind: 'law', law: 'trapezoid', accelerate: 0.2, decelerate: 0.5 }),
  fc.constant<Leg>({ kind: 'ballistic' }),
);

const sides = fc.oneof(
  fc.constantFrom('smooth', 'bounded', 'flat', 'linear').map((mode) => ({ mode })),
  fc.record({
    mode: fc.constant('set'),
    slope: fc.double({ min: -2, max: 2, noNaN: true }),
    reach: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
  }),
);

const outsides = fc.constantFrom('hold', 'run-on', 'loop', 'loop-carry', 'swing');

/** What a drawn curve is made from. */
export interface Drawn {
  readonly gaps: readonly number[];
  readonly keys: readonly { value: number; leg: Leg; in: unknown; out: unknown; joined: boolean }[];
  readonly before: string;
  readonly after: string;
  readonly pinned: boolean;
}

/** Curves of every leg, side and outside. */
export const drawn: fc.Arbitrary<Drawn> = fc.integer({ min: 2, max: 7 }).chain((count) =>
  fc.record({
    gaps: fc.array(fc.integer({ min: 1, max: 30 }), { minLength: count, maxLength: count }),
    keys: fc.array(
      fc.record({
        value: fc.integer({ min: -20, max: 20 }).map((n) => n / 4),
        leg: legs,
        in: sides,
        out: sides,
        joined: fc.boolean(),
      }),
      { minLength: count, maxLength: count },
    ),
    before: outsides,
    after: outsides,
    pinned: fc.boolean(),
  }),
);

/** A project with one drawn curve, and a second channel that is locked. */
export function projectOf({ gaps, keys, before, after, pinned }: Drawn): Project {
  let frame = -gaps[0]!;
  const placed = keys.map((key, i) => ({ ...key, frame: (frame += gaps[i]!) }));
  const pin = pinned && placed.length > 2 ? placed[1]!.frame : null;
  const repeats = (mode: string) => mode !== 'hold' && mode !== 'run-on';
  return testProject({}, [
    {
      channel: X,
      keys: placed,
      before: { mode: before },
      after: { mode: after, pin: repeats(after) ? pin : null },
    },
    {
      channel: Y,
      locked: true,
      keys: [
        { frame: 3, value: 1 },
        { frame: 50, value: 2 },
      ],
    },
  ]);
}

/** The frames of a curve's keys, their references, and the span from the first to the last. */
export const framesOf = (project: Project, channel = X) =>
  curveOf(project, channel)!.keys.map(({ frame }) => frame);
export const refsOf = (project: Project, channel = X) =>
  framesOf(project, channel).map((frame) => ({ channel, frame }));
export const spanOf = (project: Project) => ({
  start: framesOf(project)[0]!,
  end: framesOf(project).at(-1)!,
});

/** Reads the drawn channel at any frame. */
export function sampler(project: Project): (frame: number) => number {
  const program = programOf(deepFreeze(project));
  const slot = slotOf(program, X);
  return (frame) => program.channelValue(slot, frame);
}
