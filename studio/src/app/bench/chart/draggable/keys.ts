import { Injectable, inject } from '@angular/core';
import { curveOf, curvesOf, leastOf, shiftFrame, type Curve, type KeyRef } from '@kaizen/core';
import { Studio } from '../../../state/studio';
import type { Drag } from '../../../ui/follow-drag';
import { channelLabel } from '../../stage/channel-label';
import { sheetFor } from '../../stage/picking';
import { ChartModel } from '../../plot/chart-model';
import { chosenFrames } from '../../plot/chosen';
import { CLICK_SLOP } from '../../plot/drag';
import { firstKeyFrom } from '../../plot/pegs';
import { frameAt, valueAt, valueStrips, xOf, yOf, type Plot, type Strip } from '../../plot/plot';
import { curvesOfRow } from '../../plot/rows';
import { Snapper } from '../../plot/snapper';
import { draggedKeys, keyChip, type Travel } from './key-drag';
import { rangeOfKeys } from './key-range';
import { channelsOf, type Draggable, type Hand, type HitScene, type Place } from './draggable';

interface KeysHeld {
  readonly kind: 'keys';
  readonly refs: readonly KeyRef[];
  readonly strip: Strip | null;
  /** Keys of other curves that lie on this one. */
  readonly under?: readonly KeyRef[];
}
const PEG_REACH = 6;
const KEY_REACH = 8;
/** Nearer to each other than this, in pixels, keys lie on each other. */
const ON_EACH_OTHER = 0.8;

/** Keys in the plot, pegs in the rows: chosen by a press, moved in time and value with all that are chosen. */
@Injectable({ providedIn: 'root' })
export class KeysHand implements Hand<KeysHeld> {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);
  private readonly snapper = inject(Snapper);

  begin(scene: HitScene, down: PointerEvent, target: KeysHeld): Drag {
    const adding = down.ctrlKey || down.metaKey;
    const { bench, project, program } = scene;
    const { refs, strip } = target;
    const all = refs.every((ref) => isAmong(bench.keys, ref));
    const keys = chosenAfter(bench.keys, refs, adding);
    this.studio.pick({ keys, handles: adding ? bench.handles : [] });
    this.studio.set({ sheet: sheetFor(bench.sheet) });
    const grabbed = refs[0]!;
    const rising = strip?.channels ?? [];
    const targets = this.snapper.targets(keys);
    const ranging = down.shiftKey && bench.keys.length > 0;
    const what =
      keys.length === 1 ? `a key of ${channelLabel(project, grabbed.channel).short}` : `${keys.length} keys`;
    const unit = strip ? (strip.labels[0]?.unit ?? '') : null;
    let dragged = false;
    return {
      move: (event) => {
        if (this.studio.readOnly() || (adding && all)) return;
        dragged ||= Math.hypot(event.clientX - down.clientX, event.clientY - down.clientY) > CLICK_SLOP;
        if (!dragged) return;
        const travel = this.travel(down, event, grabbed.frame, strip, targets);
        const label = `${travel.copy ? 'Copy' : 'Move'} ${what}`;
        const chip = { x: event.offsetX, y: event.offsetY, text: keyChip(project, grabbed, travel, unit) };
        this.model.showDrag(
          { label, edit: (now) => draggedKeys(now, keys, rising, travel) },
          { chip, box: null, old: program, channels: channelsOf(keys) },
        );
      },
      end: () => {
        this.model.keepDrag();
        if (dragged) return;
        if (ranging) this.studio.pick({ keys: rangeOfKeys(project, bench.keys, refs) });
        else if (all && !adding) this.studio.pick({ keys: nextUnder(target), handles: [] });
      },
      cancel: () => {
        this.model.stopShowing();
        this.studio.pick({ keys: bench.keys, handles: bench.handles, channels: bench.channels });
      },
    };
  }

  /** From where a drag began to where it is: whole frames for the key grabbed; Shift keeps the axis that went further. */
  private travel(
    down: PointerEvent,
    event: PointerEvent,
    grabbedFrame: number,
    strip: Strip | null,
    targets: readonly number[],
  ): Travel {
    const plot = this.model.plot();
    const shift = event.shiftKey;
    const [dx, dy] = [event.clientX - down.clientX, event.clientY - down.clientY];
    const alongTime = !shift || Math.abs(dx) >= Math.abs(dy);
    const alongValue = !shift || Math.abs(dy) > Math.abs(dx);
    const raw = frameAt(plot, dx) - plot.axis.first;
    const snapped = shiftFrame(this.snapper.snap(grabbedFrame + raw, targets, event), -grabbedFrame);
    const value = strip ? valueAt(strip, strip.top + dy) - valueAt(strip, strip.top) : 0;
    return { frames: alongTime ? snapped : 0, value: alongValue ? value : 0, copy: event.altKey };
  }
}

function isAmong(keys: readonly KeyRef[], { channel, frame }: KeyRef): boolean {
  return keys.some((key) => key.channel === channel && key.frame === frame);
}

/** What is chosen after a press on keys: those alone, or all that were chosen with them; Ctrl adds and takes away. */
function chosenAfter(
  chosen: readonly KeyRef[],
  pressed: readonly KeyRef[],
  adding: boolean,
): readonly KeyRef[] {
  if (pressed.every((ref) => isAmong(chosen, ref)))
    return adding ? chosen.filter((key) => !isAmong(pressed, key)) : chosen;
  return adding ? [...chosen, ...pressed.filter((ref) => !isAmong(chosen, ref))] : pressed;
}

/** A click on a chosen key: of keys that lie on each other the next one, else the key itself alone. */
function nextUnder({ refs, under }: KeysHeld): readonly KeyRef[] {
  const [ref] = refs;
  if (!ref || refs.length > 1 || !under || under.length < 2) return refs;
  return [under[(under.indexOf(ref) + 1) % under.length]!];
}

/** All keys on the one frame nearest to a place, within reach. */
function pegsNear(
  plot: Plot,
  curves: readonly Pick<Curve, 'channel' | 'keys'>[],
  x: number,
): KeysHeld | null {
  let nearest = PEG_REACH;
  let frame: number | null = null;
  const [from, to] = [frameAt(plot, x - PEG_REACH), frameAt(plot, x + PEG_REACH)];
  for (const { keys } of curves) {
    for (let i = firstKeyFrom(keys, from); i < keys.length && keys[i]!.frame <= to; i++) {
      const distance = Math.abs(xOf(plot, keys[i]!.frame) - x);
      if (distance > nearest) continue;
      nearest = distance;
      frame = keys[i]!.frame;
    }
  }
  if (frame === null) return null;
  const found = frame;
  const refs = curves.flatMap(({ channel, keys }) =>
    keys[firstKeyFrom(keys, found)]?.frame === found ? [{ channel, frame: found }] : [],
  );
  return { kind: 'keys', refs, strip: null };
}

function dotNear({ plot, project, bench }: HitScene, strip: Strip, x: number, y: number): KeysHeld | null {
  const [from, to] = [frameAt(plot, x - KEY_REACH), frameAt(plot, x + KEY_REACH)];
  const found: { readonly ref: KeyRef; readonly distance: number }[] = [];
  for (const channel of strip.channels) {
    const keys = curveOf(project, channel)?.keys ?? [];
    for (let i = firstKeyFrom(keys, from); i < keys.length && keys[i]!.frame <= to; i++) {
      const { frame, value } = keys[i]!;
      const distance = Math.hypot(xOf(plot, frame) - x, yOf(strip, value) - y);
      if (distance <= KEY_REACH) found.push({ ref: { channel, frame }, distance });
    }
  }
  if (found.length === 0) return null;
  const least = leastOf(found.map(({ distance }) => distance));
  const there = found.filter(({ distance }) => distance <= least + ON_EACH_OTHER).map(({ ref }) => ref);
  const isChosen = ({ channel, frame }: KeyRef) => chosenFrames(bench.keys, channel).has(frame);
  const best = there.find(isChosen) ?? there[0]!;
  return { kind: 'keys', refs: [best], strip, under: there };
}

function hit(scene: HitScene, { area, strip, row, x, y }: Place): KeysHeld | null {
  const { plot, project } = scene;
  if (area === 'ticks') return row ? pegsNear(plot, curvesOfRow(row), x) : null;
  if (area === 'values') return strip && dotNear(scene, strip, x, y);
  const drawn = valueStrips(plot).flatMap((each) => each.channels);
  return pegsNear(plot, curvesOf(project, drawn), x);
}

export const keys: Draggable<KeysHeld> = {
  kind: 'keys',
  areas: ['ticks', 'pegs', 'values'],
  cursor: 'grab',
  hit,
  hand: KeysHand,
};
