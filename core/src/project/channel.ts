import type { CameraPart, Part } from './types';

/**
 * Channels by name: `<partId>/<property>`, contract §2. A property that holds a free name (`custom.…`,
 * `morph.…`) has it percent-encoded outside `[A-Za-z0-9 ._-]`.
 */
export type ChannelKind = 'place' | 'turn' | 'size' | 'squash' | 'look' | 'custom';

export interface ChannelParts {
  readonly part: string;
  readonly property: string;
}

export function channelName(part: string, property: string): string {
  return `${part}/${property}`;
}

export function splitChannel(channel: string): ChannelParts {
  const slash = channel.indexOf('/');
  return { part: channel.slice(0, slash), property: channel.slice(slash + 1) };
}

/** A raw custom or morph name as it stands in a channel. */
export function encodeName(name: string): string {
  return name
    .replace(/\p{Surrogate}/gu, '\uFFFD')
    .replace(/[^A-Za-z0-9 ._-]/gu, (character) =>
      encodeURIComponent(character).replace(/[!'()*~]/g, percent),
    );
}

function percent(character: string): string {
  return '%' + character.charCodeAt(0).toString(16).toUpperCase();
}

export const TRANSFORM_PROPERTIES = [
  'translate.x',
  'translate.y',
  'translate.z',
  'rotate.x',
  'rotate.y',
  'rotate.z',
  'scale.x',
  'scale.y',
  'scale.z',
  'squash',
  'visible',
] as const;

/** The place of each of them: every part has these, first and in this order. */
export const TRANSFORM_PLACES: ReadonlyMap<string, number> = new Map(
  TRANSFORM_PROPERTIES.map((property, place) => [property, place]),
);

const LIGHT_COLOUR = ['light.color.r', 'light.color.g', 'light.color.b'];
const BASE_COLOUR = [
  'material.baseColor.r',
  'material.baseColor.g',
  'material.baseColor.b',
  'material.baseColor.a',
];
const GLOW = ['material.emissive.r', 'material.emissive.g', 'material.emissive.b'];

export interface PropertyRest {
  readonly property: string;
  readonly rest: number;
}

/** Every channel a part has with its rest value, transforms first, in one fixed order. */
export function partProperties(part: Part): readonly PropertyRest[] {
  let list = propertyCache.get(part);
  if (!list) {
    list = listProperties(part);
    propertyCache.set(part, list);
  }
  return list;
}
const propertyCache = new WeakMap<Part, readonly PropertyRest[]>();

function listProperties(part: Part): readonly PropertyRest[] {
  const { translate: t, rotate: r, scale: s } = part.rest;
  const transform = [...t, ...r, ...s, 0, part.visible];
  const list: PropertyRest[] = TRANSFORM_PROPERTIES.map((property, i) => ({
    property,
    rest: transform[i] ?? 0,
  }));
  const add = (property: string, rest: number) => list.push({ property, rest });
  switch (part.kind) {
    case 'camera':
      add('camera.focalLength', part.camera.focalLength);
      add('camera.focusDistance', part.camera.focusDistance);
      add('camera.fStop', part.camera.fStop);
      break;
    case 'light':
      add('light.intensity', part.light.intensity);
      part.light.color.forEach((value, i) => add(LIGHT_COLOUR[i]!, value));
      if (part.light.sky !== undefined) add('light.sky', part.light.sky);
      break;
    case 'mesh':
      part.material.baseColor.forEach((value, i) => add(BASE_COLOUR[i]!, value));
      add('material.roughness', part.material.roughness);
      add('material.metallic', part.material.metallic);
      part.material.emissive.forEach((value, i) => add(GLOW[i]!, value));
      for (const morph of part.morphs) add(`morph.${encodeName(morph.name)}`, morph.value);
      break;
    case 'group':
    case 'path':
      break;
  }
  for (const custom of part.custom) add(`custom.${encodeName(custom.name)}`, custom.value);
  return list;
}

/** Whether a part is a camera. */
export function isCamera(part: Part): part is CameraPart {
  return part.kind === 'camera';
}

/** A channel's rest value, or null where the part has no such property. */
export function restValue(part: Part, property: string): number | null {
  return partProperties(part).find((entry) => entry.property === property)?.rest ?? null;
}

/** Whether a property is among those that a part's matrix is made of. */
export function isTransform(property: string): boolean {
  return property !== 'visible' && TRANSFORM_PLACES.has(property);
}

/** Whether a channel is on or off and nothing between: its keys hold until the next. */
export function isOnOff(property: string): boolean {
  return property === 'visible';
}

export function channelKind(property: string): ChannelKind {
  if (property.startsWith('translate.')) return 'place';
  if (property.startsWith('rotate.')) return 'turn';
  if (property.startsWith('scale.')) return 'size';
  if (property === 'squash') return 'squash';
  if (property.startsWith('custom.')) return 'custom';
  return 'look';
}

/** The unit a property's number is in, as shown and typed: m, °, mm, lx … or none. */
export function propertyUnit(property: string, part?: Part): string {
  const kind = channelKind(property);
  if (kind === 'place' || property === 'camera.focusDistance') return 'm';
  if (kind === 'turn') return '°';
  if (property === 'camera.focalLength') return 'mm';
  return part?.custom.find((entry) => `custom.${encodeName(entry.name)}` === property)?.unit ?? '';
}

const partsById = new WeakMap<readonly Part[], ReadonlyMap<string, Part>>();

/** The part of an id, found at once in a project of any size; undefined where there is none. */
export function partOf({ parts }: { readonly parts: readonly Part[] }, id: string): Part | undefined {
  let index = partsById.get(parts);
  if (!index) partsById.set(parts, (index = new Map(parts.map((part) => [part.id, part]))));
  return index.get(id);
}
