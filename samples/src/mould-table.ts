import {
  newProject,
  keyValues,
  setOutside,
  type Driver,
  type LinkageDriver,
  type Part,
  type Project,
} from '@kaizen/core';
import { box, camera, COLOURS, cone, gathered, group, rod, solid, withSides } from './build-parts';

const MASTER = 'master/custom.angle';
const SLOTS = 6;

/**
 * A table of six moulds: a Geneva drive turns it by a sixth and lets it stand, a cam lets the ram down while it stands, and a
 * second cam opens the chute. One keyed angle drives it all, so that nothing can fall out of step.
 */
export function mouldTable(): Project {
  const project: Project = {
    ...newProject('mould-table', 'Mould table'),
    range: { start: 0, end: 576, loop: true },
    parts: parts(),
    drivers: drivers(),
  };
  const keyed = keyValues(project, [
    { channel: MASTER, frame: 0, value: 180 },
    { channel: MASTER, frame: 96, value: 540 },
  ]);
  const straight = withSides(keyed, 'linear');
  return setOutside(straight, [MASTER], 'after', { mode: 'loop-carry' });
}

function drivers(): Driver[] {
  const linkage = (
    id: string,
    target: string,
    kind: string,
    input: string,
    output: string,
    params: Readonly<Record<string, unknown>>,
  ): LinkageDriver => ({
    id,
    target,
    combine: 'replace',
    muted: false,
    kind: 'linkage',
    linkage: kind,
    inputs: { [input === '' ? 'angle' : input]: MASTER },
    output,
    params,
  });
  return [
    linkage('driver-turns', 'driver/rotate.y', 'gear', 'angle', 'angle', {
      teethIn: 1,
      teethOut: 1,
      mesh: 'internal',
    }),
    linkage('table-turns', 'table/rotate.y', 'geneva', 'angle', 'angle', { slots: SLOTS }),
    linkage('cam-turns', 'cam-wheel/rotate.x', 'gear', 'angle', 'angle', {
      teethIn: 1,
      teethOut: 1,
      mesh: 'internal',
    }),
    {
      ...linkage('ram-falls', 'ram/translate.y', 'cam', 'angle', 'lift', {
        program: [
          { to: 92, lift: 0, law: 'dwell' },
          { to: 150, lift: -0.46, law: 'modified-sine' },
          { to: 196, law: 'dwell' },
          { to: 262, lift: 0, law: 'cycloidal' },
          { to: 360, law: 'dwell' },
        ],
      }),
      combine: 'add',
    },
    linkage('chute-opens', 'flap/rotate.z', 'cam', 'angle', 'lift', {
      program: [
        { to: 118, lift: 0, law: 'dwell' },
        { to: 142, lift: 38, law: 'poly-345' },
        { to: 190, law: 'dwell' },
        { to: 222, lift: 0, law: 'poly-345' },
        { to: 360, law: 'dwell' },
      ],
    }),
    {
      id: 'spring-shakes',
      target: 'hopper/rotate.z',
      combine: 'add',
      muted: false,
      kind: 'follow',
      input: 'flap/rotate.z',
      frequency: 3.2,
      damping: 0.12,
      start: 0,
      loop: 96,
    },
  ];
}

function parts(): Part[] {
  const { timber, darkTimber, iron, steel, salt, stone, clay, brass, tin } = COLOURS;
  const distance = 1.9;
  const pin = distance * Math.sin(Math.PI / SLOTS);
  const at = (k: number, radius: number, y: number): [number, number, number] => {
    const angle = (2 * Math.PI * k) / SLOTS + Math.PI / SLOTS;
    return [radius * Math.cos(angle), y, radius * Math.sin(angle)];
  };
  return [
    group('master', 'Master', { more: { custom: [{ name: 'angle', value: 0, unit: '°' }] } }),
    ...gathered('floor-frame', 'Frame', [
      solid('slab', 'Slab', box(5.2, 0.16, 3.8), stone, { at: [0.5, 0.08, 0] }),
      solid('column', 'Column', box(0.26, 2.9, 0.3), darkTimber, { at: [-1.95, 1.6, 0] }),
      solid('bracket', 'Bracket', box(1.5, 0.22, 0.24), darkTimber, { at: [-1.3, 2.75, 0] }),
      solid('post', 'Post', cone(0.34, 0.24, 0.7), iron, { at: [0, 0.5, 0] }),
      solid('guide', 'Guide', rod(0.16, 0.5), brass, { at: [-1.1, 2.35, 0] }),
    ]),
    group('table', 'Table', { at: [0, 0.92, 0] }),
    solid('disc', 'Disc', rod(1.5, 0.12), timber, { parent: 'table' }),
    solid('hub', 'Hub', rod(0.3, 0.3), brass, { parent: 'table', at: [0, 0.06, 0] }),
    ...Array.from({ length: SLOTS }, (_, k) => [
      solid(
        `mould-${k}`,
        `Mould ${k + 1}`,
        {
          shape: 'lathe',
          profile: [
            [0.2, 0],
            [0.26, 0],
            [0.3, 0.3],
            [0.25, 0.3],
            [0.21, 0.06],
            [0, 0.06],
          ],
        },
        tin,
        {
          parent: 'table',
          at: at(k, 1.1, 0.06),
        },
      ),
      solid(`slot-${k}`, 'Slot', box(0.86, 0.1, 0.1), iron, {
        parent: 'table',
        at: [1.1 * Math.cos((2 * Math.PI * k) / SLOTS), -0.09, 1.1 * Math.sin((2 * Math.PI * k) / SLOTS)],
        turn: [0, (-360 * k) / SLOTS, 0],
      }),
    ]).flat(),
    group('driver', 'Driver', { at: [distance, 0.7, 0], turn: [0, 0, 0] }),
    solid('driver-disc', 'Driver disc', rod(0.62, 0.1), clay, { parent: 'driver', at: [0, -0.06, 0] }),
    solid('driver-arm', 'Arm', box(pin + 0.2, 0.09, 0.2), steel, {
      parent: 'driver',
      at: [-pin / 2, 0.04, 0],
    }),
    solid('driver-pin', 'Pin', rod(0.07, 0.26), iron, { parent: 'driver', at: [-pin, 0.12, 0] }),
    solid('driver-post', 'Driver post', cone(0.2, 0.14, 0.5), iron, { at: [distance, 0.38, 0] }),
    group('ram', 'Ram', { at: [-1.1, 1.92, 0] }),
    solid('ram-rod', 'Rod', rod(0.07, 1.1), steel, { parent: 'ram', at: [0, 0.4, 0] }),
    solid('ram-head', 'Head', cone(0.17, 0.2, 0.22), iron, { parent: 'ram', at: [0, -0.14, 0] }),
    group('cam-wheel', 'Cam', { at: [-1.1, 2.98, 0.34] }),
    solid(
      'cam-body',
      'Cam body',
      {
        shape: 'extrude',
        outline: Array.from({ length: 40 }, (_, i): [number, number] => {
          const angle = (2 * Math.PI * i) / 40;
          const radius = 0.24 + 0.1 * Math.max(0, Math.cos(angle)) ** 2;
          return [radius * Math.cos(angle), radius * Math.sin(angle)];
        }),
        depth: 0.1,
      },
      brass,
      { parent: 'cam-wheel', turn: [0, 90, 0] },
    ),
    group('hopper', 'Hopper', { at: [-0.1, 2.5, -1.36] }),
    solid(
      'funnel',
      'Funnel',
      {
        shape: 'lathe',
        profile: [
          [0.14, -0.5],
          [0.18, -0.5],
          [0.5, 0.2],
          [0.5, 0.3],
          [0.44, 0.3],
          [0.12, -0.46],
        ],
      },
      clay,
      { parent: 'hopper' },
    ),
    solid(
      'heap',
      'Salt',
      {
        shape: 'lathe',
        profile: [
          [0.44, 0],
          [0.2, 0.2],
          [0, 0.26],
        ],
      },
      salt,
      { parent: 'hopper', at: [0, 0.24, 0] },
    ),
    group('flap', 'Flap', { parent: 'hopper', at: [-0.16, -0.52, 0] }),
    solid('flap-plate', 'Plate', box(0.34, 0.03, 0.3), steel, { parent: 'flap', at: [0.16, 0, 0] }),
    solid('hopper-leg', 'Hopper post', box(0.16, 2.2, 0.16), darkTimber, { at: [-0.1, 1.2, -1.98] }),
    solid('hopper-arm', 'Hopper arm', box(0.12, 0.12, 0.7), darkTimber, { at: [-0.1, 2.28, -1.7] }),
    camera('shot', 'Shot camera', 34, { at: [3.9, 3.9, 7.6], turn: [-18, 27, 0] }),
  ];
}
