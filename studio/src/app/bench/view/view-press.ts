import { Injectable, inject } from '@angular/core';
import { Vector3 } from 'three';
import { CommandRegistry } from '../../commands/registry';
import { Studio } from '../../state/studio';
import { PartPicker } from '../stage/picker';
import { partSheetFor, toggled } from '../stage/picking';
import { onPlane, rayThrough, type Eye } from './grip-math';
import type { StageScene } from './stage-scene';
import type { Bead } from './trail';
import { TrailHands } from './trail-hands';
import type { ViewCamera } from './view-camera';

/** What a press on the view may need of it. */
export interface PressedView {
  readonly scene: StageScene | null;
  readonly view: ViewCamera | null;
  readonly eye: Eye | null;
  /** The beads of the trail that show. */
  readonly beads: readonly Bead[];
  readonly corner: DOMRect;
}

/** A press that moved less than this, in pixels, picks. */
const CLICK_SLOP = 4;

/** Presses on the view: what is no orbit picks what is under it, a key on the trail is taken hold of. */
@Injectable({ providedIn: 'root' })
export class ViewPress {
  private readonly registry = inject(CommandRegistry);
  private readonly hands = inject(TrailHands);
  private readonly studio = inject(Studio);
  private readonly picker = inject(PartPicker);

  press(down: PointerEvent, on: PressedView): void {
    if (this.registry.spaceHeld()) this.registry.useSpace();
    on.view?.setPanning(this.registry.spaceHeld());
    if (down.button !== 0 || this.registry.spaceHeld()) return;
    const asked = this.picker.question() !== null;
    if (!asked && this.grabBead(down, on)) return;
    const up = (event: PointerEvent) => {
      removeEventListener('pointerup', up);
      if (Math.hypot(event.clientX - down.clientX, event.clientY - down.clientY) <= CLICK_SLOP)
        this.pick(down, on);
    };
    addEventListener('pointerup', up);
  }

  doubleClick(event: MouseEvent, on: PressedView): void {
    const bead = this.beadUnder(event, on, false);
    if (bead && !bead.key) this.hands.addKey(bead);
  }

  /** Takes hold of a key on the trail, where the press is on one. */
  private grabBead(down: PointerEvent, on: PressedView): boolean {
    const bead = this.beadUnder(down, on, true);
    const { view, eye, corner } = on;
    if (!bead || !eye || !view) return false;
    view.controls.enabled = false;
    addEventListener('pointerup', () => (view.controls.enabled = true), { once: true });
    this.hands.drag(bead, eye, down, corner);
    return true;
  }

  private beadUnder(event: MouseEvent, { eye, beads, corner }: PressedView, keysOnly: boolean): Bead | null {
    if (!eye) return null;
    return this.hands.beadAt(beads, eye, event.clientX - corner.left, event.clientY - corner.top, keysOnly);
  }

  /** Where the pointer is on the floor; null above the horizon. */
  private onFloor(event: PointerEvent, { eye, corner }: PressedView): Vector3 | null {
    const floor = this.studio.project()?.floor ?? 0;
    const ray = eye && rayThrough(eye, event.clientX - corner.left, event.clientY - corner.top);
    return ray && onPlane(ray, new Vector3(0, floor, 0), new Vector3(0, 1, 0));
  }

  private pick(event: PointerEvent, on: PressedView): void {
    if (!this.picker.question() && this.beadUnder(event, on, false)) return;
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
