import { Injectable, inject } from '@angular/core';
import { Vector3 } from 'three';
import { CommandRegistry } from '../../commands/registry';
import { Studio } from '../../state/studio';
import { PartPicker } from '../stage/picker';
import { partSheetFor, toggled } from '../stage/picking';
import { onPlane, rayThrough, type Eye } from './grip-math';
import { TrailKey } from './draggable/trail-key';
import type { StageScene } from './stage-scene';
import type { ViewCamera } from './view-camera';
import { ViewGrips } from './view-grips';

/** What a press on the view may need of it. */
export interface PressedView {
  readonly scene: StageScene | null;
  readonly view: ViewCamera | null;
  readonly eye: Eye | null;
  readonly corner: DOMRect;
}

/** A press that moved less than this, in pixels, picks. */
const CLICK_SLOP = 4;

/** Presses on the view: what can be dragged is taken hold of, and what is no orbit picks what is under it. */
@Injectable({ providedIn: 'root' })
export class ViewPress {
  private readonly registry = inject(CommandRegistry);
  private readonly trail = inject(TrailKey);
  private readonly grips = inject(ViewGrips);
  private readonly studio = inject(Studio);
  private readonly picker = inject(PartPicker);

  /** Shows what can be dragged under the pointer. */
  hover(event: PointerEvent, { eye, corner }: PressedView): void {
    if (event.buttons !== 0 || !eye) return;
    const at = { x: event.clientX - corner.left, y: event.clientY - corner.top };
    this.grips.over.set(this.picker.question() ? null : this.grips.hit(eye, at));
  }

  /** Takes hold of what can be dragged under a press; the view stands still meanwhile. While something is to be picked, a press picks. */
  grab(down: PointerEvent, { view, eye, corner }: PressedView): boolean {
    if (down.button !== 0 || this.registry.spaceHeld() || this.picker.question() || !eye) return false;
    const orbits = view?.controls.enabled ?? false;
    const hold = (held: boolean) => view && (view.controls.enabled = orbits && !held);
    if (!this.grips.grab(down, corner, eye, () => hold(false))) return false;
    hold(true);
    return true;
  }

  press(down: PointerEvent, on: PressedView): void {
    if (this.registry.spaceHeld()) this.registry.useSpace();
    on.view?.setPanning(this.registry.spaceHeld());
    if (down.button !== 0 || this.registry.spaceHeld()) return;
    const up = (event: PointerEvent) => {
      removeEventListener('pointerup', up);
      if (Math.hypot(event.clientX - down.clientX, event.clientY - down.clientY) <= CLICK_SLOP)
        this.pick(down, on);
    };
    addEventListener('pointerup', up);
  }

  doubleClick(event: MouseEvent, on: PressedView): void {
    const bead = this.beadUnder(event, on);
    if (bead && !bead.key) this.trail.addKey(bead);
  }

  private beadUnder(event: MouseEvent, { eye, corner }: PressedView) {
    const at = { x: event.clientX - corner.left, y: event.clientY - corner.top };
    return eye && this.trail.beadAt(eye, at, false);
  }

  /** Where the pointer is on the floor; null above the horizon. */
  private onFloor(event: PointerEvent, { eye, corner }: PressedView): Vector3 | null {
    const floor = this.studio.project()?.floor ?? 0;
    const ray = eye && rayThrough(eye, event.clientX - corner.left, event.clientY - corner.top);
    return ray && onPlane(ray, new Vector3(0, floor, 0), new Vector3(0, 1, 0));
  }

  private pick(event: PointerEvent, on: PressedView): void {
    if (!this.picker.question() && this.beadUnder(event, on)) return;
    const { scene, eye, corner } = on;
    const hit = scene?.pick(event.clientX - corner.left, event.clientY - corner.top, eye?.camera) ?? null;
    const id = hit?.part ?? null;
    const place = hit?.place ?? (this.picker.question()?.anywhere ? this.onFloor(event, on) : null);
    if (this.picker.answer(id, place && [place.x, place.y, place.z])) return;
    const adding = event.ctrlKey || event.metaKey;
    const { parts } = this.studio.bench();
    if (id === null && adding) return;
    const next = id === null ? [] : adding ? toggled(parts, id) : [id];
    this.studio.pick({ parts: next, ...(adding ? {} : { channels: [], keys: [], handles: [] }) });
    if (id !== null) this.studio.set({ sheet: partSheetFor(this.studio.bench().sheet) });
  }
}
