import { Injectable, inject } from '@angular/core';
import {
  greatestOf,
  leastOf,
  scaleKeys,
  shiftFrame,
  type HandleRef,
  type KeyRef,
  type Project,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { channelLabel } from '../channel-label';
import { rangeOfKeys } from './key-range';
import { CLICK_SLOP, type Drag } from '../plot/drag';
import { ChartModel } from '../plot/chart-model';
import type { HitScene, Target } from './target';
import { draggedHandles, draggedKeys, handleChip, keyChip, type Travel } from './key-drag';
import { frameAt, valueAt, type Strip } from '../plot/plot';
import { Snapper } from '../plot/snapper';
import { shownFrame } from '../../ui/amount';
import { sheetFor } from '../picking';

/** Dragging keys and handles: shown on the project as it was when the drag began, kept at release as one edit. */
@Injectable({ providedIn: 'root' })
export class ChartDrags {
  private readonly studio = inject(Studio);
  private readonly model = inject(ChartModel);
  private readonly snapper = inject(Snapper);

  keys(scene: HitScene, down: PointerEvent, target: Target & { kind: 'keys' }): Drag {
    const adding = down.ctrlKey || down.metaKey;
    const { bench, project, program } = scene;
    const isChosen = (ref: KeyRef) =>
      bench.keys.some((key) => key.channel === ref.channel && key.frame === ref.frame);
    const all = target.refs.every(isChosen);
    const before = { keys: bench.keys, handles: bench.handles, channels: bench.channels };
    let keys: readonly KeyRef[] = all
      ? bench.keys
      : adding
        ? [...bench.keys, ...target.refs.filter((ref) => !isChosen(ref))]
        : target.refs;
    if (adding && all)
      keys = bench.keys.filter(
        (key) => !target.refs.some((ref) => ref.channel === key.channel && ref.frame === key.frame),
      );
    this.studio.pick({ keys, handles: adding ? bench.handles : [] });
    this.studio.set({ sheet: sheetFor(bench.sheet) });
    const grabbed = target.refs[0]!;
    const channels = target.strip?.channels ?? [];
    const targets = this.snapper.targets(keys);
    const ranging = down.shiftKey && bench.keys.length > 0;
    let dragged = false;
    return {
      move: (event) => {
        if (this.studio.readOnly() || (adding && all)) return;
        dragged ||= Math.hypot(event.clientX - down.clientX, event.clientY - down.clientY) > CLICK_SLOP;
        if (!dragged) return;
        const travel = this.travel(down, event, grabbed.frame, target.strip, targets);
        const label = `${travel.copy ? 'Copy' : 'Move'} ${keys.length === 1 ? `a key of ${channelLabel(project, grabbed.channel).short}` : `${keys.length} keys`}`;
        const unit = target.strip ? (target.strip.labels[0]?.unit ?? '') : null;
        const chip = { x: event.offsetX, y: event.offsetY, text: keyChip(project, grabbed, travel, unit) };
        this.model.showDrag(
          { label, edit: (now) => draggedKeys(now, keys, channels, travel) },
          { chip, box: null, old: program, channels: [...new Set(keys.map((key) => key.channel))] },
        );
      },
      end: () => {
        this.model.keepDrag();
        if (!dragged && ranging) this.studio.pick({ keys: rangeOfKeys(project, bench.keys, target.refs) });
        else if (!dragged && all && !adding) this.studio.pick({ keys: nextUnder(target), handles: [] });
      },
      cancel: () => {
        this.model.stopShowing();
        this.studio.pick(before);
      },
    };
  }

  /** Drags the end of a run of chosen keys: all of them are scaled in time about the other end. */
  run(scene: HitScene, down: PointerEvent, end: 'start' | 'end', grabbed: number): Drag {
    const { bench, program } = scene;
    const frames = bench.keys.map(({ frame }) => frame);
    const about = end === 'end' ? leastOf(frames) : greatestOf(frames);
    const targets = this.snapper.targets(bench.keys);
    const offset = frameAt(this.model.plot(), down.offsetX) - grabbed;
    const channels = [...new Set(bench.keys.map((key) => key.channel))];
    const label = `Scale ${bench.keys.length} keys in time`;
    return {
      move: (event) => {
        if (this.studio.readOnly()) return;
        const to = this.snapper.snap(frameAt(this.model.plot(), event.offsetX) - offset, targets, event);
        const factor = Math.max(0.02, (to - about) / (grabbed - about));
        const text = `f ${shownFrame(grabbed)} → ${shownFrame(about + (grabbed - about) * factor)} · times ${factor.toFixed(2)}`;
        this.model.showDrag(
          { label, edit: (now) => scaleKeys(now, bench.keys, about, factor, bench.time.slopes) },
          { chip: { x: event.offsetX, y: event.offsetY, text }, box: null, old: program, channels },
        );
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
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

  handles(scene: HitScene, down: PointerEvent, handle: HandleRef, strip: Strip): Drag {
    const adding = down.ctrlKey || down.metaKey;
    const { bench, project, program } = scene;
    const same = (other: HandleRef) =>
      other.channel === handle.channel && other.frame === handle.frame && other.side === handle.side;
    const chosen = bench.handles.some(same);
    const before = { handles: bench.handles };
    const handles = adding
      ? chosen
        ? bench.handles.filter((other) => !same(other))
        : [...bench.handles, handle]
      : chosen
        ? bench.handles
        : [handle];
    this.studio.pick({ handles });
    this.studio.set({ sheet: 'key' });
    const unit = strip.labels[strip.channels.indexOf(handle.channel)]?.unit ?? '';
    const label = handles.length === 1 ? 'Move a handle' : `Move ${handles.length} handles`;
    return {
      move: (event) => {
        if (this.studio.readOnly() || (adding && chosen)) return;
        const travel = this.handleTravel(down, event, strip);
        const grabbed = bench.shaping.together ? handle : null;
        const edit = (now: Project) => draggedHandles(now, handles, travel, grabbed);
        const text = handleChip(project, edit(project), handle, unit);
        this.model.showDrag(
          { label, edit },
          {
            chip: { x: event.offsetX, y: event.offsetY, text },
            box: null,
            old: program,
            channels: [...new Set(handles.map((each) => each.channel))],
          },
        );
      },
      end: () => this.model.keepDrag(),
      cancel: () => {
        this.model.stopShowing();
        this.studio.pick(before);
      },
    };
  }

  private handleTravel(down: PointerEvent, event: PointerEvent, strip: Strip) {
    const plot = this.model.plot();
    const [dx, dy] = [event.clientX - down.clientX, event.clientY - down.clientY];
    const keepTime = event.shiftKey && Math.abs(dy) > Math.abs(dx);
    const keepValue = event.shiftKey && !keepTime;
    return {
      frames: keepTime ? 0 : frameAt(plot, dx) - plot.axis.first,
      value: keepValue ? 0 : valueAt(strip, strip.top + dy) - valueAt(strip, strip.top),
    };
  }
}

/** A click on a chosen key: of keys that lie on each other the next one, else the key itself alone. */
function nextUnder({ refs, under }: Target & { kind: 'keys' }): readonly KeyRef[] {
  const [ref] = refs;
  if (!ref || refs.length > 1 || !under || under.length < 2) return refs;
  return [under[(under.indexOf(ref) + 1) % under.length]!];
}
