import type { Vector3 } from 'three';
import { toScreen, type Eye } from './grip-math';
import { sideOn } from './side-on';
import type { StageScene } from './stage-scene';
import type { Bead } from './trail';
import type { ViewCamera } from './view-camera';

/** Where the working view looks from, by what has to be in it. */
export class ViewFraming {
  /** Where what the view goes along with stood last. */
  private followed: Vector3 | null = null;
  /** Parts that are still to come into sight. */
  private brought: readonly string[] = [];

  constructor(
    private readonly scene: StageScene,
    private readonly view: ViewCamera,
  ) {}

  /** The view a project opens with; false while nothing of it is there. */
  open(): boolean {
    const places = this.scene.corners([]);
    if (places.length > 0) this.view.open(places);
    return places.length > 0;
  }

  /** Fits some parts in; none named: all. */
  fit(parts: readonly string[]): void {
    const places = this.scene.corners(parts);
    if (places.length > 0) this.view.frame(places);
  }

  /** Parts that were added come into sight as soon as their meshes are there. */
  awaitParts(parts: readonly string[]): void {
    this.brought = parts;
  }

  /** Shows parts that were awaited: where some of them are out of the picture, the view fits them in with what it showed. */
  bringAwaited(eye: Eye | null): void {
    if (!eye || this.scene.isArriving || this.brought.length === 0) return;
    const places = this.scene.corners(this.brought);
    this.brought = [];
    if (places.length === 0) return;
    const seen = places.every((place) => {
      const at = toScreen(eye, place);
      return at !== null && at.x >= 0 && at.y >= 0 && at.x <= eye.width && at.y <= eye.height;
    });
    if (!seen) this.view.frame(this.scene.corners([]));
  }

  /** Goes along with a place that moves; null lets it go. */
  goAlong(place: Vector3 | null): void {
    const before = this.followed;
    this.followed = place?.clone() ?? null;
    if (place && before) this.view.follow(place.clone().sub(before));
  }

  /** Looks at a motion of some parts from the side, past what stands before it. */
  sideOn(parts: readonly string[], beads: readonly Bead[]): void {
    const hides = (place: Vector3, away: Vector3) => this.scene.hides(place, away, parts);
    const places = [...this.scene.corners(parts), ...beads.map(({ place }) => place)];
    this.view.sideOn(sideOn(beads, hides), parts.length > 0 ? places : []);
  }
}
