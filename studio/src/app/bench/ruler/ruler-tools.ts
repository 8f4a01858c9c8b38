import { computed, Injectable, inject, signal } from '@angular/core';
import {
  greatestOf,
  leastOf,
  changeSound,
  putMarker,
  removeMarker,
  removeSound,
  type Marker,
  type MarkerKind,
  type Sound,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { Stage } from '../stage/stage';

/** Frames that a marker spans when it becomes a span. */
const SPAN = 24;

/** Markers, notes and sounds on the ruler. */
@Injectable({ providedIn: 'root' })
export class RulerTools {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  /** The marker or sound that was picked last. */
  readonly picked = signal<string | null>(null);
  readonly markers = computed(() => this.stage.shown()?.markers ?? []);
  readonly sounds = computed(() => this.stage.shown()?.sounds ?? []);

  pickedMarker(): Marker | null {
    return this.markers().find(({ id }) => id === this.picked()) ?? null;
  }

  pickedSound(): Sound | null {
    return this.sounds().find(({ id }) => id === this.picked()) ?? null;
  }

  pick(id: string): void {
    this.picked.set(id);
    this.studio.set({ sheet: 'ruler' });
  }

  /** A marker at the playhead, or over the span of the chosen keys. */
  add(): void {
    const frames = this.studio.bench().keys.map(({ frame }) => frame);
    const several = new Set(frames).size > 1;
    const marker: Marker = {
      id: crypto.randomUUID(),
      name: MARKER_NAMES.note,
      kind: 'note',
      frame: several ? leastOf(frames) : this.stage.frame(),
      end: several ? greatestOf(frames) : null,
    };
    this.studio.edit('Add a marker', (project) => putMarker(project, marker));
    this.pick(marker.id);
  }

  change(marker: Marker, change: Partial<Marker>): void {
    const next = { ...marker, ...change };
    const end = next.end === null ? null : Math.max(next.frame, next.end);
    this.studio.edit(`Change the marker “${next.name}”`, (project) => putMarker(project, { ...next, end }));
  }

  /** Makes a marker a span, or one frame again. */
  toggleSpan(marker: Marker): void {
    this.change(marker, { end: marker.end === null ? marker.frame + SPAN : null });
  }

  remove(marker: Marker): void {
    this.studio.edit(`Remove the marker “${marker.name}”`, (project) => removeMarker(project, marker.id));
  }

  changeSound(sound: Sound, change: Partial<Sound>): void {
    this.studio.edit('Change a sound', (project) => changeSound(project, sound.id, change));
  }

  removeSound(sound: Sound): void {
    this.studio.edit('Remove a sound', (project) => removeSound(project, sound.id));
  }

  /** The marker next to a frame on one side. */
  neighbour(frame: number, way: 1 | -1): number | null {
    const frames = this.markers()
      .flatMap((marker) => (marker.end === null ? [marker.frame] : [marker.frame, marker.end]))
      .filter((at) => (at - frame) * way > 1e-6);
    if (frames.length === 0) return null;
    return way === 1 ? leastOf(frames) : greatestOf(frames);
  }
}

/** What markers are for, as they are called. */
export const MARKER_NAMES: Readonly<Record<MarkerKind, string>> = {
  note: 'note',
  hold: 'hold',
  camera: 'camera moves',
  contact: 'contact',
  sound: 'sound',
};
