import { channelName, type ExpressionDriver, type Project } from '../../project';
import { addParts } from '../bring-into';
import { newPart } from '../new-part';

/** The numbers of a sun that a hand sets and keys. */
const NUMBERS = [
  { name: 'hour', value: 10, min: 0, max: 24, unit: 'h' },
  { name: 'day', value: 172, min: 1, max: 365, unit: '' },
  { name: 'latitude', value: 52, min: -90, max: 90, unit: '°' },
  { name: 'brightness', value: 1, min: 0, max: 10, unit: '' },
  { name: 'sky', value: 1, min: 0, max: 1, unit: '' },
  { name: 'height', value: 0, min: -90, max: 90, unit: '°' },
] as const;

/** The sun's declination on a day of the year (Cooper 1969; Duffie and Beckman, Solar Engineering, eq. 1.6.1a), and its hour angle. */
const DECLINATION = '23.45 * sin(360 * (284 + day) / 365)';
const HOUR_ANGLE = '15 * (hour - 12)';

/** Duffie and Beckman, eq. 1.6.5: how high it stands. The horizon is y = 0, south is +z, east is +x. */
const HEIGHT = `asin(clamp(sin(latitude) * sin(${DECLINATION}) + cos(latitude) * cos(${DECLINATION}) * cos(${HOUR_ANGLE}), -1, 1))`;
/** From south towards east: 0 at noon, and no jump while it is up. */
const TURN = `atan2(-cos(${DECLINATION}) * sin(${HOUR_ANGLE}), cos(${DECLINATION}) * sin(latitude) * cos(${HOUR_ANGLE}) - sin(${DECLINATION}) * cos(latitude))`;

/** What the sun's numbers make of the light: its direction, how strong and how warm it is, and how bright the sky. */
const DRIVEN: readonly (readonly [property: string, inputs: readonly string[], expression: string])[] = [
  ['custom.height', ['hour', 'day', 'latitude'], HEIGHT],
  ['rotate.x', ['height'], '-height'],
  ['rotate.y', ['hour', 'day', 'latitude'], TURN],
  // Direct light of a clear sky through so much air (IES Lighting Handbook: exp(−0.21/sin h)), 1 overhead.
  [
    'light.intensity',
    ['height', 'brightness'],
    'height > 0 ? brightness * exp(0.21 - 0.21 / sin(height)) : 0',
  ],
  ['light.color.g', ['height'], 'mix(0.5, 1, smoothstep(0, 25, height))'],
  ['light.color.b', ['height'], 'mix(0.2, 1, smoothstep(0, 35, height))'],
  // From the end of civil twilight, 6° below the horizon.
  ['light.sky', ['height', 'sky'], 'sky * smoothstep(-6, 12, height)'],
];

/**
 * Adds a sun: a directional light that hour, day and latitude turn, with the brightness of the sky. Its numbers are channels; what
 * follows from them is driven by formulas that can be read and changed like any others.
 */
export function addSun(project: Project): { readonly project: Project; readonly added: readonly string[] } {
  const light = newPart('light', 'Sun');
  if (light.kind !== 'light') return { project, added: [] };
  const sun = {
    ...light,
    id: 'sun',
    rest: { ...light.rest, translate: [0, 6, 0] as const, rotate: [-60, 0, 0] as const },
    turnOrder: 'YXZ' as const,
    light: { ...light.light, sky: 1 },
    custom: NUMBERS,
  };
  const { project: withSun, added } = addParts(project, { parts: [sun], assets: [] });
  const id = added[0]!;
  const taken = new Set(project.drivers.map((driver) => driver.id));
  const drivers = DRIVEN.map(([property, inputs, expression]): ExpressionDriver => {
    const base = `${id}-${property.replaceAll('.', '-')}`;
    let free = base;
    for (let n = 2; taken.has(free); n++) free = `${base}-${n}`;
    taken.add(free);
    return {
      id: free,
      kind: 'expression',
      target: channelName(id, property),
      combine: 'replace',
      muted: false,
      inputs: Object.fromEntries(inputs.map((name) => [name, channelName(id, `custom.${name}`)])),
      expression,
    };
  });
  return { project: { ...withSun, drivers: [...withSun.drivers, ...drivers] }, added };
}
