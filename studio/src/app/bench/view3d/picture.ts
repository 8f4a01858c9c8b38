import { Injectable, inject } from '@angular/core';
import { Studio } from '../../state/studio';
import { Keeper } from '../../storage/keeper';
import { Stage } from '../stage';

const SIZE = { width: 472, height: 284 };
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
  soon(take: (size: typeof SIZE) => string | null): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.now(take), DELAY);
  }

  /** Takes it now, unless the project is only followed or plays. */
  now(take: (size: typeof SIZE) => string | null): void {
    clearTimeout(this.timer);
    if (this.studio.readOnly() || this.stage.playing()) return;
    const picture = take(SIZE);
    if (picture) this.keeper.setPicture(picture);
  }
}

/** The middle of a canvas in another size, as a JPEG in a data URI; null where it has no pixels yet. */
export function pictureOf(
  source: HTMLCanvasElement | undefined,
  size: { readonly width: number; readonly height: number },
): string | null {
  if (!source || source.width < 2) return null;
  const small = Object.assign(document.createElement('canvas'), size);
  const scale = Math.max(size.width / source.width, size.height / source.height);
  const [w, h] = [source.width * scale, source.height * scale];
  small.getContext('2d')?.drawImage(source, (size.width - w) / 2, (size.height - h) / 2, w, h);
  return small.toDataURL('image/jpeg', 0.86);
}
