import type { DriverName } from '@kaizen/core';

/** The kinds of drivers as a hand makes them: what the button says, what it does, and what is asked for. */
export const DRIVER_WORDS: Readonly<
  Record<DriverName, { readonly label: string; readonly tip: string; readonly ask: string }>
> = {
  echo: {
    label: 'Echo …',
    tip: 'Repeats another channel, late and less: pick what it echoes',
    ask: 'Pick what %s echoes',
  },
  follow: {
    label: 'Follow …',
    tip: 'Follows another channel like a mass on a spring: pick what it follows',
    ask: 'Pick what %s follows',
  },
  linkage: {
    label: 'Mechanism …',
    tip: 'Gears, belts, cranks, screws, cams: pick what turns or moves it',
    ask: 'Pick what moves %s',
  },
  map: {
    label: 'Map …',
    tip: 'A curve over another channel’s value: pick that channel',
    ask: 'Pick what %s is read from',
  },
  distance: {
    label: 'Distance …',
    tip: 'How far another part is from this one: pick that part',
    ask: 'Pick the part whose distance gives %s',
  },
  expression: {
    label: 'Formula …',
    tip: 'A formula of another channel: pick that channel; more can be named later',
    ask: 'Pick what the formula of %s reads',
  },
};

/** The mechanisms in words, what they are for, and the dimensions that a new one begins with. */
export const LINKAGE_WORDS: Readonly<
  Record<string, { readonly label: string; readonly params: Readonly<Record<string, unknown>> }>
> = {
  gear: { label: 'gears', params: { teethIn: 17, teethOut: 34 } },
  belt: { label: 'belt or chain', params: { radiusIn: 0.2, radiusOut: 0.4, crossed: false } },
  worm: { label: 'worm', params: { starts: 1, teeth: 30 } },
  planetary: {
    label: 'planetary gears',
    params: { sun: 20, ring: 60, from: 'sun', to: 'carrier', held: 'ring' },
  },
  rack: { label: 'rack and pinion, rope on a drum', params: { radius: 0.25 } },
  wheel: { label: 'wheel from distance', params: { radius: 0.4 } },
  screw: { label: 'screw', params: { lead: 0.05 } },
  'slider-crank': { label: 'crank and rod', params: { crank: 0.2, rod: 0.8 } },
  'scotch-yoke': { label: 'scotch yoke', params: { crank: 0.2 } },
  'four-bar': { label: 'four bars', params: { ground: 1, crank: 0.3, coupler: 0.9, rocker: 0.7 } },
  'quick-return': { label: 'quick return', params: { crank: 0.2, distance: 0.6 } },
  geneva: { label: 'Geneva wheel', params: { slots: 4 } },
  cam: {
    label: 'cam',
    params: {
      program: [
        { to: 90, lift: 0.1, law: 'cycloidal' },
        { to: 180, law: 'dwell' },
        { to: 270, lift: 0, law: 'cycloidal' },
        { to: 360, law: 'dwell' },
      ],
    },
  },
  'universal-joint': { label: 'universal joint', params: { bend: 20 } },
  'two-link': { label: 'arm of two links', params: { upper: 1, lower: 0.8 } },
  scissor: { label: 'scissor lift', params: { link: 1, stages: 3 } },
};

/** What the numbers of drivers and mechanisms are called, and what they do. */
export const NUMBER_WORDS: Readonly<Record<string, { readonly label: string; readonly tip: string }>> = {
  input: { label: 'From', tip: 'The channel that it reads' },
  delay: { label: 'Later by', tip: 'Frames by which it comes later' },
  gain: { label: 'Strength', tip: '1: as much as the input; less: weaker; below 0: the other way round' },
  from: { label: 'Only from', tip: 'What the input did before this frame is not copied' },
  to: { label: 'Only up to', tip: 'What the input does after this frame is not copied' },
  frequency: { label: 'Swings', tip: 'How quickly it catches up: swings a second' },
  damping: { label: 'Damping', tip: '1: it comes to rest without swinging past; less: it swings' },
  start: { label: 'Begins at', tip: 'The frame on which it is at rest with its input' },
  loop: { label: 'Closes over', tip: 'Frames of a loop over which it closes; off: it does not repeat' },
  of: { label: 'Of', tip: 'The part from which it is measured' },
  axis: { label: 'Along', tip: 'An axis of that part along which it is measured; none: straight' },
  teethIn: { label: 'Teeth, driving', tip: 'Teeth of the gear that drives' },
  teethOut: { label: 'Teeth, driven', tip: 'Teeth of the gear that is driven' },
  mesh: { label: 'Mesh', tip: 'External: the other way round; internal: the same way round' },
  phase: { label: 'Turned by', tip: 'Degrees by which it is turned where the input is 0' },
  radiusIn: { label: 'Radius, driving', tip: 'Of the pulley that drives' },
  radiusOut: { label: 'Radius, driven', tip: 'Of the pulley that is driven' },
  crossed: { label: 'Crossed', tip: 'A crossed belt turns the other way round' },
  rod: { label: 'Rod', tip: 'From the crank’s pin to what it pushes' },
  crank: { label: 'Crank', tip: 'From its centre to its pin' },
  lead: { label: 'Lead', tip: 'How far one turn moves it' },
  point: { label: 'Coupler point', tip: 'Along and left of the coupler, from the crank’s pin' },
};

/** A name of the file as a label, where there are no words of its own. */
export function wordsFor(name: string): { readonly label: string; readonly tip: string } {
  return NUMBER_WORDS[name] ?? { label: name.charAt(0).toUpperCase() + name.slice(1), tip: name };
}

const SIDES: Readonly<Record<string, string>> = { '1': 'one side', '-1': 'other side' };

/** A value of a choice in words. */
export function choiceLabel(value: unknown): string {
  const text = String(value);
  return SIDES[text] ?? (/^-?[xyz]$/.test(text) ? text.replace('-', '−').toUpperCase() : text);
}
