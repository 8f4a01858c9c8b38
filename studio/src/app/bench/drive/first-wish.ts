import { channelName, splitChannel, type DriverName, type DriverWish, type Project } from '@kaizen/core';
import { LINKAGE_WORDS } from './driver-words';

/** What drives what: a channel of `own` is driven by the channel `input` of `part`, in a shot that lasts over the range. */
interface Driving {
  readonly own: string;
  readonly part: string;
  readonly input: string;
  readonly range: Pick<Project['range'], 'start' | 'end' | 'loop'>;
}

/** What a driver of a kind says when it is made by a hand. */
export function firstWish(kind: DriverName, { own, part, input, range }: Driving): DriverWish {
  switch (kind) {
    case 'echo':
      return { input, delay: 3, gain: 0.5 };
    case 'follow':
      return {
        input,
        frequency: 1.2,
        damping: 0.4,
        start: range.start,
        loop: range.loop ? Math.max(1, Math.round(range.end - range.start)) : null,
      };
    case 'map':
      return {
        input,
        curve: {
          keys: [plainKey(0, 0), plainKey(1, 1)],
          before: { mode: 'hold', count: null, pin: null },
          after: { mode: 'hold', count: null, pin: null },
        },
      };
    case 'distance':
      return { of: own, to: part };
    case 'expression':
      return { inputs: { x: input }, expression: 'x' };
    case 'linkage': {
      const turn = splitChannel(input).property.startsWith('rotate.') ? input : channelName(part, 'rotate.y');
      return {
        linkage: 'gear',
        inputs: { angle: turn },
        output: 'angle',
        params: LINKAGE_WORDS['gear']!.params,
      };
    }
  }
}

/** A key of a map, straight on both sides. */
function plainKey(frame: number, value: number): object {
  const side = { mode: 'linear', slope: 0, reach: 1 / 3 };
  return { frame, value, in: side, out: side, joined: false, leg: { kind: 'curve' } };
}
