import { Injectable, inject } from '@angular/core';
import { curveOf, setRange, splitChannel, type KeyRef, type Project } from '@kaizen/core';
import { CommandRegistry } from '../../commands/registry';
import { Studio } from '../../state/studio';
import { shownFrame } from '../../ui/amount';
import { KeyInserter } from '../key-inserter';
import { Stage } from '../stage';
import { CLICK_SLOP, NOTHING_SHOWN, type Drag } from '../plot/drag';
import { ChartDrags } from './chart-drags';
import { ChartModel } from '../plot/chart-model';
import { curvesOfRow, hitChart, keysInBox, rowAt } from './hit';
import type { HitScene, Target } from './target';
import { MarkDrags } from '../ruler/mark-drags';
import { BoxDrags } from './box-drags';
import { SpeedDrags } from './speed-drags';
import { Snapper } from '../plot/snapper';
import { TimeTools } from '../time/time-tools';
import { frameAt, stripAt, valueAt } from '../plot/plot';
import { panAxis } from '../plot/time-axis';
import { sheetFor, toggled } from '../picking';

/** What the pointer does on the Chart: scrubbing, picking, dragging keys and handles, box selection, panning and zooming. */
@Injectable({ providedIn: 'root' })
export class ChartGestures {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly model = inject(ChartModel);
  private readonly drags = inject(ChartDrags);
  private readonly inserter = inject(KeyInserter);
  private readonly speeds = inject(SpeedDrags);
  private readonly boxes = inject(BoxDrags);
  private readonly snapper = inject(Snapper);
  private readonly marks = inject(MarkDrags);
  private readonly pending = inject(TimeTools);
  private readonly registry = inject(CommandRegistry);

  private scene(): HitScene | null {
    const project = this.studio.project();
    const program = this.stage.program();
    if (!project || !program) return null;
    return {
      plot: this.model.plot(),
      project,
      program,
      bench: this.studio.bench(),
      rows: this.model.rows(),
      scrollTop: this.model.scrollTop(),
    };
  }

  hit(x: number, y: number): Target | null {
    const scene = this.scene();
    return scene ? hitChart(scene, x, y) : null;
  }

  press(down: PointerEvent, canvas: HTMLElement): void {
    this.pending.giveWay();
    const scene = this.scene();
    if (!scene || this.model.drag()) return;
    const [x, y] = [down.offsetX, down.offsetY];
    const drag =
      down.button === 1 || this.registry.spaceHeld()
        ? this.pan(down, y)
        : down.button === 0
          ? this.begin(scene, down, x, y)
          : null;
    if (!drag) return;
    down.preventDefault();
    canvas.focus();
    canvas.setPointerCapture(down.pointerId);
    const finish = () => {
      canvas.removeEventListener('pointermove', move);
      canvas.removeEventListener('pointerup', up);
      canvas.removeEventListener('pointercancel', cancel);
      removeEventListener('keydown', escape, true);
    };
    const move = (event: PointerEvent) => drag.move(event);
    const up = (event: PointerEvent) => {
      finish();
      drag.end(event);
    };
    const cancel = () => {
      finish();
      drag.cancel();
    };
    const escape = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return;
      event.stopPropagation();
      event.preventDefault();
      cancel();
    };
    canvas.addEventListener('pointermove', move);
    canvas.addEventListener('pointerup', up);
    canvas.addEventListener('pointercancel', cancel);
    addEventListener('keydown', escape, true);
  }

  private begin(scene: HitScene, down: PointerEvent, x: number, y: number): Drag | null {
    const target = hitChart(scene, x, y);
    if (target.kind === 'ruler') return this.scrub(down);
    if (target.kind === 'stake') return this.marks.stake(target.stake, down);
    // while Stakes show what they would do, only they and the playhead can be moved
    if (this.pending.stakesShow()) return null;
    switch (target.kind) {
      case 'marker':
        return this.marks.marker(target.marker, target.end, down);
      case 'sound':
        return this.marks.sound(target.sound, down);
      case 'run':
        return this.drags.run(scene, down, target.end, target.frame);
      case 'range':
        return this.studio.readOnly() ? this.scrub(down) : this.moveRange(target.end, scene.project, down);
      case 'keys':
        return this.drags.keys(scene, down, target);
      case 'handle':
        return this.drags.handles(scene, down, target.handle, target.strip);
      case 'speed':
        return this.speeds.mark(scene, down, target.mark, target.strip);
      case 'cruise':
        return this.speeds.cruise(scene, down, target.cruise, target.strip);
      case 'box':
        return this.boxes.grip(scene, down, target.grip, target.strip);
      case 'repeated':
        return this.boxSelect(scene, down, () => this.leadTo(target.ref));
      case 'curve':
        return this.boxSelect(scene, down, () =>
          this.pickChannel(this.nextCurve(target), down.ctrlKey || down.metaKey),
        );
      case 'ground':
        return this.boxSelect(scene, down, () => {
          if (!down.ctrlKey && !down.metaKey) this.studio.pick({ keys: [], handles: [] });
        });
    }
  }

  /** The key that a repetition repeats: chosen, and brought into sight. */
  private leadTo(ref: KeyRef): void {
    this.studio.pick({ keys: [ref], handles: [] });
    this.studio.set({ sheet: 'key' });
    const { axis } = this.model.plot();
    if (ref.frame < axis.first || ref.frame > axis.last)
      this.model.axis.set(panAxis(axis, ref.frame - (axis.first + axis.last) / 2));
  }

  /** Curves that lay on each other where a curve was picked last: the next click there takes the next of them. */
  private lying: readonly string[] = [];

  private nextCurve(target: Target & { kind: 'curve' }): string {
    const { channels } = this.studio.bench();
    const [only] = channels;
    const again =
      channels.length === 1 && only !== undefined && this.lying.includes(only) && target.channel === only;
    if (again) return this.lying[(this.lying.indexOf(only) + 1) % this.lying.length]!;
    this.lying = target.all && target.all.length > 1 ? target.all : [];
    return target.channel;
  }

  private pickChannel(channel: string, adding: boolean): void {
    const { channels } = this.studio.bench();
    const next = adding ? toggled(channels, channel) : [channel];
    this.studio.pick({
      channels: next,
      parts: [splitChannel(channel).part],
      ...(adding ? {} : { keys: [], handles: [] }),
    });
  }

  private framed(
    event: { readonly offsetX: number; readonly ctrlKey: boolean },
    targets: readonly number[],
  ): number {
    return this.snapper.snap(frameAt(this.model.plot(), event.offsetX), targets, event);
  }

  private scrub(down: PointerEvent): Drag {
    const before = this.stage.frame();
    const targets = this.snapper.targets();
    this.stage.stop();
    const move = (event: PointerEvent) => this.stage.scrub(this.framed(event, targets));
    move(down);
    return { move, end: () => this.stage.goTo(this.stage.frame()), cancel: () => this.stage.goTo(before) };
  }

  private moveRange(end: 'start' | 'end', project: Project, down: PointerEvent): Drag {
    const grabbed = project.range[end] - frameAt(this.model.plot(), down.offsetX);
    return {
      move: (event) => {
        const frame = Math.round(frameAt(this.model.plot(), event.offsetX) + grabbed);
        const edit = (now: Project) => setRange(now, { [end]: frame });
        const chip = {
          x: event.offsetX,
          y: event.offsetY,
          text: `${end} f ${shownFrame(project.range[end])} → ${shownFrame(edit(project).range[end])}`,
        };
        this.model.showDrag({ label: `Move the range’s ${end}`, edit }, { ...NOTHING_SHOWN, chip });
      },
      end: () => this.model.keepDrag(),
      cancel: () => this.model.stopShowing(),
    };
  }

  private boxSelect(scene: HitScene, down: PointerEvent, click: () => void): Drag {
    const { bench } = scene;
    const adding = down.ctrlKey || down.metaKey;
    let dragged = false;
    return {
      move: (event) => {
        dragged ||= Math.hypot(event.clientX - down.clientX, event.clientY - down.clientY) > CLICK_SLOP;
        if (!dragged) return;
        const box = {
          left: Math.min(down.offsetX, event.offsetX),
          right: Math.max(down.offsetX, event.offsetX),
          top: Math.min(down.offsetY, event.offsetY),
          bottom: Math.max(down.offsetY, event.offsetY),
        };
        const inside = keysInBox(scene, box);
        const kept = adding
          ? bench.keys.filter(
              (key) => !inside.some((ref) => ref.channel === key.channel && ref.frame === key.frame),
            )
          : [];
        this.studio.pick({ keys: [...kept, ...inside], handles: [] });
        this.model.drag.set({ ...NOTHING_SHOWN, box });
      },
      end: () => {
        this.model.stopShowing();
        if (!dragged) click();
        else if (this.studio.bench().keys.length > 0)
          this.studio.set({ sheet: sheetFor(this.studio.bench().sheet) });
      },
      cancel: () => {
        this.model.stopShowing();
        this.studio.pick({ keys: bench.keys, handles: bench.handles });
      },
    };
  }

  private pan(down: PointerEvent, y: number): Drag {
    this.registry.useSpace();
    const strip = stripAt(this.model.plot(), y);
    let last = down;
    return {
      move: (event) => {
        const [dx, dy] = [event.clientX - last.clientX, event.clientY - last.clientY];
        last = event;
        const ticks = this.studio.bench().density === 'ticks';
        const current = strip && stripAt(this.model.plot(), strip.top + 1);
        this.model.panPixels(dx, dy, ticks ? undefined : current);
        if (ticks) this.model.scrollTop.update((top) => Math.max(0, top - dy));
      },
      end: () => undefined,
      cancel: () => undefined,
    };
  }

  /** The wheel zooms at the pointer; with Shift time only, with Ctrl and Shift value only. */
  wheel(event: WheelEvent): void {
    event.preventDefault();
    const delta = event.deltaY || event.deltaX;
    const factor = Math.exp(-delta * 0.0015);
    const valueOnly = event.shiftKey && (event.ctrlKey || event.metaKey);
    if (!valueOnly) this.model.zoomTime(event.offsetX, factor);
    const strip = stripAt(this.model.plot(), event.offsetY);
    if (strip && this.studio.bench().density !== 'ticks' && (valueOnly || !event.shiftKey)) {
      this.model.zoomValue(strip, valueAt(strip, event.offsetY), factor);
    }
  }

  /** Double-click: a key on the curve there, without changing its shape; on the row of a part or kind, on all its curves. */
  doubleClick(event: MouseEvent): void {
    const scene = this.scene();
    const target = scene && hitChart(scene, event.offsetX, event.offsetY);
    if (!target || this.studio.readOnly()) return;
    const channels = this.channelsAt(scene, target, event.offsetY);
    if (channels.length === 0) return;
    const frame = this.framed(event, []);
    const values = channels
      .filter((channel) => !curveOf(scene.project, channel))
      .map((channel) => ({ channel, frame, value: this.stage.valueOf(channel) ?? 0 }));
    const inserts = channels
      .filter((channel) => curveOf(scene.project, channel))
      .map((channel) => ({ channel, frame }));
    this.inserter.insert(inserts, values);
  }

  /** The channels that a double click on a place means. */
  private channelsAt(scene: HitScene, target: Target, y: number): readonly string[] {
    const { program } = scene;
    if (target.kind === 'curve')
      return program.isDriven(program.structure.slots.get(target.channel) ?? -1) ? [] : [target.channel];
    if (target.kind !== 'ground') return [];
    const row = scene.bench.density === 'ticks' ? scene.rows[rowAt(scene, y)] : undefined;
    if (row) return curvesOfRow(row).map(({ channel }) => channel);
    const alone = target.strip?.channels.length === 1 ? target.strip.channels[0] : undefined;
    return alone === undefined ? [] : [alone];
  }
}
