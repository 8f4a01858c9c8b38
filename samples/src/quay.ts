import {
  addTreatment,
  keyValues,
  newProject,
  setLeg,
  setOutside,
  type Part,
  type Project,
} from '@kaizen/core';
import { beam, box, camera, COLOURS, cone, group, rod, solid } from './build-parts';

const HEIGHT = 'float/translate.y';
const ALONG = 'float/translate.x';
const SPIN = 'float/rotate.z';
const BOB = 'buoy/translate.y';
const TILT = 'buoy/rotate.z';
const RAKE = 'carriage/translate.x';

/** Contacts of the float's hops, and the tops between them, as they were first keyed: nobody has shaped them yet. */
const HOPS = [
  [0, 2.5],
  [16, 0.54],
  [31, 1.62],
  [46, 0.54],
  [57, 1.06],
  [68, 0.54],
  [76, 0.78],
  [84, 0.54],
] as const;

/**
 * The quay, blocked and not yet shaped: a net float thrown down that hops, a mooring buoy that bobs for ever and jitters, a rake carriage that should run
 * evenly and does not.
 */
export function quay(): Project {
  const project: Project = {
    ...newProject('quay', 'Quay'),
    range: { start: 0, end: 144, loop: true },
    parts: parts(),
  };
  const at = (channel: string, frame: number, value: number) => ({ channel, frame, value });
  const keyed = keyValues(project, [
    ...HOPS.map(([frame, value]) => at(HEIGHT, frame, value)),
    at(ALONG, 0, -2.4),
    at(ALONG, 84, 1.5),
    at(SPIN, 0, 0),
    at(SPIN, 84, -520),
    at(BOB, 0, 0.1),
    at(BOB, 36, -0.08),
    at(BOB, 72, 0.1),
    at(TILT, 0, 0),
    at(RAKE, 0, -3),
    at(RAKE, 30, -2.4),
    at(RAKE, 60, 0.4),
    at(RAKE, 96, 2),
    at(RAKE, 120, 3),
  ]);
  const eased = setLeg(keyed, [{ channel: ALONG, frame: 0 }], { kind: 'ease', family: 'quad', slow: 'end' });
  const spun = setLeg(eased, [{ channel: SPIN, frame: 0 }], { kind: 'ease', family: 'quad', slow: 'end' });
  const looped = setOutside(spun, [BOB], 'after', { mode: 'loop' });
  const bobbing = setOutside(looped, [BOB], 'before', { mode: 'loop' });
  return addTreatment(bobbing, TILT, {
    kind: 'noise',
    amplitude: 12,
    period: 5,
    seed: 41,
    octaves: 2,
    loop: null,
    weight: 1,
    muted: false,
  });
}

function parts(): Part[] {
  const { timber, darkTimber, iron, steel, tin, salt, clay, rope, stone, brine, brass } = COLOURS;
  return [
    group('quayside', 'Quayside'),
    solid('deck', 'Deck', box(9, 0.3, 2.2), stone, { parent: 'quayside', at: [0, 0.15, 0] }),
    solid('kerb', 'Kerb', box(9, 0.16, 0.24), timber, { parent: 'quayside', at: [0, 0.38, -0.98] }),
    ...[-3.6, -1.2, 1.2, 3.6].map((x, i) =>
      solid(`pile-${i + 1}`, `Pile ${i + 1}`, rod(0.14, 0.9), darkTimber, {
        parent: 'quayside',
        at: [x, 0.45, 1.2],
      }),
    ),
    solid('bollard', 'Bollard', cone(0.16, 0.2, 0.5), iron, { parent: 'quayside', at: [2.9, 0.55, 0.5] }),
    solid('basin', 'Basin', box(11, 0.04, 3.4), brine, { at: [0, 0.02, 2.85] }),
    group('float', 'Net float', { at: [-2.4, 2.5, 0] }),
    solid('float-ball', 'Ball', { shape: 'sphere', radius: 0.24 }, clay, { parent: 'float' }),
    solid('float-band', 'Band', { shape: 'torus', radius: 0.24, tube: 0.025 }, rope, { parent: 'float' }),
    solid('float-band-2', 'Second band', { shape: 'torus', radius: 0.24, tube: 0.025 }, rope, {
      parent: 'float',
      turn: [90, 0, 0],
    }),
    group('mooring', 'Mooring', { at: [1.6, 0.06, 3] }),
    group('buoy', 'Buoy', { parent: 'mooring' }),
    solid('buoy-body', 'Body', cone(0.46, 0.34, 0.5), tin, { parent: 'buoy', at: [0, 0.15, 0] }),
    solid('buoy-mast', 'Mast', rod(0.05, 0.9), steel, { parent: 'buoy', at: [0, 0.8, 0] }),
    solid('buoy-lamp', 'Lamp', { shape: 'sphere', radius: 0.11 }, brass, { parent: 'buoy', at: [0, 1.3, 0] }),
    group('pan', 'Salt pan', { at: [0, 0, -3.2] }),
    solid('pan-floor', 'Pan floor', box(7.4, 0.12, 2.2), stone, { parent: 'pan', at: [0, -0.06, 0] }),
    solid('pan-salt', 'Salt', box(7, 0.06, 1.8), salt, { parent: 'pan', at: [0, 0.02, 0] }),
    ...[-0.98, 0.98].map((z, i) =>
      solid(`rail-${i + 1}`, `Rail ${i + 1}`, box(7.4, 0.09, 0.09), steel, {
        parent: 'pan',
        at: [0, 0.2, z],
      }),
    ),
    group('carriage', 'Rake carriage', { parent: 'pan', at: [-3, 0.32, 0] }),
    solid('carriage-beam', 'Beam', box(0.4, 0.16, 2.3), darkTimber, { parent: 'carriage' }),
    solid('carriage-house', 'Motor house', box(0.44, 0.34, 0.5), clay, {
      parent: 'carriage',
      at: [0, 0.25, -0.5],
    }),
    ...[-0.7, -0.35, 0, 0.35, 0.7].map((z, i) =>
      solid(`tine-${i + 1}`, `Tine ${i + 1}`, rod(0.03, 0.34), iron, {
        parent: 'carriage',
        at: [0, -0.2, z],
      }),
    ),
    beam('rope-post', 'Rope post', [-4.2, 0], [-4.2, 2.9], -0.9, 0.14, timber),
    beam('rope-arm', 'Rope arm', [-4.2, 2.75], [-3.2, 2.95], -0.9, 0.1, timber),
    camera('shot', 'Shot camera', 40, { at: [5.2, 3.6, 9.6], turn: [-17, 27, 0] }),
  ];
}
