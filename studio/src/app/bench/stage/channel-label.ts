import {
  channelKind,
  partOf,
  propertyUnit,
  splitChannel,
  curveRef,
  type ChannelKind,
  type Limit,
  type Part,
  type Project,
} from '@kaizen/core';

/** How a channel is called and marked on the screen. */
export interface ChannelLabel {
  /** The part's name and the channel's, for a line by itself. */
  readonly full: string;
  /** Under its part: "turn Y". */
  readonly short: string;
  /** Beside its badge: "turn". */
  readonly plain: string;
  readonly badge: string;
  /** The class that colours badge and curve: x, y, z, q, f, c. */
  readonly tone: 'x' | 'y' | 'z' | 'q' | 'f' | 'c';
  readonly unit: string;
  readonly kind: ChannelKind;
}

const WORDS: Readonly<Record<string, string>> = { translate: 'place', rotate: 'turn', scale: 'size' };
const LOOKS: Readonly<Record<string, string>> = {
  visible: 'visible',
  'camera.focalLength': 'focal length',
  'camera.focusDistance': 'focus',
  'camera.fStop': 'f-stop',
  'light.intensity': 'intensity',
  'light.sky': 'sky',
  'material.roughness': 'roughness',
  'material.metallic': 'metal',
};

/** What a label is read from. */
type Named = Pick<Project, 'parts'>;

const labels = new WeakMap<Part, Map<string, ChannelLabel>>();

export function channelLabel(project: Named, channel: string): ChannelLabel {
  const ref = curveRef(channel);
  if (ref.of === 'weight') return weightLabel(project, ref.channel, ref.treatment);
  const { part: id, property } = splitChannel(channel);
  const part = partOf(project, id);
  return part ? labelOf(part, property) : channelLabelOf(id, property);
}

/** The label of a part's channel, the same object each time. */
export function labelOf(part: Part, property: string): ChannelLabel {
  let ofPart = labels.get(part);
  if (!ofPart) labels.set(part, (ofPart = new Map<string, ChannelLabel>()));
  let label = ofPart.get(property);
  if (!label) ofPart.set(property, (label = channelLabelOf(part, property)));
  return label;
}

/** A treatment's weight: a number without a unit beside the channel that it is of. */
function weightLabel(project: Named, channel: string, index: number): ChannelLabel {
  const owner = channelLabel(project, channel);
  const plain = `weight of treatment ${index + 1}`;
  return {
    full: `${owner.full}, ${plain}`,
    short: plain,
    plain,
    badge: 'w',
    tone: 'c',
    unit: '',
    kind: 'look',
  };
}

/** The same where the part is at hand; else its id is its name. */
export function channelLabelOf(owner: Part | string, property: string): ChannelLabel {
  const name = typeof owner === 'string' ? owner : owner.name;
  const look = lookOf(typeof owner === 'string' ? undefined : owner, property);
  const { short, plain, badge, tone, unit, kind } = look;
  return { full: `${name}, ${short}`, short, plain, badge, tone, unit, kind };
}

/** All of a label but the part's name. */
type PropertyLook = Omit<ChannelLabel, 'full'>;

const looks = new Map<string, PropertyLook>();

/** How a property is called and marked; worked out once where every part has it alike, which those have not that bear names. */
function lookOf(part: Part | undefined, property: string): PropertyLook {
  let look = looks.get(property);
  if (look) return look;
  look = makeLook(part, property);
  if (look.kind !== 'custom' && !property.startsWith('morph.')) looks.set(property, look);
  return look;
}

function makeLook(part: Part | undefined, property: string): PropertyLook {
  const kind = channelKind(property);
  const unit = propertyUnit(property, part);
  const [group = '', axis = ''] = property.split('.');
  const word = WORDS[group];
  if (word) {
    const letter = axis.toUpperCase();
    return { short: `${word} ${letter}`, plain: word, badge: letter, tone: axis as 'x', unit, kind };
  }
  const plain = plainName(property);
  const tone = kind === 'squash' ? 'q' : kind === 'custom' ? 'c' : 'f';
  return { short: plain, plain, badge: tone === 'f' ? plain.charAt(0) : tone, tone, unit, kind };
}

function plainName(property: string): string {
  if (property.startsWith('custom.')) return decodeURIComponent(property.slice('custom.'.length));
  if (property.startsWith('morph.')) return decodeURIComponent(property.slice('morph.'.length));
  const [, block = '', letter = ''] = property.split('.');
  const colours: Readonly<Record<string, string>> = {
    baseColor: 'colour',
    color: 'colour',
    emissive: 'glow',
  };
  if (colours[block])
    return `${colours[block]} ${{ r: 'red', g: 'green', b: 'blue', a: 'opacity' }[letter] ?? letter}`;
  return LOOKS[property] ?? property;
}

/** The limits that a channel's part sets it. */
export function limitOf(project: Named, channel: string): Limit | undefined {
  const { part: id, property } = splitChannel(channel);
  return partOf(project, id)?.limits[property];
}
