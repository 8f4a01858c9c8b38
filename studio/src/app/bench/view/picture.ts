import { Injectable, inject } from '@angular/core';
import { Studio } from '../../state/studio';
import { Keeper } from '../../storage/keeper';
import { Stage } from '../stage/stage';

/** How big a picture is, in pixels. */
export interface PictureSize {
  readonly width: number;
  readonly height: number;
}
/** Takes a picture, which may be finished later; null where there is nothing to see yet. */
export type TakePicture = (size: PictureSize, taken: (picture: string | null) => void) => void;

const SIZE: PictureSize = { width: 472, height: 284 };
/** The picture is taken when nothing has moved for this long. */
const DELAY = 1500;

/** Keeps the picture that the Projects page shows of the open project. */
@Injectable({ providedIn: 'root' })
export class ProjectPicture {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly keeper = inject(Keeper);
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** Takes it once the view has rested. */
  soon(take: TakePicture): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.timer = undefined;
      this.now(take);
    }, DELAY);
  }

  /** Takes the one that is due, if any, before the view goes. */
  leave(take: TakePicture): void {
    if (this.timer === undefined) return;
    clearTimeout(this.timer);
    this.timer = undefined;
    this.now(take);
  }

  /** Takes it, unless the project is only followed or plays. */
  private now(take: TakePicture): void {
    if (this.studio.readOnly() || this.stage.playing()) return;
    take(SIZE, (picture) => {
      if (picture) this.keeper.setPicture(picture);
    });
  }
}

/** The middle of a canvas in another size, as a JPEG in a data URI; null where it has no pixels yet. */
export function pictureOf(
  source: HTMLCanvasElement | OffscreenCanvas | undefined,
  size: PictureSize,
): string | null {
  if (!source || source.width < 2) return null;
  const small = Object.assign(document.createElement('canvas'), size);
  const scale = Math.max(size.width / source.width, size.height / source.height);
  const [w, h] = [source.width * scale, source.height * scale];
  small.getContext('2d')?.drawImage(source, (size.width - w) / 2, (size.height - h) / 2, w, h);
  return small.toDataURL('image/jpeg', 0.86);
}
