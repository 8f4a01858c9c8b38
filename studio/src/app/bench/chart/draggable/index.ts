import type { Type } from '@angular/core';
import { boxGrip } from './box-grip';
import { cruise } from './cruise';
import { curve } from './curve';
import { ground } from './ground';
import { handle } from './handle';
import { keys } from './keys';
import { marker } from './marker';
import { playhead } from './playhead';
import { rangeEnd } from './range-end';
import { repeatedKey } from './repeated-key';
import { Reshape } from './reshape';
import { run } from './run';
import { SelectByBox } from './select-by-box';
import { Slide } from './slide';
import { sound } from './sound';
import { speedMark } from './speed-mark';
import { span } from './span';
import { stake } from './stake';
import { thread } from './thread';

export type { Draggable, Hand, HitScene, Place } from './draggable';

/** All that can be pressed or dragged on the Chart. Where several lie at a place, the first of them is meant. */
export const DRAGGABLES = [
  stake,
  rangeEnd,
  marker,
  sound,
  playhead,
  span,
  thread,
  run,
  boxGrip,
  handle,
  keys,
  repeatedKey,
  speedMark,
  cruise,
  curve,
  ground,
] as const;

/** All that takes hold of something on one half of the Chart, with what its hands share. */
export const CHART_HANDS: readonly Type<unknown>[] = [
  ...DRAGGABLES.map(({ hand }) => hand),
  Reshape,
  SelectByBox,
  Slide,
];

/** What lies under a place of the Chart's canvas. */
export type Target = NonNullable<ReturnType<(typeof DRAGGABLES)[number]['hit']>>;
