import type { Evaluated } from '../stage/stage';
import { pictureOf, type PictureSize } from './picture';
import { seenByShot } from './shot-look';
import type { StageScene } from './stage-scene';
import type { ViewCamera } from './view-camera';
import type { ViewScreen } from './view-screen';

/** What pictures of the shot are made by. */
interface Shown {
  readonly now: () => Evaluated | null;
  /** The camera that the view looks through; null in the working view. */
  readonly through: () => string | null;
  /** The view's own size in pixels. */
  readonly size: () => PictureSize;
}

/** Pictures of what the shot shows: drawn out of sight beside the view, which stays as it is. */
export class ShotPictures {
  constructor(
    private readonly scene: StageScene,
    private readonly screen: ViewScreen,
    private readonly view: ViewCamera,
    private readonly canvas: HTMLCanvasElement,
    private readonly shown: Shown,
  ) {}

  /** Draws what the shot shows at a size of its own. */
  drawn(size: PictureSize, finished: (drawn: OffscreenCanvas | null) => void): void {
    const { scene } = this;
    const shot = size.height > 0 ? this.seen(size) : null;
    if (!shot) {
      finished(null);
      return;
    }
    this.screen.take(() => {
      const own = this.shown.size();
      scene.resize(size.width, size.height);
      this.draw(shot);
      scene.resize(own.width, own.height);
    }, finished);
  }

  /** A small picture of what the shot shows: seen by its camera, where there is one, else as the view shows it. */
  take(size: PictureSize, taken: (picture: string | null) => void, atOnce = false): void {
    const { canvas } = this;
    const shot = this.seen(canvas);
    if (!shot) {
      taken(pictureOf(canvas, size));
      return;
    }
    this.screen.take(
      () => this.draw(shot),
      (drawn) => taken(pictureOf(drawn, size)),
      atOnce,
    );
  }

  private seen({ width, height }: PictureSize): ReturnType<typeof seenByShot> {
    const now = this.shown.now();
    return now && seenByShot(now, width / Math.max(1, height));
  }

  /** Draws what a camera of the shot sees, without its own lines in the picture. */
  private draw(shot: NonNullable<ReturnType<typeof seenByShot>>): void {
    const { scene } = this;
    scene.lookThrough(shot.id);
    scene.draw(this.view.target, shot.camera);
    scene.lookThrough(this.shown.through());
  }
}
