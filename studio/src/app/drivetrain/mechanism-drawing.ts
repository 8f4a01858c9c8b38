import type { Mechanism } from '@kaizen/core';

type Place = readonly [x: number, y: number];

/** A mechanism drawn to scale in its own plane: lengths in metres, or in teeth where it has no lengths. */
export interface Drawing {
  readonly bars: readonly (readonly [Place, Place])[];
  readonly circles: readonly (readonly [centre: Place, radius: number])[];
  readonly joints: readonly Place[];
  /** Joints that stand on the ground. */
  readonly grounds: readonly Place[];
  /** What is thin: ways, profiles, belts. */
  readonly lines: readonly (readonly Place[])[];
}

/** What a drawing is made of: dimensions, inputs and outputs as they are now, and the mechanism itself for whole curves. */
interface Posed {
  readonly is: (name: string) => number;
  readonly word: (name: string) => string;
  readonly inputs: readonly number[];
  readonly outputs: readonly number[];
  readonly mechanism: Mechanism;
}

const radians = (degrees: number) => (degrees * Math.PI) / 180;
const at = ([x, y]: Place, radius: number, degrees: number): Place => [
  x + radius * Math.cos(radians(degrees)),
  y + radius * Math.sin(radians(degrees)),
];
const ORIGIN: Place = [0, 0];
const drawing = (parts: Partial<Drawing>): Drawing => ({
  bars: [],
  circles: [],
  joints: [],
  grounds: [],
  lines: [],
  ...parts,
});

/** Two wheels side by side, each with a spoke that shows how far it is turned. */
function wheels(
  a: number,
  b: number,
  apart: number,
  turnA: number,
  turnB: number,
  more: Partial<Drawing> = {},
): Drawing {
  const other: Place = [apart, 0];
  return drawing({
    circles: [
      [ORIGIN, a],
      [other, b],
    ],
    bars: [
      [ORIGIN, at(ORIGIN, a, turnA)],
      [other, at(other, b, turnB)],
    ],
    grounds: [ORIGIN, other],
    ...more,
  });
}

/** How each mechanism is drawn. One entry a mechanism. */
const DRAWINGS: Readonly<Record<string, (posed: Posed) => Drawing>> = {
  gear: ({ is, word, inputs, outputs }) => {
    const [a, b] = [is('teethIn'), is('teethOut')];
    return wheels(a, b, word('mesh') === 'internal' ? Math.abs(a - b) : a + b, inputs[0]!, outputs[0]!);
  },
  belt: ({ is, word, inputs, outputs }) => {
    const [a, b] = [is('radiusIn'), is('radiusOut')];
    const apart = (a + b) * 1.7;
    const crossed = word('crossed') === 'true' ? -1 : 1;
    return wheels(a, b, apart, inputs[0]!, outputs[0]!, {
      lines: [
        [
          [0, a],
          [apart, crossed * b],
        ],
        [
          [0, -a],
          [apart, -crossed * b],
        ],
      ],
    });
  },
  worm: ({ is, inputs, outputs }) => {
    const teeth = is('teeth');
    const shift = ((inputs[0]! / 360) % 1) * 4;
    const threads = Array.from({ length: 9 }, (_, i): readonly Place[] => [
      [teeth + 1, (i - 4) * 4 + shift - 1],
      [teeth + 7, (i - 4) * 4 + shift + 1],
    ]);
    return drawing({
      circles: [[ORIGIN, teeth]],
      bars: [[ORIGIN, at(ORIGIN, teeth, outputs[0]!)]],
      grounds: [ORIGIN],
      lines: threads,
    });
  },
  planetary: ({ is, word, inputs, outputs }) => {
    const turns: Readonly<Record<string, number>> = {
      [word('from')]: inputs[0]!,
      [word('to')]: outputs[0]!,
      [word('held')]: 0,
    };
    const [sun, ring] = [is('sun'), is('ring')];
    const planet = (ring - sun) / 2;
    const centre = at(ORIGIN, sun + planet, turns['carrier'] ?? 0);
    return drawing({
      circles: [
        [ORIGIN, ring],
        [ORIGIN, sun],
        [centre, planet],
      ],
      bars: [
        [ORIGIN, centre],
        [ORIGIN, at(ORIGIN, sun, turns['sun'] ?? 0)],
        [at(ORIGIN, ring, turns['ring'] ?? 0), at(ORIGIN, ring * 0.9, turns['ring'] ?? 0)],
      ],
      joints: [centre],
      grounds: [ORIGIN],
    });
  },
  rack: ({ is, inputs, outputs }) => {
    const r = is('radius');
    const way = outputs[0]!;
    return drawing({
      circles: [[ORIGIN, r]],
      bars: [
        [ORIGIN, at(ORIGIN, r, -inputs[0]!)],
        [
          [way - 2 * r, -r],
          [way + 2 * r, -r],
        ],
      ],
      joints: [[way, -r]],
      grounds: [ORIGIN],
    });
  },
  wheel: ({ is, inputs, outputs }) => {
    const r = is('radius');
    const centre: Place = [inputs[0]!, r];
    return drawing({
      circles: [[centre, r]],
      bars: [[centre, at(centre, r, -90 - outputs[0]!)]],
      joints: [centre],
      lines: [
        [
          [Math.min(0, inputs[0]!) - 2 * r, 0],
          [Math.max(0, inputs[0]!) + 2 * r, 0],
        ],
      ],
    });
  },
  screw: ({ is, inputs, outputs }) => {
    const lead = is('lead');
    const nut = outputs[0]!;
    const turns = Array.from({ length: 11 }, (_, i): readonly Place[] => {
      const y = Math.round(nut / lead + i - 5) * lead - (((inputs[0]! / 360) % 1) + 1) * lead;
      return [
        [-lead, y],
        [lead, y + lead / 2],
      ];
    });
    return drawing({
      bars: [
        [
          [-1.6 * lead, nut],
          [1.6 * lead, nut],
        ],
      ],
      joints: [[0, nut]],
      lines: turns,
    });
  },
  'slider-crank': ({ is, inputs, outputs }) => {
    const pin = at(ORIGIN, is('crank'), inputs[0]!);
    const slider: Place = [outputs[0]!, is('offset')];
    const far = is('crank') + is('rod');
    return drawing({
      bars: [
        [ORIGIN, pin],
        [pin, slider],
      ],
      circles: [[ORIGIN, is('crank')]],
      joints: [pin, slider],
      grounds: [ORIGIN],
      lines: [
        [
          [Math.min(0, slider[0]), is('offset')],
          [far * 1.05, is('offset')],
        ],
      ],
    });
  },
  'scotch-yoke': ({ is, inputs, outputs }) => {
    const r = is('crank');
    const pin = at(ORIGIN, r, inputs[0]!);
    const way = outputs[0]!;
    return drawing({
      circles: [[ORIGIN, r]],
      bars: [
        [ORIGIN, pin],
        [
          [way, -1.2 * r],
          [way, 1.2 * r],
        ],
        [
          [way, 0],
          [way + 2 * r, 0],
        ],
      ],
      joints: [pin],
      grounds: [ORIGIN],
    });
  },
  'four-bar': ({ is, inputs, outputs }) => {
    const pin = at(ORIGIN, is('crank'), inputs[0]!);
    const fixed: Place = [is('ground'), 0];
    const joint = at(fixed, is('rocker'), outputs[0]!);
    return drawing({
      circles: [[ORIGIN, is('crank')]],
      bars: [
        [ORIGIN, pin],
        [pin, joint],
        [joint, fixed],
      ],
      joints: [pin, joint, [outputs[2]!, outputs[3]!]],
      grounds: [ORIGIN, fixed],
    });
  },
  'quick-return': ({ is, inputs, outputs }) => {
    const below: Place = [0, -is('distance')];
    const pin = at(ORIGIN, is('crank'), inputs[0]!);
    return drawing({
      circles: [[ORIGIN, is('crank')]],
      bars: [
        [ORIGIN, pin],
        [below, at(below, is('distance') + is('crank') * 1.4, 90 - outputs[0]!)],
      ],
      joints: [pin],
      grounds: [ORIGIN, below],
    });
  },
  geneva: ({ is, inputs, outputs }) => {
    const n = is('slots');
    const r = Math.sin(Math.PI / n);
    const far: Place = [1, 0];
    const reach = Math.cos(Math.PI / n);
    const slots = Array.from({ length: n }, (_, i): readonly [Place, Place] => {
      const angle = 180 + (i * 360) / n + 180 / n + outputs[0]! + 180 / n;
      return [at(far, reach, angle), at(far, reach * 0.35, angle)];
    });
    const pin = at(ORIGIN, r, inputs[0]!);
    return drawing({
      circles: [
        [ORIGIN, r],
        [far, reach],
      ],
      bars: [[ORIGIN, pin], ...slots],
      joints: [pin],
      grounds: [ORIGIN, far],
    });
  },
  cam: ({ inputs, outputs, mechanism }) => {
    const out = new Float64Array(1);
    const lifts = Array.from({ length: 181 }, (_, i) => {
      mechanism.solve(Float64Array.of(i * 2), out, 0);
      return out[0]!;
    });
    const base = 1.2 * Math.max(0.01, ...lifts);
    const profile = lifts.map((lift, i) => at(ORIGIN, base + lift, 90 + i * 2 - inputs[0]!));
    const follower: Place = [0, base + outputs[0]!];
    return drawing({
      bars: [[follower, [0, follower[1] + base]]],
      joints: [follower],
      grounds: [ORIGIN],
      circles: [[ORIGIN, base]],
      lines: [profile],
    });
  },
  'universal-joint': ({ is, inputs, outputs }) => {
    const end = at(ORIGIN, 1, is('bend'));
    return drawing({
      bars: [
        [[-1, 0], ORIGIN],
        [ORIGIN, end],
        [[-1, 0], at([-1, 0], 0.3, inputs[0]!)],
        [end, at(end, 0.3, outputs[0]!)],
      ],
      circles: [
        [[-1, 0], 0.3],
        [end, 0.3],
      ],
      joints: [ORIGIN],
    });
  },
  'two-link': ({ is, outputs }) => {
    const elbow = at(ORIGIN, is('upper'), outputs[0]!);
    const tip = at(elbow, is('lower'), outputs[0]! + outputs[1]!);
    return drawing({
      bars: [
        [ORIGIN, elbow],
        [elbow, tip],
      ],
      joints: [elbow, tip],
      grounds: [ORIGIN],
    });
  },
  scissor: ({ is, inputs, outputs }) => {
    const [width, stages] = [inputs[0]!, is('stages')];
    const step = outputs[0]! / stages;
    const bars = Array.from({ length: stages }, (_, i): (readonly [Place, Place])[] => [
      [
        [0, i * step],
        [width, (i + 1) * step],
      ],
      [
        [width, i * step],
        [0, (i + 1) * step],
      ],
    ]).flat();
    return drawing({ bars, joints: bars.flat(), grounds: [ORIGIN, [width, 0]] });
  },
};

/** A mechanism as it stands with some inputs; null where it has no outputs there, or is not known. */
export function drawMechanism(
  name: string,
  params: Readonly<Record<string, unknown>>,
  mechanism: Mechanism,
  inputs: readonly number[],
): Drawing | null {
  const draw = DRAWINGS[name];
  const outputs = new Float64Array(mechanism.outputs);
  if (!draw || mechanism.solve(Float64Array.from(inputs), outputs, 0) !== 0) return null;
  const is = (param: string) => (typeof params[param] === 'number' ? params[param] : 0);
  const word = (param: string) => {
    const value = params[param];
    return typeof value === 'string' || typeof value === 'boolean' ? String(value) : '';
  };
  return draw({ is, word, inputs, outputs: [...outputs], mechanism });
}
