import { Injectable, Injector, inject } from '@angular/core';
import { curveOf } from '@kaizen/core';
import { CommandRegistry } from '../../commands/registry';
import { Studio } from '../../state/studio';
import { followDrag, type Drag } from '../../ui/follow-drag';
import { KeyInserter } from '../posing/key-inserter';
import { Stage } from '../stage/stage';
import { ChartModel } from '../plot/chart-model';
import { frameAt, stripAt, valueAt } from '../plot/plot';
import { curvesOfRow } from '../plot/rows';
import { Snapper } from '../plot/snapper';
import { TimeTools } from '../timing/time-tools';
import { DRAGGABLES, type Draggable, type HitScene, type Target } from './draggable';
import { hitChart, rowAt } from './hit';

/** What the pointer does on the Chart: it takes hold of what lies there, pans and zooms, and adds keys by a double click. */
@Injectable({ providedIn: 'root' })
export class ChartGestures {
  private readonly injector = inject(Injector);
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly model = inject(ChartModel);
  private readonly inserter = inject(KeyInserter);
  private readonly snapper = inject(Snapper);
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
      bench: this.model.bench(),
      rows: this.model.rows(),
      scrollTop: this.model.scrollTop(),
    };
  }

  hit(x: number, y: number): Target | null {
    const scene = this.scene();
    return scene ? hitChart(scene, x, y) : null;
  }

  /** How the pointer looks over a place. */
  cursorAt(x: number, y: number): string {
    const target = this.hit(x, y);
    return target ? draggableOf(target).cursor : 'default';
  }

  press(down: PointerEvent, canvas: HTMLElement): void {
    this.pending.giveWay();
    const scene = this.scene();
    if (!scene || this.model.drag()) return;
    const pans = down.button === 1 || this.registry.spaceHeld();
    const drag = pans ? this.pan(down) : down.button === 0 ? this.begin(scene, down) : null;
    if (!drag) return;
    down.preventDefault();
    canvas.focus();
    followDrag(drag, { element: canvas, pointerId: down.pointerId });
  }

  /** Takes hold of what lies under a press. While Stakes show what they would do, only they and the playhead can be moved. */
  begin(scene: HitScene, down: PointerEvent): Drag | null {
    const target = hitChart(scene, down.offsetX, down.offsetY);
    const draggable = draggableOf(target);
    if (this.pending.stakesShow() && !draggable.duringStakes) return null;
    return this.injector.get(draggable.hand).begin(scene, down, target);
  }

  private pan(down: PointerEvent): Drag {
    this.registry.useSpace();
    const strip = stripAt(this.model.plot(), down.offsetY);
    let last = down;
    return {
      move: (event) => {
        const [dx, dy] = [event.clientX - last.clientX, event.clientY - last.clientY];
        last = event;
        const ticks = this.model.bench().density === 'ticks';
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
    if (strip && this.model.bench().density !== 'ticks' && (valueOnly || !event.shiftKey)) {
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
    const frame = this.snapper.snap(frameAt(this.model.plot(), event.offsetX), [], event);
    const values = channels
      .filter((channel) => !curveOf(scene.project, channel))
      .map((channel) => ({ channel, frame, value: this.stage.valueOf(channel) ?? 0 }));
    const inserts = channels
      .filter((channel) => curveOf(scene.project, channel))
      .map((channel) => ({ channel, frame }));
    this.inserter.insert(inserts, values);
  }

  /** The channels with curves that a place of the canvas means. */
  channelsUnder(event: { readonly offsetX: number; readonly offsetY: number }): readonly string[] {
    const scene = this.scene();
    const target = scene && hitChart(scene, event.offsetX, event.offsetY);
    if (!target) return [];
    const channels = this.channelsAt(scene, target, event.offsetY);
    return channels.filter((channel) => curveOf(scene.project, channel));
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

/** The entry of what was found; the list has one for each kind, so that what it takes is what was found. */
function draggableOf(target: Target): Draggable<Target> {
  return DRAGGABLES.find(({ kind }) => kind === target.kind) as unknown as Draggable<Target>;
}
